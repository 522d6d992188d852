import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Occurrence, ShownChildren } from './occurrence'

/** So deep maps are unfolded within one another: else maps that open one another would be shown in every order of them. */
const MOST_DEEP = 2

/** Whether the map behind a topic may be unfolded where the topic is shown: not within itself, and not too deep within others. */
function mayUnfold(records: Records, { topic, key }: Occurrence): boolean {
  const way = key.split(/[>/]/).slice(0, -1)
  if (key.split('>').length > MOST_DEEP) return false
  return way.every((id) => {
    const above = records.get('topic', id)
    return above?.opensMap !== topic.opensMap && above?.place.map !== topic.opensMap
  })
}

/**
 * What hangs on each topic, and below the doorways in `unfolded` what stands on the maps behind them, as far as these are held. A
 * map is not unfolded within itself, and no deeper than `MOST_DEEP` within others.
 */
export function unfoldedChildren(records: Records, unfolded: ReadonlySet<string>): ShownChildren {
  const behind = (at: Occurrence): readonly TopicRecord[] => {
    const { topic } = at
    const root = unfolded.has(topic.id) && mayUnfold(records, at) ? records.root(topic.opensMap ?? '') : undefined
    return root ? records.children(root.id) : []
  }
  return {
    below: (at) => {
      const more = behind(at)
      const own = records.children(at.topic.id)
      return more.length === 0 ? own : [...own, ...more]
    },
    // What hangs on a topic can change with any of the maps that are unfolded below it.
    stamp: ({ topic }) => {
      let stamp = records.stampOf(topic.id)
      for (const id of unfolded) {
        const root = records.root(records.get('topic', id)?.opensMap ?? '')
        if (root) stamp += records.stampOf(root.id)
      }
      return stamp
    },
  }
}
