import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import type { TopicId } from '../../core/records/ids'
import { mapNumbers } from '../../core/tree/map-numbers'
import { useSession } from '../sync/use-session'
import { useShownRow } from '../workspace/use-shown-row'
import { type Pane, workspace } from '../workspace/workspace-store'
import { Contents } from './Contents'
import styles from './page.module.css'
import { SectionView } from './SectionView'
import { sectionsOf, type Writing } from './sections'

/** Sizes of a section before it is measured, in px: a heading, a line of its note, and the letters on a line. */
const [HEADING, LINE, LETTERS] = [46, 28, 75]

/** The face *Page*: the whole map as one continuous text, written in place. */
export default function Page({ pane, index }: { pane: Pane; index: number }) {
  const session = useSession()
  const { version, records } = session
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const sections = useMemo(() => sectionsOf(records, pane.map, pane.only), [records, version, pane.map, pane.only])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the records change in place; the version tells when.
  const numbers = useMemo(() => mapNumbers(records, pane.map), [records, version, pane.map])
  const [writing, setWriting] = useState<Writing | null>(null)
  const container = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: sections.length,
    getScrollElement: () => container.current,
    estimateSize: (i) => {
      const { length } = records.get('note', sections[i]!.topic.note)?.text ?? ''
      return HEADING + Math.ceil(length / LETTERS) * LINE
    },
    overscan: 6,
    getItemKey: (i) => sections[i]!.topic.id,
  })
  const items = virtual.getVirtualItems()
  const scrolled = virtual.scrollOffset ?? 0
  const last = pane.selected.at(-1)
  const height = container.current?.clientHeight ?? 0
  const isSeen = ({ start, end }: { start: number; end: number }) => end > scrolled + 40 && start < scrolled + height
  /** What is selected, as long as it is seen; else what stands uppermost. */
  const inView =
    (items.find((item) => isSeen(item) && sections[item.index]!.topic.id === last) ?? items.find(isSeen))?.index ?? 0

  const rowOf = (id: TopicId) => sections.findIndex(({ topic }) => topic.id === id)
  const met = useShownRow(pane, container, rowOf, (row) => {
    if (writing?.topic !== last) virtual.scrollToIndex(row, { align: 'auto' })
  })

  const write = (next: Writing | null) => {
    setWriting(next)
    if (next && pane.selected[0] !== next.topic) workspace.select(index, [next.topic])
    if (next) {
      const at = rowOf(next.topic)
      if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' })
    } else container.current?.focus({ preventScroll: true })
  }
  /** Goes on to the heading before or after a section; nowhere at the ends. */
  const goFrom = (topic: TopicId, by: -1 | 1) => {
    const next = sections[rowOf(topic) + by]
    if (next) write({ topic: next.topic.id, part: 'heading', caret: null })
  }
  return (
    <div className={styles.page}>
      <div
        ref={container}
        className={styles.text}
        role="document"
        data-face
        tabIndex={0}
        aria-label={`Page of ${session.titleOf(pane.map)}`}
        onFocus={() => workspace.activate(index)}
        onKeyDown={({ key, target, currentTarget }) => {
          // As far as it goes, also where not all of it has been measured.
          if (target !== currentTarget) return
          if (key === 'End') virtual.scrollToIndex(sections.length - 1, { align: 'end' })
          else if (key === 'Home') virtual.scrollToIndex(0, { align: 'start' })
        }}
      >
        <div className={styles.column} style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const section = sections[item.index]!
            const { id } = section.topic
            return (
              <div
                key={id}
                ref={virtual.measureElement}
                data-index={item.index}
                className={styles.place}
                style={{ transform: `translateY(${item.start}px)` }}
              >
                <SectionView
                  section={section}
                  index={index}
                  number={numbers.get(id) ?? null}
                  isSelected={last === id}
                  writing={writing?.topic === id ? writing : null}
                  write={write}
                  goFrom={goFrom}
                />
              </div>
            )
          })}
        </div>
      </div>
      <Contents
        sections={sections}
        inView={inView}
        go={(at) => {
          const { id } = sections[at]!.topic
          met(id)
          workspace.select(index, [id])
          virtual.scrollToIndex(at, { align: 'start' })
        }}
      />
    </div>
  )
}
