import { type Change, type Edit, editBetween } from '../changes/edit'
import { refuse } from '../changes/problem'
import { ChangeId, type MapId, type TopicId } from '../records/ids'
import type { RecordByKind, RecordKind } from '../records/kinds'
import type { MapRecord } from '../records/map'
import { Overlay } from '../records/overlay'
import type { Records } from '../records/records'
import { cutText } from '../records/text'
import type { TopicRecord } from '../records/topic'

/** Where a command gets new ids from: core makes no randomness of its own. */
export interface IdSource {
  newId(): string
}

/** What a person does, as data: the change it makes and the topics that should be selected afterwards. */
export interface Outcome {
  change: Change
  select: TopicId[]
}

/** What a command tells when it is done: how the act is called, and what to select. */
export interface Done {
  label: string
  select: TopicId[]
}

/**
 * What a person does. Called with records it alters nothing and returns an outcome, or throws a Refusal with a sentence
 * for the person. `within` does the same as a part of another command. It costs O(what its arguments name), where its
 * docstring tells nothing else.
 */
export interface Command<Args, Result extends Done = Done> {
  (records: Records, args: Args, ids: IdSource): Omit<Result, 'label'> & Outcome
  within(change: NewChange, args: Args): Result
}

/** Makes a command of a function that puts its edits into a change. */
export function command<Args, Result extends Done>(
  act: (change: NewChange, args: Args) => Result,
): Command<Args, Result> {
  const run = (records: Records, args: Args, ids: IdSource) => {
    const change = new NewChange(records, ids)
    const { label, ...rest } = act(change, args)
    return { ...rest, change: change.finish(label) }
  }
  return Object.assign(run, { within: act })
}

/** A record that a change touches: what of it the person had before their eyes, where that is not what is there now. */
interface Touched {
  kind: RecordKind
  id: string
  seen: Record<string, unknown> | null
}

/**
 * A change that a command is making. `records` are the records as it has changed them so far, over those that it began
 * with; these stay as they are. Every record gets one edit, whatever happened to it on the way.
 */
export class NewChange {
  readonly records: Overlay
  private readonly touched = new Map<string, Touched>()

  constructor(
    private readonly before: Records,
    private readonly ids: IdSource,
  ) {
    this.records = new Overlay(before)
  }

  /** A new id; the caller brands it by parsing it with the schema of its kind. */
  newId<Id>(schema: { parse(text: string): Id }): Id {
    return schema.parse(this.ids.newId())
  }

  create<K extends RecordKind>(kind: K, record: RecordByKind[K]): RecordByKind[K] {
    this.touch(kind, record.id)
    this.records.put(kind, record)
    return record
  }

  /**
   * Sets fields of a record. `seen` holds what the person began with in fields that are joined with what others wrote
   * meanwhile, where that is something else than what is there now.
   */
  update<K extends RecordKind>(
    kind: K,
    id: string,
    fields: Partial<RecordByKind[K]>,
    seen: Partial<RecordByKind[K]> | null = null,
  ): void {
    const record = this.records.get(kind, id) ?? refuse('gone', `This ${kind} is gone.`)
    const touched = this.touch(kind, id)
    if (seen) touched.seen = { ...seen, ...touched.seen }
    this.records.put(kind, { ...record, ...fields })
  }

  private touch(kind: RecordKind, id: string): Touched {
    const key = `${kind} ${id}`
    let touched = this.touched.get(key)
    if (!touched) this.touched.set(key, (touched = { kind, id, seen: null }))
    return touched
  }

  /** A topic as it is now. Refused where it is gone. */
  topic(id: string | null, words = 'This topic is gone.'): TopicRecord {
    return this.records.get('topic', id) ?? refuse('gone', words)
  }

  /** A map as it is now. Refused where it is gone. */
  map(id: MapId | null): MapRecord {
    return this.records.get('map', id) ?? refuse('gone', 'This map is gone.')
  }

  /** The change, with an edit for each record that is now other than it was. */
  finish(label: string): Change {
    const edits: Edit[] = []
    for (const { kind, id, seen } of this.touched.values()) {
      const after = this.records.need(kind, id)
      const known = this.before.get(kind, id)
      if (!known) edits.push({ kind, id, before: null, after } as Edit)
      else {
        const edit = editBetween(kind, known, after)
        if (edit) edits.push({ ...edit, before: { ...edit.before, ...seenOf(seen, edit.after) } } as Edit)
      }
    }
    return { id: this.newId(ChangeId), label, edits, undoes: null }
  }
}

/** What was seen of the fields that an edit sets. */
const seenOf = (seen: Record<string, unknown> | null, after: object): Record<string, unknown> =>
  Object.fromEntries(Object.entries(seen ?? {}).filter(([field]) => field in after))

const LONGEST_NAME = 40

/** A text as it is named in labels: its first line, cut to a readable length. */
export function named(text: string): string {
  const line = text.split('\n', 1)[0]!.trim()
  if (line === '') return 'a topic'
  return line.length > LONGEST_NAME ? `${cutText(line, LONGEST_NAME - 1)}…` : line
}

/** A topic by its text, several by their number. */
export const namedAll = (topics: readonly { text: string }[], many = 'topics'): string =>
  topics.length === 1 ? named(topics[0]!.text) : `${topics.length} ${many}`
