import { refuse } from '../changes/problem'
import { type TopicId, WeblinkId } from '../records/ids'
import type { Records } from '../records/records'
import { isFollowable } from '../records/weblink'
import { rankAfterLast } from '../tree/rank'
import { Draft, type Making, named, type Outcome } from './command'

/** An address as a person types it, made whole: a bare host name gets https in front. Null where it cannot be one. */
function wholeAddress(typed: string): string | null {
  const text = typed.trim()
  if (isFollowable(text)) return text
  return /^[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)+([/?#:]\S*)?$/u.test(text) ? `https://${text}` : null
}

export function addWeblink(
  records: Records,
  args: { topic: TopicId; url: string; title: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const topic = records.get('topic', args.topic) ?? refuse('gone', 'This topic is gone.')
  const url =
    wholeAddress(args.url) ??
    refuse('invalid', 'This is not a web address. It should look like https://example.org/page.')
  const rank = rankAfterLast(records.weblinks(topic.id))
  draft.create('weblink', {
    id: draft.newId(WeblinkId),
    topic: topic.id,
    url,
    title: args.title.trim(),
    rank,
    trashed: false,
  })
  return draft.outcome(`Add a web link to ${named(topic.text)}`, [topic.id])
}

export function changeWeblink(
  records: Records,
  args: { weblink: WeblinkId; url: string; title: string },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const url =
    wholeAddress(args.url) ??
    refuse('invalid', 'This is not a web address. It should look like https://example.org/page.')
  draft.update('weblink', args.weblink, { url, title: args.title.trim() })
  return draft.outcome('Change a web link')
}

export function removeWeblink(records: Records, args: { weblink: WeblinkId }, making: Making): Outcome {
  const draft = new Draft(records, making)
  draft.update('weblink', args.weblink, { trashed: true })
  return draft.outcome('Remove a web link')
}
