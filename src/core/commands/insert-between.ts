import { generateKeyBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { blankTopic } from './add-topic'
import { Draft, type Making, named, type Outcome } from './command'
import { headsOnly } from './move-topics'

/**
 * Puts a new topic between branches and the topic on which they hang: it takes the place of the first, and all of them
 * hang on it, in their order.
 */
export function insertBetween(
  records: Records,
  args: { topics: readonly TopicId[]; text: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const heads = headsOnly(records, [...args.topics])
  const [first] = heads
  if (!first?.place.parent) refuse('root', 'Only between a topic and the one on which it hangs can another be put.')
  if (heads.some((head) => head.place.parent !== first.place.parent))
    refuse('invalid', 'A topic can be put above branches that hang on the same topic.')
  const place = { ...first.place, x: null, y: null }
  const made = draft.create('topic', blankTopic(draft.newId(TopicId), place, args.text))
  let rank: string | null = null
  for (const head of heads) {
    rank = generateKeyBetween(rank, null)
    draft.update('topic', head.id, { place: { ...head.place, parent: made.id, rank, side: null, x: null, y: null } })
  }
  return draft.outcome(`Put a topic above ${named(first.text)}`, [made.id])
}
