import { refuse } from '../changes/problem'
import { countItems } from '../formats/outline'
import { readText } from '../formats/read-text'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { Draft, type Making, named, type Outcome } from './command'
import { plant } from './plant'

/** Most topics that one paste or import makes. */
export const MAX_PLANTED = 10_000

/** Hangs pasted text below a topic: headings, bullets and lines become topics, paragraphs their notes. */
export function pasteOutline(records: Records, args: { topic: TopicId; text: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const { items } = readText(args.text)
  const count = countItems(items)
  if (count === 0) refuse('invalid', 'There is no text to paste.')
  if (count > MAX_PLANTED)
    refuse('invalid', `This text would become ${count} topics; at most ${MAX_PLANTED} can be pasted at once.`)
  if (topic.folded) draft.update('topic', topic.id, { folded: false })
  const planted = plant(draft, topic, items, isRoot(topic))
  const first = planted.find(({ item }) => item === items[0])!.topic
  return draft.outcome(`Paste ${count === 1 ? named(items[0]!.text) : `${count} topics`}`, [first.id])
}
