import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { TopicId } from '../records/ids'
import { arranged, hangs, type Place, parentOf } from '../records/place'
import { blankTopic } from './blank-topic'
import { command, named } from './command'
import { headsOnly } from './move-topics'

/**
 * Puts a new topic between branches and the topic on which they hang: it takes the place of the first, and all of
 * them hang on it, in their order. Refused for branches that hang on nothing, or on different topics. O(children of
 * the parent).
 */
export const insertBetween = command((change, args: { topics: readonly TopicId[]; text: string }) => {
  const heads = headsOnly(change.records, args.topics)
  const [first] = heads
  if (!first || !hangs(first.place))
    refuse('root', 'Only between a topic and the one on which it hangs can another be put.')
  if (heads.some((head) => parentOf(head) !== parentOf(first)))
    refuse('invalid', 'A topic can be put above branches that hang on the same topic.')
  const made = change.create('topic', blankTopic(change.newId(TopicId), arranged(first.place), args.text))
  const ranks = generateNKeysBetween(null, null, heads.length)
  heads.forEach((head, i) => {
    const place: Place = {
      kind: 'arranged',
      map: made.place.map,
      parent: made.id,
      rank: ranks[i]!,
      side: null,
    }
    change.update('topic', head.id, { place })
  })
  return { label: `Put a topic above ${named(first.text)}`, select: [made.id] }
})
