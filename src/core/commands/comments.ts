import { refuse } from '../changes/problem'
import { MAX_COMMENT, MOST_MENTIONED } from '../records/comment'
import { CommentId, type PersonId, type TopicId } from '../records/ids'
import { command, type NewChange, named } from './command'

/** Who says something, and when, as far as the browser knows: the server writes it anew. */
interface Said {
  author: { id: PersonId; name: string }
  /** UTC instant in ISO 8601. */
  at: string
  text: string
  mentions: readonly PersonId[]
}

/**
 * Says something about a topic, or about words of its note; with `answers` in a thread that is there. Answering takes up a thread that
 * was settled. Refused where the topic or the thread is gone, without words, and for too many.
 */
export const addComment = command(
  (change, args: Said & { topic: TopicId; quote: string; answers: CommentId | null }) => {
    const topic = change.topic(args.topic)
    const thread = args.answers && commentOf(change, args.answers)
    if (thread?.resolved) change.update('comment', thread.id, { resolved: false })
    change.create('comment', {
      id: change.newId(CommentId),
      topic: topic.id,
      answers: thread ? (thread.answers ?? thread.id) : null,
      author: args.author.id,
      authorName: args.author.name,
      at: args.at,
      text: words(args.text),
      quote: thread ? '' : args.quote.trim(),
      mentions: args.mentions.slice(0, MOST_MENTIONED),
      resolved: false,
      trashed: false,
    })
    return { label: `${thread ? 'Answer' : 'Comment'} on ${named(topic.text)}`, select: [] }
  },
)

/** Says a comment in other words. Refused where it is gone, and without words; the server refuses whose it is not. */
export const rewordComment = command(
  (change, args: { comment: CommentId; text: string; mentions: readonly PersonId[] }) => {
    commentOf(change, args.comment)
    const mentions = args.mentions.slice(0, MOST_MENTIONED)
    change.update('comment', args.comment, { text: words(args.text), mentions })
    return { label: 'Reword a comment', select: [] }
  },
)

/** Says that what a thread is about is settled, or that it is not. Refused where it is gone. */
export const settleThread = command((change, args: { comment: CommentId; resolved: boolean }) => {
  const { topic } = commentOf(change, args.comment)
  change.update('comment', args.comment, { resolved: args.resolved })
  const name = named(change.records.get('topic', topic)?.text ?? '')
  return { label: args.resolved ? `Settle a comment on ${name}` : `Take up a comment on ${name}`, select: [] }
})

/** Removes a comment with what was answered to it. Refused where it is gone. */
export const removeComment = command((change, args: { comment: CommentId }) => {
  const { id, topic } = commentOf(change, args.comment)
  for (const other of change.records.comments(topic))
    if (other.id === id || other.answers === id) change.update('comment', other.id, { trashed: true })
  return { label: 'Remove a comment', select: [] }
})

function commentOf({ records }: NewChange, id: CommentId) {
  const comment = records.get('comment', id)
  return !comment || comment.trashed ? refuse('gone', 'This comment is gone.') : comment
}

function words(text: string): string {
  const said = text.trim()
  if (said === '') refuse('invalid', 'A comment needs words.')
  if (said.length > MAX_COMMENT) refuse('invalid', 'This comment is too long: put it into the note of the topic.')
  return said
}
