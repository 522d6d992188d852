import { readIndentedText } from '../formats/indented-text'
import type { OutlineItem } from '../formats/outline'
import type { TopicId } from '../records/ids'
import { command, named } from './command'
import { unfold } from './hang'
import { plant, sizeToPlant } from './plant'

/**
 * Hangs items below a topic, behind what is there, with their notes and links. Selects the first. Refused where the
 * topic is gone, for nothing, and for more than can be made at once. O(items).
 */
export const hangItems = command(
  (change, args: { topic: TopicId; items: readonly OutlineItem[]; act: 'Paste' | 'Pour' | 'Insert' }) => {
    const topic = change.topic(args.topic)
    const { items } = args
    const count = sizeToPlant(items, args.act.toLowerCase())
    unfold(change, topic)
    const planted = plant(change, topic, items)
    const first = planted.find(({ item }) => item === items[0])!.topic
    return { label: `${args.act} ${count === 1 ? named(items[0]!.text) : `${count} topics`}`, select: [first.id] }
  },
)

/**
 * Hangs what was poured out, line by line, below a topic; indentation says what hangs on what. Refused as
 * `hangItems`. O(lines).
 */
export const pourTopics = command((change, { topic, text }: { topic: TopicId; text: string }) =>
  hangItems.within(change, { topic, items: readIndentedText(text), act: 'Pour' }),
)
