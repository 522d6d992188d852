import { mergeText } from '../text/merge-text'
import type { Change, Edit, EditOf } from './edit'

/** A note, as CommonMark, or the text of a topic, of which two people changed the same lines: both versions stand in it, one after the other. */
export interface Overlap {
  kind: 'note' | 'topic'
  id: string
  theirs: string
  mine: string
  /** What was stored. */
  joined: string
}

/**
 * The notes and topics in which what somebody wrote met what others had written into the same lines meanwhile: from a change as it was sent, and as
 * it was stored, of which `before` is what was there. Linear in the edits, and in the notes that were joined.
 */
export function overlapsIn(sent: Change, stored: Change): Overlap[] {
  const written = new Map(sent.edits.flatMap((edit) => (hasWords(edit) ? [[edit.id, edit]] : [])))
  return stored.edits.flatMap((edit): Overlap[] => {
    const mine = written.get(edit.id)
    if (!hasWords(edit) || !mine || edit.kind !== mine.kind) return []
    const [base, own, theirs, joined] = [mine.before?.text, mine.after.text, edit.before?.text, edit.after.text]
    if (own === undefined || theirs === undefined || joined === undefined || joined === own) return []
    if (!mergeText(base ?? '', theirs, own).overlapping) return []
    return [{ kind: edit.kind, id: edit.id, theirs, mine: own, joined }]
  })
}

const hasWords = (edit: Edit): edit is EditOf<'note'> | EditOf<'topic'> => edit.kind === 'note' || edit.kind === 'topic'
