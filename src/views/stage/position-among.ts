import type { TopicRecord } from '../../core/records/topic'

const known = new WeakMap<readonly TopicRecord[], Map<string, number>>()

/** Where a topic stands among its siblings, from 1 on: looked up once for all of them, since the records keep their rows. */
export function positionAmong(siblings: readonly TopicRecord[], topic: string): number {
  let positions = known.get(siblings)
  if (!positions) known.set(siblings, (positions = new Map(siblings.map(({ id }, i) => [id, i + 1]))))
  return positions.get(topic) ?? 0
}
