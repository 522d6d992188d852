import { ALL_ICONS } from '../../src/core/badges/all-icons'
import { prepareChange } from '../../src/core/changes/prepare'
import type { IdSource, Outcome } from '../../src/core/commands/command'
import { hangItems } from '../../src/core/commands/hang-items'
import { makeMap } from '../../src/core/commands/maps'
import { writeIndentedText } from '../../src/core/formats/indented-text'
import { outlineOf } from '../../src/core/formats/outline-of'
import { readText } from '../../src/core/formats/read-text'
import { CollectionId, type MapId, type TopicId } from '../../src/core/records/ids'
import { RECORD_KINDS, type RecordByKind, type RecordKind } from '../../src/core/records/kinds'
import { Records } from '../../src/core/records/records'
import { ALL_FONTS } from '../../src/core/text/all-fonts'

/** What maps are laid out and drawn with in tests: all fonts and icons, nothing behind doorways, no pictures. */
export const CONTEXT = { fonts: ALL_FONTS, icons: ALL_ICONS, countTopics: () => 0, pictureAddress: () => null }

/** Ids that count up: the same test makes the same records. */
function counting(): IdSource {
  let count = 0
  return { newId: () => `00000000-0000-7000-8000-${(++count).toString(16).padStart(12, '0')}` }
}

export const COLLECTION = CollectionId.parse('00000000-0000-7000-9000-000000000001')

/** A collection in memory with what tests do to it. */
export class Garden {
  readonly records = new Records()
  readonly newIds = counting()

  constructor() {
    this.records.put('collection', {
      id: COLLECTION,
      title: 'Garden',
      homeMap: null,
      look: null,
      limits: null,
      trashed: false,
    })
  }

  /** Carries out a command as the server would; throws where it is refused. */
  do<Result extends Outcome>(command: (records: Records, newIds: IdSource) => Result): Result {
    const outcome = command(this.records, this.newIds)
    const { change } = outcome
    const prepared = prepareChange(this.records, change.edits, true, change.undoes !== null)
    if (!prepared.ok) throw new Error(prepared.problem.message)
    return { ...outcome, change: { ...change, edits: prepared.edits } }
  }

  /** Makes a map from indented text; the first line is its root. */
  grow(text: string): MapId {
    const [title = '', ...lines] = text.trim().split('\n')
    const { select } = this.do((records, newIds) =>
      makeMap(records, { collection: COLLECTION, title: title.trim() }, newIds),
    )
    if (lines.length > 0)
      this.do((records, newIds) =>
        hangItems(records, { topic: select[0]!, items: readText(lines.join('\n')).items, act: 'Paste' }, newIds),
      )
    return this.records.need('topic', select[0]!).place.map
  }

  /** The topic with this text that is not in the trash itself. */
  topic(text: string): TopicId {
    for (const topic of this.records.all('topic')) if (topic.text === text && !topic.trashed) return topic.id
    throw new Error(`There is no topic ${text}.`)
  }

  /** A map as indented text. */
  text(map: MapId): string {
    return writeIndentedText([outlineOf(this.records, this.records.root(map)!)])
  }
}

/** Everything that records hold, in one order, for comparing. */
export const contents = (records: Records): { [K in RecordKind]: RecordByKind[K][] } => {
  const sorted = <K extends RecordKind>(kind: K) => [...records.all(kind)].sort((a, b) => (a.id < b.id ? -1 : 1))
  return Object.fromEntries(RECORD_KINDS.map((kind) => [kind, sorted(kind)])) as never
}

/** What a person is told when an act is refused; empty where it is not. */
export function refusal(act: () => unknown): string {
  try {
    act()
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
  return ''
}

/** A garden with one map, of which most acts can be tried. */
export function plot(): { garden: Garden; map: MapId } {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf\n    Climbing\nAutumn')
  return { garden, map }
}
