import { isPlacedByHand, parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/**
 * A topic where a map shows it. Nearly all are shown once, on their map and below their parent, and have their id for a
 * key. What is shown again elsewhere, such as in a gathered list or on a child map unfolded in place, has a path for one:
 *
 *     peas                 in its own place
 *     list>peas            shown once more below `list`
 *     list>peas/pods       what hangs on `peas` there
 */
export interface Occurrence {
  readonly topic: TopicRecord
  /** Tells it from all others on its map. */
  readonly key: string
  /** What the keys of the topics begin with that hang on it in their own places. */
  readonly scope: string
}

/** A topic on which a map, or a loose branch, begins. */
export const occurrenceAtHead = (topic: TopicRecord): Occurrence => ({ topic, key: topic.id, scope: '' })

/** A topic as it is shown below another. */
export function occurrenceBelow(above: Occurrence, topic: TopicRecord): Occurrence {
  const { scope } = above
  if (hangsOn(topic, above)) return { topic, key: scope === '' ? topic.id : scope + topic.id, scope }
  const key = `${above.key}>${topic.id}`
  return { topic, key, scope: `${key}/` }
}

/** Whether a topic is shown on its own map in its own place. */
export const isAtHome = ({ topic, key }: { topic: TopicRecord; key: string }): boolean => key === topic.id

const hangsOn = (topic: TopicRecord, above: Occurrence): boolean => parentOf(topic) === above.topic.id

/** Whether the place that a topic was given by hand counts where it is shown: points are seen from the root of its own map. */
export const keepsPoint = (at: Occurrence): boolean => isAtHome(at) && isPlacedByHand(at.topic)

/**
 * What a map shows below each topic. A provider of its own may show topics where they do not hang; they keep their looks,
 * folding and notes, and are the same records at every place.
 */
export interface ShownChildren {
  /** In order, none of them twice. It must come to an end: a map that is unfolded inside itself would not. */
  below(at: Occurrence): readonly TopicRecord[]
  /** Changes when anything changes in the branch as it is shown. */
  stamp(at: Occurrence): number
  /** Whether a topic is shown there because a list found it. */
  isGathered?(at: Occurrence): boolean
}

/** What hangs on each topic, and nothing else. */
export const ownChildren = (records: Records): ShownChildren => ({
  below: ({ topic }) => records.children(topic.id),
  stamp: ({ topic }) => records.stampOf(topic.id),
})
