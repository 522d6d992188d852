import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import { MOST_APART } from '../records/topic'
import { command, named } from './command'

/**
 * Says that two topics are not to be linked, though one names the other or they are close in meaning: that is not proposed again.
 * Refused where one is gone, and beyond as many as one topic tells apart.
 */
export const tellApart = command((change, args: { a: TopicId; b: TopicId }) => {
  const [a, b] = [change.topic(args.a), change.topic(args.b)]
  if (a.id === b.id) refuse('invalid', 'These are one topic.')
  if (a.apart.length >= MOST_APART) refuse('invalid', `At most ${MOST_APART} topics are told apart from one.`)
  if (!a.apart.includes(b.id) && !b.apart.includes(a.id)) change.update('topic', a.id, { apart: [...a.apart, b.id] })
  return { label: `Leave ${named(a.text)} and ${named(b.text)} unlinked`, select: [] }
})
