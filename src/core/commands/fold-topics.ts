import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'

/** Hides or shows what hangs below topics. */
export function foldTopics(records: Records, args: { topics: TopicId[]; folded: boolean }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topics = args.topics.flatMap((id) => records.get('topic', id) ?? [])
  const first = topics[0] ?? refuse('gone', 'This topic is gone.')
  for (const topic of topics) draft.update('topic', topic.id, { folded: args.folded })
  return draft.outcome(`${args.folded ? 'Fold' : 'Unfold'} ${named(first.text)}`, args.topics)
}
