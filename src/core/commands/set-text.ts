import { refuse } from '../changes/problem'
import { type TopicId, WeblinkId } from '../records/ids'
import type { Records } from '../records/records'
import { isRoot } from '../records/topic'
import { isFollowable } from '../records/weblink'
import { titleOf } from '../text/title'
import { rankAfterLast } from '../tree/rank'
import { Draft, type Making, named, type Outcome } from './command'

/** A text that is nothing but one address: what is left to read of it, without the scheme. Null for any other text. */
function readableAddress(text: string): string | null {
  const address = text.trim()
  if (/\s/.test(address) || !isFollowable(address)) return null
  return address
    .replace(/^(?:https?:\/\/|mailto:)(?:www\.)?/i, '')
    .replace(/[/?#]+$/, '')
    .slice(0, 80)
}

/**
 * Gives a topic another text. A text that is nothing but an address becomes a web link of the topic. A map that is named like its root, and a child map that is named like its doorway,
 * keep the name in common.
 */
export function setText(records: Records, args: { topic: TopicId; text: string }, making: Making): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const readable = readableAddress(args.text)
  const text = readable ?? args.text
  draft.update('topic', topic.id, { text })
  const links = records.weblinks(topic.id)
  const url = args.text.trim()
  if (readable !== null && !links.some((link) => link.url === url))
    draft.create('weblink', {
      id: draft.newId(WeblinkId),
      topic: topic.id,
      url,
      title: '',
      rank: rankAfterLast(links),
      trashed: false,
    })
  const map = isRoot(topic) ? records.get('map', topic.place.map) : undefined
  if (map && map.title === titleOf(topic.text) && titleOf(text) !== '')
    draft.update('map', map.id, { title: titleOf(text) })
  const label = titleOf(topic.text) === '' ? `Write ${named(text)}` : `Reword ${named(topic.text)}`
  return draft.outcome(label, [topic.id])
}
