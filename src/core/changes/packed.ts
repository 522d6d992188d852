import { z } from 'zod'
import { kinds, RECORD_KINDS, type RecordKind } from '../records/kinds'
import type { Records } from '../records/records'
import { fingerprint } from '../text/fingerprint'
import type { Edit, PackedEdit } from './edit'
import { isOfLines } from './join'

/** Texts together longer than so many letters are packed, where what differs is no more than half of them. */
const WORTH_PACKING = 1_000

/** In place of the text before: by which sign it is known. In place of the text after: what stands there for what, from which letter on. */
const Before = z.strictObject({ sign: z.string() })
const After = z.strictObject({ at: z.int().min(0), out: z.string(), in: z.string() })
type Before = z.infer<typeof Before>
type After = z.infer<typeof After>

/** Whether a pair of letters of UTF-16 is one character: such a pair is never taken apart, as no half of it can be stored. */
const isPair = (text: string, at: number): boolean =>
  /[\uD800-\uDBFF]/.test(text[at - 1] ?? '') && /[\uDC00-\uDFFF]/.test(text[at] ?? '')

/** What differs between two texts, as the one place between their common beginning and their common end. O(n). */
function rewordingOf(before: string, after: string): After {
  const most = Math.min(before.length, after.length)
  let at = 0
  while (at < most && before[at] === after[at]) at++
  while (isPair(before, at) || isPair(after, at)) at--
  let end = 0
  while (end < most - at && before[before.length - 1 - end] === after[after.length - 1 - end]) end++
  while (isPair(before, before.length - end) || isPair(after, after.length - end)) end--
  return { at, out: before.slice(at, before.length - end), in: after.slice(at, after.length - end) }
}

/** A text with one place of it in other words; null where these are not the words that stand there. */
const reworded = (text: string, at: number, out: string, into: string): string | null =>
  text.startsWith(out, at) ? text.slice(0, at) + into + text.slice(at + out.length) : null

/** The fields of each kind in which people write text. */
const TEXT_FIELDS: ReadonlyMap<RecordKind, readonly string[]> = new Map(
  RECORD_KINDS.map((kind) => [
    kind,
    Object.entries(kinds[kind].joins).flatMap(([field, joining]) => (isOfLines(joining) ? field : [])),
  ]),
)

/**
 * Edits with what differs in place of long texts that were reworded, where that is worth it: a letter typed into a page is not
 * twice the page. Of edits as they were committed, a text that is not the one on which it was written, in `sent`, stays whole: whoever
 * sent it has not seen it. Linear in the texts.
 */
export function packEdits(edits: readonly Edit[], sent: readonly Edit[] = edits): PackedEdit[] {
  const seen = new Map(sent.map((edit) => [edit.id, edit as PackedEdit]))
  return edits.map((edit) => packed(edit, seen.get(edit.id)?.before ?? {}))
}

function packed(edit: PackedEdit, seen: Readonly<Record<string, unknown>>): PackedEdit {
  let whole = edit
  for (const field of TEXT_FIELDS.get(edit.kind)!) {
    const [before, after] = [whole.before?.[field], whole.after[field]]
    if (typeof before !== 'string' || typeof after !== 'string' || before !== seen[field]) continue
    if (before.length + after.length < WORTH_PACKING) continue
    const rewording = rewordingOf(before, after)
    if (2 * (rewording.out.length + rewording.in.length) > before.length + after.length) continue
    const sign: Before = { sign: fingerprint(before) }
    whole = { ...whole, before: { ...whole.before, [field]: sign }, after: { ...whole.after, [field]: rewording } }
  }
  return whole
}

interface Packed {
  field: string
  sign: string
  rewording: After
}

/** What of an edit is packed; what only looks like it is left as it is, and refused like any other value that is no text. */
function packedIn({ kind, before, after }: PackedEdit): Packed[] {
  if (!before) return []
  return TEXT_FIELDS.get(kind)!.flatMap((field) => {
    if (typeof after[field] !== 'object') return []
    const [was, is] = [Before.safeParse(before[field]), After.safeParse(after[field])]
    return was.success && is.success ? [{ field, sign: was.data.sign, rewording: is.data }] : []
  })
}

/** Whether something of edits is packed. */
export const isPacked = (edits: readonly PackedEdit[]): boolean => edits.some((edit) => packedIn(edit).length > 0)

const withText = (edit: PackedEdit, field: string, before: string, after: string): PackedEdit => ({
  ...edit,
  before: { ...edit.before, [field]: before },
  after: { ...edit.after, [field]: after },
})

/**
 * Edits with their texts whole, read from records as they are before the edits. Those of which a text is another by now, or is not
 * there, come back as `unread`, and are not among the edits. Linear in the texts.
 */
export function unpackEdits(records: Records, packed: readonly PackedEdit[]): { edits: Edit[]; unread: PackedEdit[] } {
  const unread: PackedEdit[] = []
  const read = new Set<string>()
  const edits = packed.flatMap((edit) => {
    let whole = edit
    for (const { field, sign, rewording } of packedIn(edit)) {
      // One edit a record: whoever sends more of them is to send them whole.
      const key = `${edit.kind} ${edit.id} ${field}`
      const before = read.has(key) ? null : textOf(records, edit, field)
      read.add(key)
      const { at, out, in: into } = rewording
      const after = before !== null && fingerprint(before) === sign ? reworded(before, at, out, into) : null
      if (before === null || after === null) {
        unread.push(edit)
        return []
      }
      whole = withText(whole, field, before, after)
    }
    return [whole as Edit]
  })
  return { edits, unread }
}

const textOf = (records: Records, { kind, id }: PackedEdit, field: string): string | null => {
  const text = (records.get(kind, id) as unknown as Record<string, unknown> | undefined)?.[field]
  return typeof text === 'string' ? text : null
}

/**
 * Changes with their texts whole, newest first, read backwards from what these texts are now: every change of them since must be among
 * `changes`. What cannot be read stays packed, as when a record is gone. Linear in the texts times their changes.
 */
export function unpackBackwards<C extends { edits: readonly PackedEdit[] }>(
  records: Records,
  changes: readonly C[],
): C[] {
  const now = new Map<string, string | null>()
  return changes.map((change) => ({
    ...change,
    edits: change.edits.map((edit) => {
      let whole = edit
      const packed = new Map(packedIn(edit).map((each) => [each.field, each]))
      for (const field of TEXT_FIELDS.get(edit.kind)!) {
        if (!(field in edit.after)) continue
        const key = `${edit.kind} ${edit.id} ${field}`
        const after = now.has(key) ? now.get(key)! : textOf(records, edit, field)
        const { sign, rewording } = packed.get(field) ?? {}
        if (!rewording) {
          const before = edit.before?.[field]
          now.set(key, typeof before === 'string' ? before : null)
          continue
        }
        const before = after === null ? null : reworded(after, rewording.at, rewording.in, rewording.out)
        const isRight = before !== null && fingerprint(before) === sign
        now.set(key, isRight ? before : null)
        if (isRight) whole = withText(whole, field, before, after!)
      }
      return whole
    }),
  }))
}
