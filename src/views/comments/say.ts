import { addComment, removeComment, rewordComment, settleThread } from '../../core/commands/comments'
import { CommentId, type MapId, PersonId, type TopicId } from '../../core/records/ids'
import type { CollectionSession } from '../sync/collection-session'
import { type NamedPerson, namedIn } from './comments'
import type { ShownComment, ThreadActs } from './ThreadView'

interface Said {
  topic: TopicId
  text: string
  quote: string
  answers: CommentId | null
}

const idsOf = (text: string, people: readonly NamedPerson[]) =>
  namedIn(text, people).map(({ id }) => PersonId.parse(id))

/** Says something about a topic in the name of whoever is here; false where it could not be done. */
export function say(session: CollectionSession, people: readonly NamedPerson[], said: Said): boolean {
  const { person } = session
  const author = { id: person, name: people.find(({ id }) => id === person)?.name ?? 'You' }
  const made = { ...said, author, at: new Date().toISOString(), mentions: idsOf(said.text, people) }
  return session.run((records, newIds) => addComment(records, made, newIds)) !== null
}

/** What whoever is here may do with a thread on a topic of a map, which has to be held when it is done. */
export function threadActs(
  session: CollectionSession,
  people: readonly NamedPerson[],
  { topic, map }: { topic: TopicId; map: MapId },
  head: string,
  comments: readonly ShownComment[],
): ThreadActs {
  const thread = CommentId.parse(head)
  const mayComment = session.mayCommentOn(map)
  const isOwn = (id: string) => comments.find((comment) => comment.id === id)?.author === session.person
  return {
    answer: mayComment ? (text) => say(session, people, { topic, text, quote: '', answers: thread }) : null,
    settle: mayComment
      ? (resolved) => session.run((records, newIds) => settleThread(records, { comment: thread, resolved }, newIds))
      : null,
    reword: (id) => {
      if (!mayComment || !isOwn(id)) return null
      const comment = CommentId.parse(id)
      return (text) => {
        const mentions = idsOf(text, people)
        return session.run((records, newIds) => rewordComment(records, { comment, text, mentions }, newIds)) !== null
      }
    },
    remove: (id) => {
      if (!session.mayEditMap(map) && !(mayComment && isOwn(id))) return null
      const comment = CommentId.parse(id)
      return () => void session.run((records, newIds) => removeComment(records, { comment }, newIds))
    },
  }
}
