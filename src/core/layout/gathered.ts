import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Occurrence, ShownChildren } from './occurrence'

/** What the gathered lists of a map found: topics anywhere in the collection, by the topic below which they are shown. */
export interface Gathered {
  /** In order, none of them twice. */
  of(list: TopicRecord): readonly TopicRecord[]
  /** Grows when any of it changes. */
  readonly stamp: number
}

/**
 * What `shown` shows, and below each gathered list what it found. A topic that was gathered is shown alone, without what hangs on it
 * in its own place, so that lists that find one another come to an end; the list itself, and what hangs on it, is not gathered there.
 */
export function gatheredChildren(records: Records, gathered: Gathered, shown: ShownChildren): ShownChildren {
  const kept = new Map<string, { stamp: number; topics: readonly TopicRecord[]; ids: ReadonlySet<string> }>()
  const foundBy = (list: TopicRecord) => {
    const known = kept.get(list.id)
    if (known?.stamp === gathered.stamp) return known
    const topics = list.gathers ? gathered.of(list) : []
    const found = { stamp: gathered.stamp, topics, ids: new Set(topics.map(({ id }) => id)) }
    kept.set(list.id, found)
    return found
  }
  const isGathered = ({ topic, key }: Occurrence): boolean => {
    // Only what is away from home has such a key, and the step before the last is the list.
    if (key === topic.id || !key.endsWith(`>${topic.id}`)) return false
    const above = key.slice(0, key.lastIndexOf('>'))
    const list = records.get('topic', above.slice(Math.max(above.lastIndexOf('>'), above.lastIndexOf('/')) + 1))
    return list?.gathers != null && foundBy(list).ids.has(topic.id)
  }
  return {
    below(at) {
      if (isGathered(at)) return []
      const own = shown.below(at)
      if (!at.topic.gathers) return own
      const hanging = new Set(own.map(({ id }) => id))
      const found = foundBy(at.topic).topics.filter(({ id }) => id !== at.topic.id && !hanging.has(id))
      return found.length === 0 ? own : [...own, ...found]
    },
    stamp: (at) => shown.stamp(at) + gathered.stamp,
    isGathered,
  }
}
