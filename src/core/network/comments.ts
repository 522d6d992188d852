import type { CommentRecord } from '../records/comment'
import type { Records } from '../records/records'

/** A comment with what was answered to it, oldest first. */
export interface Thread {
  head: CommentRecord
  answers: CommentRecord[]
}

/** The threads on a topic, oldest first. An answer whose beginning is gone is left out with it. */
export function threadsAt(records: Records, topic: string): Thread[] {
  const comments = records.comments(topic)
  return comments
    .filter(({ answers }) => answers === null)
    .map((head) => ({ head, answers: comments.filter(({ answers }) => answers === head.id) }))
}

/** Those that are not settled yet. */
export const openThreads = (records: Records, topic: string): Thread[] =>
  records.count('comment') === 0 ? [] : threadsAt(records, topic).filter(({ head }) => !head.resolved)
