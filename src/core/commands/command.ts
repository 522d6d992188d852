import type { Change, Edit, EditOf } from '../changes/edit'
import { ChangeId, type TopicId } from '../records/ids'
import type { RecordByKind, RecordKind } from '../records/kinds'
import type { Records } from '../records/records'

/** Where a command gets new ids from: core makes no randomness of its own. */
export interface Making {
  newId(): string
}

/** What a person does, as data: the change it makes and the topics that should be selected afterwards. */
export interface Outcome {
  change: Change
  select: TopicId[]
}

/**
 * Collects the edits of one command. Reads go to the records as they are before the command; nothing is applied here.
 */
export class Draft {
  private readonly edits: Edit[] = []

  constructor(
    readonly records: Records,
    private readonly making: Making,
  ) {}

  /** A new id; the caller brands it by parsing it with the schema of its kind. */
  newId<Id>(schema: { parse(text: string): Id }): Id {
    return schema.parse(this.making.newId())
  }

  create<K extends RecordKind>(kind: K, record: RecordByKind[K]): RecordByKind[K] {
    this.edits.push({ kind, id: record.id, before: null, after: record } as Edit)
    return record
  }

  update<K extends RecordKind>(kind: K, id: string, after: EditOf<K>['after']): void {
    const current = this.records.get(kind, id)
    const before: Partial<RecordByKind[K]> = {}
    for (const field of Object.keys(after) as (keyof RecordByKind[K])[]) before[field] = current?.[field]
    this.edits.push({ kind, id, before, after } as Edit)
  }

  outcome(label: string, select: TopicId[] = []): Outcome {
    return { change: { id: this.newId(ChangeId), label, edits: this.edits, undoes: null }, select }
  }
}

/** A text as it is named in labels: its first line, cut to a readable length. */
export function named(text: string): string {
  const line = text.split('\n', 1)[0]!.trim()
  if (line === '') return 'a topic'
  const letters = [...line]
  return letters.length > 40 ? `${letters.slice(0, 39).join('')}…` : line
}
