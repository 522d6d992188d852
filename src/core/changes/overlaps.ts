import { mergeText } from '../text/merge-text'
import type { Change, PackedEdit } from './edit'

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
export function overlapsIn(sent: Change, stored: { edits: readonly PackedEdit[] }): Overlap[] {
  const written = new Map(sent.edits.map((edit) => [`${edit.kind} ${edit.id}`, edit as PackedEdit]))
  return stored.edits.flatMap(({ kind, id, before, after }): Overlap[] => {
    const mine = written.get(`${kind} ${id}`)
    if (!mine || (kind !== 'note' && kind !== 'topic')) return []
    // What is packed met nobody: it was written on the very text that was there.
    const [base, own, theirs, joined] = [mine.before?.text ?? '', mine.after.text, before?.text, after.text]
    if (![base, own, theirs, joined].every(isText) || joined === own) return []
    const [was, now, other, stands] = [base, own, theirs, joined] as [string, string, string, string]
    if (!mergeText(was, other, now).overlapping) return []
    return [{ kind, id, theirs: other, mine: now, joined: stands }]
  })
}

const isText = (value: unknown): value is string => typeof value === 'string'
