import type { z } from 'zod'
import { type AnyRecord, kinds, type RecordByKind, type RecordKind } from '../records/kinds'
import type { NoteRecord } from '../records/note'
import { arranged, hangs } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { joinTexts } from '../text/join-texts'
import { freeRank } from '../tree/rank'
import { branchWithTrashed } from '../tree/walk'
import { applyEdit, type Edit, editBetween, joinEdits, revertEdits } from './edit'
import { checkInvariants } from './invariants'
import { joinField } from './join'
import type { Problem } from './problem'
import { Refusal, refuse } from './problem'
import { stillTakenBack } from './undo'

const CHANGED_SINCE: Problem = {
  code: 'gone',
  message: 'Others have changed all of this since; there is nothing left to take back.',
}

export type Prepared = { ok: true; edits: Edit[] } | { ok: false; problem: Problem }

/**
 * Applies a change's edits to `records` in their committed form: `before` computed from what is really there, fields that
 * several people may write into joined, ranks made unique, maps of moved descendants derived, schemas and invariants
 * checked. Either all of it is applied and the committed edits are returned, one for each record, or nothing is and the
 * problem is. Linear in the edits and in what moves along, but for ranks that two people gave at once.
 *
 * Of the edits of an undo, only what is still as the undo saw it is done; see `stillTakenBack`.
 *
 * The server calls this with every record that the change touches or refers to (`complete`); a browser calls it with
 * the maps it holds, to show the result at once.
 */
export function prepareChange(records: Records, wanted: readonly Edit[], complete: boolean, isUndo = false): Prepared {
  const edits = isUndo ? stillTakenBack(records, wanted) : wanted
  if (edits.length === 0 && wanted.length > 0) return { ok: false, problem: CHANGED_SINCE }
  const applied: Edit[] = []
  try {
    for (const edit of edits)
      for (const committed of committedForms(records, edit)) {
        applyEdit(records, committed)
        applied.push(committed)
      }
    checkInvariants(records, applied, complete)
    return { ok: true, edits: joinEdits(applied) }
  } catch (error) {
    revertEdits(records, applied)
    if (error instanceof Refusal) return { ok: false, problem: error.problem }
    throw error
  }
}

/** What an edit comes to, one after the other: its own record, and what goes with it. */
function* committedForms(records: Records, wanted: Edit): Generator<Edit> {
  const edit = redirected(records, wanted)
  const current = records.get(edit.kind, edit.id)
  if (edit.before === null && current) refuse('exists', `This ${edit.kind} exists already.`)
  if (edit.before !== null && !current) refuse('gone', `This ${edit.kind} is no longer there.`)
  const sent = joined(edit, current)
  const next = checked(edit.kind, current ? { ...current, ...sent, id: edit.id } : withId(sent, edit.id))
  if (edit.kind !== 'topic') {
    yield* edited(edit.kind, current, next)
    return
  }
  yield* edited('topic', current, yield* withOneNote(records, edit, placed(records, edit, next as TopicRecord)))
  if (edit.after.place) yield* movedAlong(records, records.need('topic', edit.id))
}

function* edited(kind: RecordKind, current: AnyRecord | undefined, next: AnyRecord): Generator<Edit> {
  if (!current) yield { kind, id: next.id, before: null, after: next } as Edit
  else {
    const edit = editBetween(kind, current as never, next as never)
    if (edit) yield edit as Edit
  }
}

/** What a schema found, as a person would say it. */
function inWords(issue: z.core.$ZodIssue | undefined): string {
  if (issue?.code === 'too_big' && issue.origin === 'string')
    return `This text is too long: at most ${issue.maximum.toLocaleString('en')} letters can be kept in one place.`
  return issue?.message ?? 'This cannot be stored.'
}

function checked(kind: RecordKind, record: object): AnyRecord {
  const parsed = kinds[kind].schema.safeParse(record)
  if (!parsed.success) refuse('invalid', inWords(parsed.error.issues[0]))
  return parsed.data as AnyRecord
}

/** A value as the schema of its field takes it. */
function fit(kind: RecordKind, field: string, value: unknown): unknown {
  const shape: Readonly<Record<string, z.ZodType>> = kinds[kind].schema.shape
  const parsed = shape[field]!.safeParse(value)
  if (!parsed.success) refuse('invalid', inWords(parsed.error.issues[0]))
  return parsed.data
}

const withId = (fields: object, id: string): object => ('id' in fields && fields.id === id ? fields : { ...fields, id })

/** The fields that an edit sets, those of them joined with what others wrote since that can be; see `records/kind.ts`. */
function joined({ kind, before, after }: Edit, current: AnyRecord | undefined): object {
  const { joins } = kinds[kind]
  if (!current || !before) return after
  const set: Record<string, unknown> = { ...after }
  for (const [field, joining] of Object.entries(joins)) {
    if (!(field in set && field in before)) continue
    // What is joined is no larger than what may be stored: a client could send anything.
    const [was, wanted] = [(before as Record<string, unknown>)[field], set[field]].map((value) =>
      fit(kind, field, value),
    )
    set[field] = joinField(joining, was, (current as unknown as Record<string, unknown>)[field], wanted)
  }
  return set
}

/** What is written into a note that another one has taken over goes into that one. */
function redirected(records: Records, edit: Edit): Edit {
  if (edit.kind !== 'note' || edit.before?.text === undefined || edit.after.text === undefined) return edit
  const { joinedInto } = records.get('note', edit.id) ?? {}
  if (!joinedInto || !records.get('note', joinedInto)) return edit
  return { ...edit, id: joinedInto, before: { text: edit.before.text }, after: { text: edit.after.text } }
}

/** The topic on the map of its parent, with a rank that no sibling has. */
function placed(records: Records, { after }: Edit, topic: TopicRecord): TopicRecord {
  const { place } = topic
  if (!('place' in after) || !hangs(place)) return topic
  const map = records.get('topic', place.parent)?.place.map ?? place.map
  const rank = freeRank(records, place.parent, place.rank, topic.id)
  return map === place.map && rank === place.rank ? topic : { ...topic, place: { ...place, map, rank } }
}

/**
 * Two people who each begin the note of a topic at once both keep their words: the note that came first takes over the text
 * of the other, and what is still written into that one.
 */
function* withOneNote(
  records: Records,
  { before, after }: Extract<Edit, { kind: 'topic' }>,
  topic: TopicRecord,
): Generator<Edit, TopicRecord> {
  const own = before?.note === null && after.note ? records.get('topic', topic.id)?.note : null
  if (!own || own === topic.note) return topic
  const [first, second] = [records.get('note', own), records.get('note', topic.note)]
  if (!first || !second) return topic
  const text = joinTexts(first.text, second.text)
  yield* edited('note', first, checked('note', { ...first, text }))
  const over: NoteRecord = { ...second, joinedInto: first.id, trashed: true }
  yield* edited('note', second, over)
  return { ...topic, note: first.id }
}

/** Edits that bring everything below a topic onto the topic's map, where a point of the map before would mean nothing. */
function* movedAlong(records: Records, head: TopicRecord): Generator<Edit> {
  const { map } = head.place
  if (records.childrenWithTrashed(head.id).every((child) => child.place.map === map)) return
  const seen = new Set<string>()
  for (const topic of [...branchOf(records, head, seen)]) {
    if (topic.place.map === map) continue
    yield* edited('topic', topic, { ...topic, place: { ...arranged(topic.place), map } } as RecordByKind['topic'])
  }
}

function* branchOf(records: Records, head: TopicRecord, seen: Set<string>): Generator<TopicRecord> {
  for (const topic of branchWithTrashed(records, head)) {
    if (seen.has(topic.id)) refuse('loop', 'A topic cannot hang below itself.')
    seen.add(topic.id)
    yield topic
  }
}
