import type { z } from 'zod'
import type { RecordByKind, RecordKind } from '../records/kinds'
import { recordSchemas } from '../records/kinds'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { mergeText } from '../text/merge-text'
import { freeRank } from '../tree/rank'
import { branchWithTrashed } from '../tree/walk'
import type { Edit } from './edit'
import { applyEdit, editBetween, joinEdits, revertEdits } from './edit'
import { checkInvariants } from './invariants'
import type { Problem } from './problem'
import { Refusal, refuse } from './problem'

export type Prepared = { ok: true; edits: Edit[] } | { ok: false; problem: Problem }

/**
 * Applies a change's edits to `records` in their committed form: `before` computed from what is really there, notes
 * merged by lines, ranks made unique, maps of moved descendants derived, schemas and invariants checked.
 * Either all of it is applied and the committed edits are returned, or nothing is and the problem is.
 *
 * The server calls this with every record that the change touches or refers to (`complete`); a browser calls it with
 * the maps it holds, to show the result at once.
 */
export function prepareChange(records: Records, edits: readonly Edit[], complete: boolean): Prepared {
  const applied: Edit[] = []
  const commit = (edit: Edit | null) => {
    if (!edit) return
    applyEdit(records, edit)
    applied.push(edit)
  }
  try {
    for (const edit of edits) {
      const current = records.get(edit.kind, edit.id)
      const next = nextVersion(records, edit, current)
      commit(current ? editBetweenAny(edit.kind, current, next) : ({ ...edit, before: null, after: next } as Edit))
      if (edit.kind === 'topic' && edit.after.place)
        for (const below of movedAlong(records, records.need('topic', edit.id))) commit(below)
    }
    checkInvariants(records, applied, complete)
    return { ok: true, edits: joinEdits(applied) }
  } catch (error) {
    revertEdits(records, applied)
    if (error instanceof Refusal) return { ok: false, problem: error.problem }
    throw error
  }
}

const editBetweenAny = (kind: RecordKind, from: unknown, to: unknown): Edit | null =>
  editBetween(kind, from as RecordByKind[typeof kind], to as RecordByKind[typeof kind]) as Edit | null

/** What a schema found, as a person would say it. */
function inWords(issue: z.core.$ZodIssue | undefined): string {
  if (issue?.code === 'too_big' && issue.origin === 'string')
    return `This text is too long: at most ${issue.maximum.toLocaleString('en')} letters can be kept in one place.`
  return issue?.message ?? 'This cannot be stored.'
}

function nextVersion(
  records: Records,
  edit: Edit,
  current: RecordByKind[RecordKind] | undefined,
): RecordByKind[RecordKind] {
  if (edit.before === null && current) refuse('exists', `This ${edit.kind} exists already.`)
  if (edit.before !== null && !current) refuse('gone', `This ${edit.kind} is no longer there.`)
  const parsed = recordSchemas[edit.kind].safeParse({ ...current, ...edit.after, id: edit.id })
  if (!parsed.success) refuse('invalid', inWords(parsed.error.issues[0]))
  const next = parsed.data
  if (edit.kind === 'note' && current) {
    const base = edit.before?.text
    if (base !== undefined && edit.after.text !== undefined) {
      const { text } = mergeText(base, (current as RecordByKind['note']).text, edit.after.text)
      return { ...next, text } as RecordByKind['note']
    }
  }
  return edit.kind === 'topic' && edit.after.place ? placed(records, next as TopicRecord) : next
}

/** The topic on the map of its parent, with a rank that no sibling has. */
function placed(records: Records, topic: TopicRecord): TopicRecord {
  const { place } = topic
  if (place.parent === null) return topic
  const map = records.get('topic', place.parent)?.place.map ?? place.map
  return { ...topic, place: { ...place, map, rank: freeRank(records, place.parent, place.rank, topic.id) } }
}

/** Edits that bring everything below a topic onto the topic's map. */
function movedAlong(records: Records, head: TopicRecord): Edit[] {
  const { map } = head.place
  const edits: Edit[] = []
  if (records.childrenWithTrashed(head.id).every((child) => child.place.map === map)) return edits
  const seen = new Set<string>()
  for (const topic of branchWithTrashed(records, head)) {
    if (seen.has(topic.id)) refuse('loop', 'A topic cannot hang below itself.')
    seen.add(topic.id)
    const edit = editBetween('topic', topic, { ...topic, place: { ...topic.place, map } })
    if (edit) edits.push(edit)
  }
  return edits
}
