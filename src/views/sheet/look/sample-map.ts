import { blankTopic } from '../../../core/commands/blank-topic'
import { MapId, TopicId } from '../../../core/records/ids'
import type { MapLook } from '../../../core/records/look'
import type { Place } from '../../../core/records/place'
import { Records } from '../../../core/records/records'

const MAP = MapId.parse('00000000-0000-7000-8000-0000000000aa')
const id = (i: number) => TopicId.parse(`00000000-0000-7000-8000-00000000000${i}`)

/** Index of the parent, and the text. */
const TOPICS = [
  [null, 'Bog'],
  [0, 'Water'],
  [1, 'Dams'],
  [1, 'Wells'],
  [0, 'Peat'],
] as const

/** A map of five topics in a look, for showing what the look does. */
export function sampleMap(look: MapLook): { records: Records; map: MapId } {
  const records = new Records()
  records.put('map', {
    id: MAP,
    title: 'Bog',
    homeDoorway: null,
    layout: 'right',
    spacing: 1,
    numbering: null,
    look,
    trashed: false,
  })
  TOPICS.forEach(([parent, text], i) => {
    const place: Place =
      parent === null
        ? { kind: 'root', map: MAP }
        : { kind: 'arranged', map: MAP, parent: id(parent), rank: `a${i}`, side: null }
    records.put('topic', blankTopic(id(i), place, text))
  })
  return { records, map: MAP }
}
