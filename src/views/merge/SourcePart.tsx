import { Select } from '@mantine/core'
import { useMemo } from 'react'
import type { MapId, TopicId } from '../../core/records/ids'
import { useSessionHandle } from '../sync/use-session'
import styles from './merge.module.css'
import type { Asked, PlanAnswer } from './merge-plan'

interface Props {
  map: MapId
  hue: string
  asked: Asked
  answer: PlanAnswer
  change(part: Partial<Asked>): void
}

/** A source with its hue, and whether all of it is taken over or only one branch. */
export function SourcePart({ map, hue, asked, answer, change }: Props) {
  const session = useSessionHandle()
  const part = asked.parts.find(([of]) => of === map)?.[1] ?? null
  const branches = useMemo(() => {
    const above = new Set(Object.values(answer.topics).flatMap(({ parent }) => parent ?? []))
    return Object.entries(answer.topics)
      .filter(([id, topic]) => topic.map === map && topic.parent && above.has(id as TopicId))
      .map(([id, { text }]) => ({ value: id, label: text || 'Untitled' }))
  }, [answer, map])
  const title = session.titleOf(map)
  return (
    <Select
      className={styles.part}
      size="xs"
      label={
        <>
          <span className={`${styles.hue} ${hue}`} /> {title}
        </>
      }
      aria-label={`What of ${title}`}
      searchable
      value={part ?? ''}
      data={[{ value: '', label: 'all of it' }, ...branches]}
      onChange={(value) => {
        const others = asked.parts.filter(([of]) => of !== map)
        change({ parts: value ? [...others, [map, value as TopicId]] : others })
      }}
    />
  )
}
