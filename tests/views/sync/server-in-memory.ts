import type { Change, Edit, PackedEdit, ToldChange } from '../../../src/core/changes/edit'
import { packEdits, unpackEdits } from '../../../src/core/changes/packed'
import { prepareChange } from '../../../src/core/changes/prepare'
import { touchedMaps } from '../../../src/core/changes/touched-maps'
import type { MapId } from '../../../src/core/records/ids'
import type { Records } from '../../../src/core/records/records'
import type { MapSnapshot } from '../../../src/core/records/snapshot'
import { contents } from '../../core/gardens'

type Stored = ToldChange & { edits: PackedEdit[] }

const overTheWire = <Value>(value: Value): Value => JSON.parse(JSON.stringify(value))

/** The server in memory: it commits changes one by one and keeps what it committed. */
export class Server {
  readonly committed: Stored[] = []
  constructor(readonly records: Records) {}

  /** A change as it is stored, the same one for the same id; null where it is refused. */
  commit(change: Change): Stored | null {
    const before = this.committed.find(({ id }) => id === change.id)
    if (before) return before
    // What differs is sent first, and all of it where that cannot be read.
    const sent = unpackEdits(this.records, overTheWire(packEdits(change.edits)))
    const edits = sent.unread.length > 0 ? change.edits : sent.edits
    const prepared = prepareChange(this.records, edits, true, change.undoes !== null)
    if (!prepared.ok) return null
    const number = this.committed.length + 1
    const at = '2026-05-01T08:00:00.000Z'
    const touched = touchedMaps(this.records, prepared.edits)
    const maps = touched === 'all' ? null : [...touched]
    const packed = overTheWire(packEdits(prepared.edits, edits))
    const stored = { ...change, edits: packed, number, person: '', personName: '', at, maps, step: null }
    this.committed.push(stored)
    return stored
  }

  /** Whether a topic came from one map to another: its new map may have to be asked for. */
  hasMoved(topic: string): boolean {
    const isMove = ({ id, kind, before, after }: Edit) =>
      id === topic && kind === 'topic' && before?.place && after.place && before.place.map !== after.place.map
    return this.committed.some(({ edits }) => edits.some((edit) => isMove(edit as Edit)))
  }

  snapshot(map: MapId): MapSnapshot {
    const { map: _maps, topic: _topics, ...all } = contents(this.records)
    const records = { ...all, map: [this.records.need('map', map)], topic: [...this.records.topicsOf(map)] }
    return { number: this.committed.length, map, records, farTopics: [] }
  }
}
