import type { Look, LookField } from '../records/look'
import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { LEVELS, mapLooks, wholeLookOf } from './styles'

/** Where a value of a topic's look comes from, nearest first. */
export type LookSource =
  | { from: 'topic' | 'branch' }
  | { from: 'above'; topic: TopicRecord }
  | { from: 'map' | 'collection' }
  | { from: 'whole'; name: string }

export interface SourcedValue<F extends LookField> {
  value: Look[F]
  source: LookSource
}

/** The value of one part of a topic's look, and where it comes from. `level` as in the layout: 0 at the root. */
export function lookValue<F extends LookField>(
  records: Records,
  topic: TopicRecord,
  level: number,
  field: F,
): SourcedValue<F> {
  const set = (look: Look | null | undefined): look is Look => look != null && look[field] !== undefined
  if (set(topic.look)) return { value: topic.look[field], source: { from: 'topic' } }
  if (set(topic.branchLook)) return { value: topic.branchLook[field], source: { from: 'branch' } }
  for (let above = records.get('topic', parentOf(topic)); above; above = records.get('topic', parentOf(above)))
    if (set(above.branchLook)) return { value: above.branchLook[field], source: { from: 'above', topic: above } }
  const index = Math.min(level, LEVELS - 1)
  const [around, own] = mapLooks(records, topic.place.map)
  for (const [look, from] of [
    [own, 'map'],
    [around, 'collection'],
  ] as const)
    for (const part of [look?.levels[index], look?.every])
      if (set(part)) return { value: part[field], source: { from } }
  const whole = wholeLookOf(records, topic.place.map)
  return { value: { ...whole.every, ...whole.levels[index] }[field], source: { from: 'whole', name: whole.name } }
}
