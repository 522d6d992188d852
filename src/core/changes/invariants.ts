import type { RecordByKind, RecordKind } from '../records/kinds'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import type { Edit, EditOf } from './edit'
import { refuse } from './problem'

/**
 * Checks what must hold around the records that `edits` touched, after they were applied. Throws a Refusal at the
 * first thing that does not hold.
 *
 * With `complete` false, as in a browser that holds only some maps, records that are not here are taken to be right.
 * Costs O(levels) for each touched topic and O(maps above) for each touched home doorway.
 */
export function checkInvariants(records: Records, edits: readonly Edit[], complete: boolean): void {
  const maps = new Set<string>()
  const check = new Checker(records, complete)
  for (const edit of edits) {
    if (edit.kind === 'topic') {
      if (edit.before?.place) maps.add(edit.before.place.map)
      const topic = records.need('topic', edit.id)
      check.topic(topic, edit)
      if (edit.before === null || edit.after.place || edit.after.trashed !== undefined) maps.add(topic.place.map)
      if (edit.after.place || edit.after.trashed !== undefined || edit.after.opensMap !== undefined)
        for (const arriving of records.mapsArrivingBy(topic.id)) check.homeDoorway(arriving)
    } else if (edit.kind === 'map') {
      const map = records.need('map', edit.id)
      if (!map.trashed) maps.add(map.id)
      check.background(edit)
      check.homeDoorway(map)
    } else check.references(edit)
  }
  for (const map of maps) check.oneRoot(map)
}

class Checker {
  constructor(
    private readonly records: Records,
    private readonly complete: boolean,
  ) {}

  /** What a field newly refers to must be there. What it referred to before was checked when it was set. */
  private mustExist(kind: RecordKind, id: string | null | undefined, what: string): void {
    if (this.complete && id && !this.records.get(kind, id)) refuse('reference', `${what} is no longer there.`)
  }

  topic(topic: TopicRecord, { after }: EditOf<'topic'>): void {
    this.mustExist('map', after.place?.map, 'The map of this topic')
    this.mustExist('topic', after.place?.parent, 'The topic that this one should hang on')
    this.mustExist('note', after.note, 'The note of this topic')
    this.mustExist('map', after.opensMap, 'The map that this topic should open')
    this.mustExist('file', after.picture?.file, 'The picture')
    for (const tag of after.tags ?? []) this.mustExist('tag', tag, 'A tag of this topic')
    const parent = this.records.get('topic', topic.place.parent)
    if (parent && parent.place.map !== topic.place.map) refuse('invalid', 'A topic stands on the map of its parent.')
    const seen = new Set<string>([topic.id])
    for (let above = parent; above; above = this.records.get('topic', above.place.parent)) {
      if (seen.has(above.id)) refuse('loop', 'A topic cannot hang below itself.')
      seen.add(above.id)
    }
  }

  oneRoot(mapId: string): void {
    const map = this.records.get('map', mapId)
    if (!map || map.trashed) return
    const heads = this.records.heads(mapId)
    if (!this.complete && heads.length === 0) return
    const roots = heads.filter((topic) => topic.place.x === null && !topic.trashed)
    if (roots.length === 0)
      refuse('root', 'A map keeps its root topic. To remove it, put the whole map into the trash.')
    if (roots.length > 1) refuse('root', 'A map has one root topic.')
  }

  /** A map in the trash may keep a home doorway that leads elsewhere by now: it is checked when the map comes back. */
  homeDoorway(map: RecordByKind['map']): void {
    if (map.homeDoorway === null || map.trashed) return
    const doorway = this.records.get('topic', map.homeDoorway)
    if (!doorway) {
      this.mustExist('topic', map.homeDoorway, 'The home doorway of this map')
      return
    }
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

  background({ after }: EditOf<'map'> | EditOf<'collection'>): void {
    this.mustExist('file', after.look?.background?.picture, 'The picture of the background')
  }

  references(edit: Exclude<Edit, { kind: 'topic' | 'map' }>): void {
    switch (edit.kind) {
      case 'crosslink': {
        this.mustExist('topic', edit.after.from, 'The topic where this link begins')
        this.mustExist('topic', edit.after.toTopic, 'The topic that this link leads to')
        this.mustExist('map', edit.after.toMap, 'The map that this link leads to')
        this.mustExist('enclosure', edit.after.toEnclosure, 'The enclosure that this link leads to')
        const link = this.records.need('crosslink', edit.id)
        if (link.from === link.toTopic) refuse('invalid', 'A link leads from one topic to another.')
        return
      }
      case 'weblink':
        this.mustExist('topic', edit.after.topic, 'The topic of this web link')
        return
      case 'attachment':
        this.mustExist('topic', edit.after.topic, 'The topic of this file')
        this.mustExist('file', edit.after.file, 'The file')
        return
      case 'enclosure':
        for (const topic of edit.after.topics ?? []) this.mustExist('topic', topic, 'A topic of this enclosure')
        return
      case 'collection':
        this.mustExist('map', edit.after.homeMap, 'The home map')
        this.background(edit)
        return
      case 'note':
      case 'tag':
      case 'look':
      case 'template':
      case 'file':
        return
      default:
        edit satisfies never
    }
  }
}
