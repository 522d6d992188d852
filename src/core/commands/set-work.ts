import { refuse } from '../changes/problem'
import { MOST_EFFORT, MOST_WHO, type Work } from '../records/dates'
import type { TopicId } from '../records/ids'
import { command, namedAll } from './command'

/** What is said of the work on something: who does it, how much it is, how far it is. Null takes one of these away. */
type Said = { [Field in 'who' | 'effort' | 'progress']?: Work[Field] | null }

/** Says who does topics, how much work they are, or how far they are; what is not named stays. Refused where one is gone. */
export const setWork = command((change, args: { topics: readonly TopicId[]; work: Said }) => {
  const topics = args.topics.map((id) => change.topic(id))
  const { who, effort } = args.work
  if (who && who.length > MOST_WHO) refuse('invalid', `At most ${MOST_WHO} people do one thing.`)
  if (effort && effort > MOST_EFFORT) refuse('invalid', 'This is more work than can be kept of one topic.')
  for (const topic of topics) {
    const said = { ...topic.work, ...args.work }
    const kept = Object.entries(said).filter(
      ([, value]) => value !== null && !(Array.isArray(value) && value.length === 0),
    )
    change.update('topic', topic.id, { work: kept.length > 0 ? (Object.fromEntries(kept) as Work) : null })
  }
  const fields = Object.keys(args.work)
  const what = fields.length !== 1 ? 'the work on' : fields[0] === 'who' ? 'who does' : `the ${fields[0]} of`
  return { label: `Set ${what} ${namedAll(topics)}`, select: [...args.topics] }
})
