import { type TopicId, WeblinkId } from '../records/ids'
import { isRoot } from '../records/place'
import { addressIn, newWeblink, readableAddress } from '../records/weblink'
import { titleOf } from '../text/title'
import { rankAfterLast } from '../tree/rank'
import { command, named } from './command'

/**
 * Gives a topic another text. `base` is the text that the person began with, where that is not what is there: what others wrote
 * meanwhile is joined by lines when the change is committed. A text that is nothing but an address becomes a web link of the topic. A map that is named
 * like its root keeps the name in common. Refused where the topic is gone.
 */
export const setText = command((change, args: { topic: TopicId; text: string; base?: string }) => {
  const { records } = change
  const topic = change.topic(args.topic)
  const url = addressIn(args.text)
  const text = url === null ? args.text : readableAddress(url)
  change.update('topic', topic.id, { text }, args.base === undefined ? {} : { text: args.base })
  const links = records.weblinks(topic.id)
  if (url !== null && !links.some((link) => link.url === url)) {
    const id = change.newId(WeblinkId)
    change.create('weblink', newWeblink({ id, topic: topic.id, url, title: '', rank: rankAfterLast(links) }))
  }
  const map = isRoot(topic) ? records.get('map', topic.place.map) : undefined
  if (map && map.title === titleOf(topic.text) && titleOf(text) !== '')
    change.update('map', map.id, { title: titleOf(text) })
  const label = titleOf(topic.text) === '' ? `Write ${named(text)}` : `Reword ${named(topic.text)}`
  return { label, select: [topic.id] }
})
