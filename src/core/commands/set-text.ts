import { refuse } from '../changes/problem'
import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { titleOf } from '../text/title'
import { Draft, type Making, named, type Outcome } from './command'

/**
 * Gives a topic another text. A map that is named like its root, and a child map that is named like its doorway,
 * keep the name in common.
 */
export function setText(records: Records, args: { topic: TopicId; text: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  draft.update('topic', topic.id, { text: args.text })
  const map = isRoot(topic) ? records.get('map', topic.place.map) : undefined
  if (map && map.title === titleOf(topic.text) && titleOf(args.text) !== '')
    draft.update('map', map.id, { title: titleOf(args.text) })
  const label = titleOf(topic.text) === '' ? `Write ${named(args.text)}` : `Reword ${named(topic.text)}`
  return draft.outcome(label, [topic.id])
}
