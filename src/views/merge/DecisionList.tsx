import { SegmentedControl, Select, Text } from '@mantine/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useMemo, useRef } from 'react'
import { type Decision, meantIn } from '../../core/matching/decisions'
import { wordDifference } from '../../core/text/word-difference'
import styles from './merge.module.css'
import { KINDS, type Kind, type PlanAnswer } from './merge-plan'
import { Pieces } from './Pieces'

interface Props {
  answer: PlanAnswer
  kind: Kind
  counts: Record<Kind, number>
  setKind(kind: Kind): void
  shown: readonly Decision[]
  at: number
  go(index: number): void
  hueOf(map: string): string
}

/** What happens to each topic of the sources: those of one kind, one below the other. */
export function DecisionList({ answer, kind, counts, setKind, shown, at, go, hueOf }: Props) {
  const room = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => room.current,
    estimateSize: () => 58,
    overscan: 8,
    getItemKey: (index) => shown[index]!.source,
  })
  useEffect(() => {
    if (shown.length > 0) rows.scrollToIndex(Math.min(at, shown.length - 1))
  }, [at, shown.length, rows])
  return (
    <section className={styles.list} aria-label="Decisions">
      <Select
        size="xs"
        aria-label="Which decisions"
        allowDeselect={false}
        value={kind}
        data={(Object.keys(KINDS) as Kind[]).map((value) => ({ value, label: `${KINDS[value]} ${counts[value]}` }))}
        onChange={(value) => value && setKind(value as Kind)}
      />
      <div ref={room} className={styles.scroll} tabIndex={0}>
        {shown.length === 0 && (
          <Text size="sm" className={styles.quiet} p="sm">
            None.
          </Text>
        )}
        <ul style={{ height: rows.getTotalSize() }} className={styles.rows}>
          {rows.getVirtualItems().map(({ index, start, key }) => (
            <li
              key={key}
              ref={rows.measureElement}
              data-index={index}
              className={styles.row}
              style={{ transform: `translateY(${start}px)` }}
            >
              <Row
                answer={answer}
                decision={shown[index]!}
                isAt={index === at}
                onPress={() => go(index)}
                hueOf={hueOf}
              />
            </li>
          ))}
        </ul>
      </div>
    </section>
  )
}

function Row({
  answer: { topics },
  decision,
  isAt,
  onPress,
  hueOf,
}: {
  answer: PlanAnswer
  decision: Decision
  isAt: boolean
  onPress(): void
  hueOf(map: string): string
}) {
  const source = topics[decision.source]
  const meant = meantIn(decision)
  const other = meant && topics[meant.into]
  const [own, its] = useMemo(
    () => wordDifference(source?.text ?? '', other?.text ?? source?.text ?? ''),
    [source, other],
  )
  return (
    <button type="button" className={styles.decision} aria-current={isAt || undefined} onClick={onPress} tabIndex={-1}>
      <span className={styles.pair}>
        <span className={`${styles.hue} ${hueOf(source?.map ?? '')}`} />
        <span>{source?.text ? <Pieces pieces={own} /> : 'Untitled'}</span>
      </span>
      {other && (
        <span className={styles.pair}>
          <span className={`${styles.hue} ${hueOf(other.map)}`} />
          <span>{other.text ? <Pieces pieces={its} /> : 'Untitled'}</span>
        </span>
      )}
      {meant && (
        <span className={styles.sure} title={`${Math.round(meant.sure * 100)} % sure`}>
          <span style={{ width: `${meant.sure * 100}%` }} />
        </span>
      )}
    </button>
  )
}

/** One or two topics: a small switch that says what a decision comes to. */
export function OneOrTwo({ isOne, label, say }: { isOne: boolean; label: string; say(isOne: boolean): void }) {
  return (
    <SegmentedControl
      size="xs"
      aria-label={label}
      value={isOne ? 'one' : 'two'}
      data={[
        { value: 'one', label: 'One topic' },
        { value: 'two', label: 'Two topics' },
      ]}
      onChange={(value) => say(value === 'one')}
    />
  )
}
