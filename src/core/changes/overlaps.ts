import { NoteId } from '../records/ids'
import { mergeText } from '../text/merge-text'
import type { Change } from './edit'

/** A note of which two people changed the same lines: both versions stand in it, one after the other. CommonMark. */
export interface Overlap {
  note: NoteId
  theirs: string
  mine: string
  /** What was stored. */
  joined: string
}

/**
 * The notes in which what somebody wrote met what others had written into the same lines meanwhile: from a change as it was sent, and as
 * it was stored, of which `before` is what was there. Linear in the edits, and in the notes that were joined.
 */
export function overlapsIn(sent: Change, stored: Change): Overlap[] {
  const written = new Map(sent.edits.flatMap((edit) => (edit.kind === 'note' ? [[edit.id as string, edit]] : [])))
  return stored.edits.flatMap((edit): Overlap[] => {
    const mine = edit.kind === 'note' ? written.get(edit.id) : undefined
    if (edit.kind !== 'note' || !mine) return []
    const [base, own, theirs, joined] = [mine.before?.text, mine.after.text, edit.before?.text, edit.after.text]
    if (own === undefined || theirs === undefined || joined === undefined || joined === own) return []
    if (!mergeText(base ?? '', theirs, own).overlapping) return []
    return [{ note: NoteId.parse(edit.id), theirs, mine: own, joined }]
  })
}
