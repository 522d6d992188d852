import { refuse } from '../changes/problem'
import { type TopicId, WeblinkId } from '../records/ids'
import { isFollowable, newWeblink } from '../records/weblink'
import { rankAfterLast } from '../tree/rank'
import { command, named } from './command'

/** An address as a person types it, made whole: a bare host name gets https in front. Null where it cannot be one. */
function wholeAddress(typed: string): string | null {
  const text = typed.trim()
  if (isFollowable(text)) return text
  if (/^[^\s@/]+@[^\s@/]+\.[^\s@/]+$/.test(text)) return `mailto:${text}`
  return /^[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)+([/?#:]\S*)?$/u.test(text) ? `https://${text}` : null
}

const readAddress = (typed: string): string =>
  wholeAddress(typed) ?? refuse('invalid', 'This is not a web address. It should look like https://example.org/page.')

/** Gives a topic a named address, behind those that it has. Refused where the topic is gone, and for what is no address. */
export const addWeblink = command((change, args: { topic: TopicId; url: string; title: string }) => {
  const topic = change.topic(args.topic)
  const url = readAddress(args.url)
  const rank = rankAfterLast(change.records.weblinks(topic.id))
  const title = args.title.trim()
  change.create('weblink', newWeblink({ id: change.newId(WeblinkId), topic: topic.id, url, title, rank }))
  return { label: `Add a web link to ${named(topic.text)}`, select: [topic.id] }
})

/** Gives a web link another address or name. Refused where it is gone, and for what is no address. */
export const changeWeblink = command((change, args: { weblink: WeblinkId; url: string; title: string }) => {
  change.update('weblink', args.weblink, { url: readAddress(args.url), title: args.title.trim() })
  return { label: 'Change a web link', select: [] }
})

/** Puts a web link into the trash. Refused where it is gone. */
export const removeWeblink = command((change, args: { weblink: WeblinkId }) => {
  change.update('weblink', args.weblink, { trashed: true })
  return { label: 'Remove a web link', select: [] }
})
