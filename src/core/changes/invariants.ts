import type { AnyRecord, RecordByKind, RecordKind } from '../records/kinds'
import { kinds, referencesTo } from '../records/kinds'
import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import { eachEnd, fieldOf } from '../records/reference-path'
import type { TopicRecord } from '../records/topic'
import type { Edit } from './edit'
import { refuse } from './problem'

/**
 * Checks what must hold around the records that `edits` touched, after they were applied. Throws a Refusal at the
 * first thing that does not hold. What must be there is what the references of the kinds say.
 *
 * With `complete` false, as in a browser that holds only some maps, records that are not here are taken to be right.
 * Costs O(edits), the topics above them, each once, and O(maps above) for each touched home doorway.
 */
export function checkInvariants(records: Records, edits: readonly Edit[], complete: boolean): void {
  const check = new Checker(records, complete)
  const maps = new Set<string>()
  for (const edit of edits) {
    check.newReferences(edit)
    const record: AnyRecord = records.need(edit.kind, edit.id)
    if (record.trashed) check.mayGo(edit.kind, record)
    if (edit.kind === 'topic') {
      const topic = record as TopicRecord
      if (edit.before?.place) maps.add(edit.before.place.map)
      if (edit.before === null || edit.after.place) check.way(topic)
      if (edit.before === null || edit.after.place || edit.after.trashed !== undefined) maps.add(topic.place.map)
      if (edit.after.place || edit.after.trashed !== undefined || edit.after.opensMap !== undefined)
        for (const arriving of records.mapsArrivingBy(topic.id)) check.homeDoorway(arriving)
    } else if (edit.kind === 'map') {
      const map = record as RecordByKind['map']
      maps.add(map.id)
      check.homeDoorway(map)
    } else if (edit.kind === 'crosslink') check.twoEnds(record as RecordByKind['crosslink'])
  }
  for (const map of maps) check.oneRoot(map)
}

class Checker {
  /** Topics from which the way up ends at a head. */
  private readonly hanging = new Set<string>()

  constructor(
    private readonly records: Records,
    private readonly complete: boolean,
  ) {}

  /** What a field newly refers to must be there. What it referred to before was checked when it was set. */
  newReferences({ kind, after }: Edit): void {
    if (!this.complete) return
    for (const reference of kinds[kind].references)
      if (fieldOf(reference) in after)
        eachEnd(after, reference, (end) => {
          if (!this.records.get(end.kind as RecordKind, end.id))
            refuse('reference', `${reference.called} is no longer there.`)
        })
  }

  /** What others cannot be without does not go into the trash. */
  mayGo(kind: RecordKind, { id }: AnyRecord): void {
    for (const { from, reference } of referencesTo(kind)) {
      if (reference.whenGone !== 'refused') continue
      for (const { trashed } of this.records.referring(from, reference, { kind, id }))
        if (!trashed) refuse('invalid', `${reference.called} cannot lie in the trash. Choose another one first.`)
    }
  }

  /** A topic hangs on one of its own map, and the way up from it ends. */
  way(topic: TopicRecord): void {
    const way = new Set<string>()
    for (let at: TopicRecord | undefined = topic; at && !this.hanging.has(at.id); ) {
      if (way.has(at.id)) refuse('loop', 'A topic cannot hang below itself.')
      way.add(at.id)
      const parent: TopicRecord | undefined = this.records.get('topic', parentOf(at))
      if (parent && parent.place.map !== at.place.map) refuse('invalid', 'A topic stands on the map of its parent.')
      at = parent
    }
    for (const id of way) this.hanging.add(id)
  }

  oneRoot(mapId: string): void {
    const map = this.records.get('map', mapId)
    if (!map || map.trashed) return
    const heads = this.records.heads(mapId)
    if (!this.complete && heads.length === 0) return
    const roots = heads.filter((topic) => topic.place.kind === 'root' && !topic.trashed)
    if (roots.length === 0)
      refuse('root', 'A map keeps its root topic. To remove it, put the whole map into the trash.')
    if (roots.length > 1) refuse('root', 'A map has one root topic.')
  }

  /** A map in the trash may keep a home doorway that leads elsewhere by now: it is checked when the map comes back. */
  homeDoorway(map: RecordByKind['map']): void {
    if (map.homeDoorway === null || map.trashed) return
    const doorway = this.records.get('topic', map.homeDoorway)
    if (!doorway) return
    if (doorway.opensMap !== map.id) refuse('doorway', 'The home doorway of a map must open it.')
    if (doorway.trashed) refuse('doorway', 'A home doorway cannot lie in the trash.')
    this.doorwaysAbove(map.id)
  }

  /** Home doorways lead up to a map without one; they never close a loop. */
  private doorwaysAbove(mapId: string): void {
    const seen = new Set<string>()
    let map = this.records.get('map', mapId)
    while (map) {
      if (seen.has(map.id)) refuse('loop', 'Home doorways cannot lead in a circle.')
      seen.add(map.id)
      const doorway = this.records.get('topic', map.homeDoorway)
      map = doorway && this.records.get('map', doorway.place.map)
    }
  }

  twoEnds({ from, to }: RecordByKind['crosslink']): void {
    if (to.kind === 'topic' && to.id === from) refuse('invalid', 'A link leads from one topic to another.')
  }
}
