import type { Edit } from '../changes/edit'
import { type AnyRecord, kinds, type RecordKind, referencesTo } from '../records/kinds'
import type { Records } from '../records/records'
import { type End, endsOf } from '../records/reference-path'

/** What it means to remove maps for good. */
export interface Emptying {
  /** What elsewhere leads there, as edits that let go of it: they come first, so that everybody is told. */
  letGo: Edit[]
  /** What is removed then, by kind. */
  gone: ReadonlyMap<RecordKind, ReadonlySet<string>>
}

/** A link without its far end is none, a note that went into another one went with it, and a search in what is gone finds nothing. */
const NOTHING_WITHOUT: ReadonlySet<RecordKind> = new Set(['crosslink', 'note', 'search'] as const)

const keyOf = ({ kind, id }: End): string => `${kind} ${id}`

/**
 * What goes with maps that lie in the trash when they are removed for good: their topics with all that is inside of these,
 * cross-links that end there, and notes and files that nobody else carries. Maps that are not in the trash, and the home
 * map, are passed over. `records` hold the whole collection. Linear in what goes and what leads there.
 */
export function emptying(records: Records, maps: Iterable<string>): Emptying {
  const removal = new Removal(records)
  for (const id of maps) {
    const map = records.get('map', id)
    if (map?.trashed && records.collection()?.homeMap !== id) removal.take({ kind: 'map', id })
  }
  removal.follow()
  return { letGo: removal.letGo(), gone: removal.gone }
}

class Removal {
  readonly gone = new Map<RecordKind, Set<string>>()
  private readonly waiting: End[] = []
  /** Records that stay and name something that goes. */
  private readonly naming = new Map<string, { kind: RecordKind; record: AnyRecord }>()
  private readonly carried = new Map<string, End>()

  constructor(private readonly records: Records) {}

  has({ kind, id }: End): boolean {
    return this.gone.get(kind as RecordKind)?.has(id) ?? false
  }

  take(end: End): void {
    if (this.has(end)) return
    const kind = end.kind as RecordKind
    const ids = this.gone.get(kind)
    if (ids) ids.add(end.id)
    else this.gone.set(kind, new Set([end.id]))
    this.waiting.push(end)
  }

  follow(): void {
    for (let end = this.waiting.pop(); end; end = this.waiting.pop()) {
      this.followOne(end)
      if (this.waiting.length === 0) this.takeUncarried()
    }
  }

  private followOne(end: End): void {
    const record = this.records.get(end.kind as RecordKind, end.id)
    if (!record) return
    for (const reference of kinds[end.kind as RecordKind].references)
      if (reference.hold === 'carries') for (const far of endsOf(record, reference)) this.carried.set(keyOf(far), far)
    for (const { from, reference } of referencesTo(end.kind as RecordKind))
      for (const referring of this.records.referring(from, reference, end)) {
        const isWhole = reference.hold !== 'inside' || endsOf(referring, reference).every((far) => this.has(far))
        const goesAlong = reference.hold === 'inside' ? isWhole : NOTHING_WITHOUT.has(from)
        if (goesAlong) this.take({ kind: from, id: referring.id })
        else this.naming.set(`${from} ${referring.id}`, { kind: from, record: referring })
      }
  }

  /** What was carried only by what goes, goes too. */
  private takeUncarried(): void {
    for (const [key, end] of this.carried) {
      this.carried.delete(key)
      const isCarried = referencesTo(end.kind as RecordKind).some(
        ({ from, reference }) =>
          reference.hold === 'carries' &&
          [...this.records.referring(from, reference, end)].some(({ id }) => !this.has({ kind: from, id })),
      )
      if (!isCarried) this.take(end)
    }
  }

  /** Edits by which what stays lets go of what goes: fields are emptied, links go into the trash. */
  letGo(): Edit[] {
    const edits: Edit[] = []
    const edit = (kind: RecordKind, { id }: AnyRecord, before: object, after: object) =>
      edits.push({ kind, id, before, after } as Edit)
    for (const { kind, record } of this.naming.values()) {
      if (this.has({ kind, id: record.id })) continue
      for (const reference of kinds[kind].references) {
        if (!endsOf(record, reference).some((end) => this.has(end))) continue
        const [field = ''] = reference.path.split('.')
        const value = (record as unknown as Record<string, unknown>)[field]
        const rest = Array.isArray(value) ? value.filter((id) => !this.has({ kind: reference.to!, id })) : null
        edit(kind, record, { [field]: value }, { [field]: rest })
      }
    }
    for (const id of this.gone.get('crosslink') ?? []) {
      const link = this.records.need('crosslink', id)
      const isSeen = !this.has({ kind: 'topic', id: link.from }) || !this.has(link.to)
      if (!link.trashed && isSeen) edit('crosslink', link, { trashed: false }, { trashed: true })
    }
    return edits
  }
}
