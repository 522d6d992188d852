import type { Edit } from '../changes/edit'
import type { Problem } from '../changes/problem'
import type { Records } from '../records/records'

/** What of a comment others may do who only comment, and what whoever edits the map may: never what somebody said. */
const BY_COMMENTERS = new Set(['resolved'])
/** Written once, by the server. */
const WRITTEN = new Set(['author', 'authorName', 'at', 'answers'])
const BY_EDITORS = new Set(['resolved', 'trashed', 'topic'])

/**
 * Whether what a change does to comments is for this person to do; null where it is. Whoever may comment says things in their own name and
 * rewords them, and settles threads; whoever edits the map also removes comments of others, and moves them along with topics.
 * `records` are as they stand after the change. Linear in the edits.
 */
export function problemWithAuthorship(
  records: Records,
  edits: readonly Edit[],
  person: string,
  mayEdit: (map: string) => boolean,
): Problem | null {
  for (const edit of edits) {
    if (edit.kind !== 'comment') continue
    const comment = records.need('comment', edit.id)
    const fields = Object.keys(edit.after)
    const isOwn = comment.author === person
    // Nobody's is what was brought in with a collection.
    if (edit.before === null ? isOwn || comment.author === null : isOwn && !fields.some((field) => WRITTEN.has(field)))
      continue
    const map = records.get('topic', comment.topic)?.place.map ?? ''
    const allowed = mayEdit(map) ? BY_EDITORS : BY_COMMENTERS
    if (edit.before === null || fields.some((field) => !allowed.has(field)))
      return { code: 'forbidden', message: 'This comment is somebody else’s. Nothing was changed.' }
  }
  return null
}
