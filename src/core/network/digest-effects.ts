import type { Edit, EditOf } from '../changes/edit'
import { touchedMaps } from '../changes/touched-maps'
import { affectedMaps } from '../records/affected-maps'
import type { MapId } from '../records/ids'
import { parentOf } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** What edits mean for the digest rows of maps; see `records/snapshot.ts`. */
export interface DigestEffects {
  /** How many topics were added to maps of which nothing else changed; 0 where only what the map itself says did. */
  added: Map<MapId, number>
  /** Maps whose row has to be counted anew. */
  anew: Set<MapId>
  /** Whether links between maps may have come, gone, or lead elsewhere. */
  links: boolean
}

/** Fields of a topic that a digest row depends on, once the topic is there. */
const COUNTED = ['place', 'trashed', 'opensMap'] as const

/** Effects of edits that were applied to `records`, which hold the topics above each touched one. O(edits and topics above). */
export function digestEffects(records: Records, edits: readonly Edit[]): DigestEffects {
  const effects: DigestEffects = { added: new Map(), anew: new Set(), links: false }
  const { added, anew } = effects
  const again = (edit: Edit) => {
    const maps = touchedMaps(records, [edit])
    if (maps !== 'all') for (const map of maps) anew.add(map)
  }
  for (const edit of edits) {
    if (edit.kind === 'map') {
      if (edit.before === null) anew.add(edit.id as MapId)
      else added.set(edit.id as MapId, added.get(edit.id as MapId) ?? 0)
    } else if (edit.kind === 'crosslink' || edit.kind === 'enclosure') {
      effects.links = true
      again(edit)
    } else if (edit.kind === 'topic') {
      const topic = records.need('topic', edit.id)
      const isPlain = edit.before === null && !topic.opensMap && !topic.trashed
      if (isPlain) {
        const { map } = topic.place
        added.set(map, (added.get(map) ?? 0) + (isSeen(records, topic) ? 1 : 0))
      } else if (
        edit.before === null ||
        (COUNTED.some((field) => field in edit.after) && !isMerelyMoved(records, edit))
      )
        again(edit)
      if (edit.before?.place && edit.before.place.map !== topic.place.map) {
        effects.links = true
        // A map is reached from where its home doorway stands.
        for (const { id } of records.mapsArrivingBy(topic.id)) added.set(id, added.get(id) ?? 0)
      }
      if (edit.before ? 'note' in edit.after || 'trashed' in edit.after : topic.note) {
        effects.links = true
        for (const map of mapsOfSharedEnds(records, edit)) anew.add(map)
      }
    }
  }
  for (const map of anew) added.delete(map)
  return effects
}

/**
 * The maps that are linked through a note that a topic carries or carried, or an enclosure around it: such a link ends at
 * the first topic there that does not lie in the trash, which may be another one now.
 */
function* mapsOfSharedEnds(records: Records, { id, before }: EditOf<'topic'>): Generator<MapId> {
  const { note } = records.need('topic', id)
  const links = [note, before?.note].flatMap((shared) => (shared ? records.crosslinksTo('note', shared) : []))
  for (const enclosure of records.enclosuresOf(id)) links.push(...records.crosslinksTo('enclosure', enclosure.id))
  for (const link of links) {
    const maps = affectedMaps(records, 'crosslink', link)
    if (maps !== 'all') yield* maps
  }
}

/** Whether a topic that is counted was moved to another place on its map where it is counted too. */
function isMerelyMoved(records: Records, { id, before, after }: EditOf<'topic'>): boolean {
  if (!before?.place || 'trashed' in after || 'opensMap' in after) return false
  const topic = records.need('topic', id)
  const was = { ...topic, place: before.place }
  return was.place.map === topic.place.map && isSeen(records, topic) && isSeen(records, was)
}

/** Whether neither a topic nor one above it lies in the trash or is still to be placed. */
function isSeen(records: Records, topic: TopicRecord): boolean {
  const seen = new Set<string>()
  for (let at: TopicRecord | undefined = topic; at; at = records.get('topic', parentOf(at))) {
    if (at.trashed || at.place.kind === 'to place' || seen.has(at.id)) return false
    seen.add(at.id)
  }
  return true
}
