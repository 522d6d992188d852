import { refuse } from '../changes/problem'
import { readIndentedText } from '../formats/indented-text'
import { countItems, type OutlineItem } from '../formats/outline'
import { readText } from '../formats/read-text'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'
import { hasSides } from './layouts'
import { plant } from './plant'

/** Most topics that one paste or import makes. */
export const MAX_PLANTED = 10_000

/** Hangs items below a topic, behind what is there, with their notes and links. Selects the first. */
export function hangItems(
  records: Records,
  args: { topic: TopicId; items: readonly OutlineItem[]; act: 'Paste' | 'Pour' | 'Insert' },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const { items } = args
  const count = countItems(items)
  if (count === 0) refuse('invalid', `There is no text to ${args.act.toLowerCase()}.`)
  if (count > MAX_PLANTED)
    refuse('invalid', `This text would become ${count} topics; at most ${MAX_PLANTED} can be made at once.`)
  if (topic.folded) draft.update('topic', topic.id, { folded: false })
  const planted = plant(draft, topic, items, hasSides(topic))
  const first = planted.find(({ item }) => item === items[0])!.topic
  return draft.outcome(`${args.act} ${count === 1 ? named(items[0]!.text) : `${count} topics`}`, [first.id])
}

/** Hangs pasted text below a topic: headings, bullets and lines become topics, paragraphs their notes. */
export const pasteOutline = (
  records: Records,
  { topic, text }: { topic: TopicId; text: string },
  making: Making,
): Outcome => hangItems(records, { topic, items: readText(text).items, act: 'Paste' }, making)

/** Hangs what was poured out, line by line, below a topic; indentation says what hangs on what. */
export const pourTopics = (
  records: Records,
  { topic, text }: { topic: TopicId; text: string },
  making: Making,
): Outcome => hangItems(records, { topic, items: readIndentedText(text), act: 'Pour' }, making)
