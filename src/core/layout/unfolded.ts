import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Occurrence, ShownChildren } from './occurrence'

/** Whether a topic stands somewhere above itself on the way to where it is shown: then its map is shown there already. */
const isWithinItself = ({ topic, key }: Occurrence): boolean => key.split(/[>/]/).slice(0, -1).includes(topic.id)

/**
 * What hangs on each topic, and below the doorways in `unfolded` what stands on the maps behind them, as far as these are held. A
 * map is not unfolded within itself.
 */
export function unfoldedChildren(records: Records, unfolded: ReadonlySet<string>): ShownChildren {
  const behind = (at: Occurrence): readonly TopicRecord[] => {
    const { topic } = at
    const root = unfolded.has(topic.id) && !isWithinItself(at) ? records.root(topic.opensMap ?? '') : undefined
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
