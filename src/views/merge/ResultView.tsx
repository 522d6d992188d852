import { SegmentedControl } from '@mantine/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import { layoutMap } from '../../core/layout/map-layout'
import type { ResultTopic } from '../../core/matching/merge-result'
import { Records } from '../../core/records/records'
import { useFonts } from '../app/late-parts'
import { MapPicture } from '../split/MapPicture'
import { useSession } from '../sync/use-session'
import styles from './merge.module.css'
import { recordsOfResult } from './result-records'

interface Props {
  rows: readonly ResultTopic[]
  /** The topic that is looked at, as the result has it. */
  at: string | null
  title: string
  hueOf(map: string): string
  /** The number of a map among those that are merged: 0 for the target. */
  numberOf(map: string): number
}

/** What would come of the merge, as an outline or as a map; each topic tells from which maps it comes. */
export function ResultView({ rows, at, title, hueOf, numberOf }: Props) {
  const [face, setFace] = useState<'outline' | 'map'>('outline')
  return (
    <section className={styles.result} aria-label="The result">
      <SegmentedControl
        size="xs"
        aria-label="The result as"
        value={face}
        data={[
          { value: 'outline', label: `The result as outline, ${rows.length} topics` },
          { value: 'map', label: 'as map' },
        ]}
        onChange={(value) => setFace(value === 'map' ? 'map' : 'outline')}
      />
      {face === 'outline' ? (
        <ResultOutline rows={rows} at={at} hueOf={hueOf} />
      ) : (
        <ResultMap rows={rows} title={title} numberOf={numberOf} />
      )}
    </section>
  )
}

function ResultOutline({ rows, at, hueOf }: Pick<Props, 'rows' | 'at' | 'hueOf'>) {
  const room = useRef<HTMLDivElement>(null)
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => room.current,
    estimateSize: () => 26,
    overscan: 12,
    getItemKey: (index) => rows[index]!.id,
  })
  const index = useMemo(() => rows.findIndex(({ id }) => id === at), [rows, at])
  const followed = useRef(-1)
  if (index >= 0 && followed.current !== index) {
    followed.current = index
    queueMicrotask(() => list.scrollToIndex(index, { align: 'center' }))
  }
  return (
    <div ref={room} className={styles.scroll} tabIndex={0}>
      <ul style={{ height: list.getTotalSize() }} className={styles.rows}>
        {list.getVirtualItems().map(({ index: i, start, key }) => {
          const { text, level, from, id } = rows[i]!
          return (
            <li
              key={key}
              ref={list.measureElement}
              data-index={i}
              className={styles.line}
              data-at={id === at || undefined}
              style={{ transform: `translateY(${start}px)`, paddingLeft: 4 + Math.min(level, 12) * 14 }}
            >
              {from.map((map) => (
                <span key={map} className={`${styles.hue} ${hueOf(map)}`} />
              ))}
              {text || 'Untitled'}
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function ResultMap({ rows, title, numberOf }: Pick<Props, 'rows' | 'title' | 'numberOf'>) {
  const session = useSession()
  const fonts = useFonts()
  const { layout, numbers } = useMemo(() => {
    const { records, map } = recordsOfResult(rows, session.collection, new Records())
    const numbers = new Map(rows.map(({ id, from }) => [id as string, partOfResult(from.map(numberOf))]))
    return { layout: layoutMap(records, map, { fonts, countTopics: () => 0 }), numbers }
  }, [rows, session.collection, fonts, numberOf])
  const partOf = useMemo(() => (topic: string) => numbers.get(topic), [numbers])
  return (
    <div className={styles.picture}>
      <MapPicture layout={layout} partOf={partOf} label={`${title} as it would be`} />
    </div>
  )
}

/** The part of a topic that comes from a source alone: drawn in its hue, which is one on in the numbering of parts. */
const partOfResult = ([first = 0, ...more]: readonly number[]): number | undefined =>
  first === 0 || more.length > 0 ? undefined : first + 1
