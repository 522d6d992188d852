import { blankTopic } from '../../../core/commands/blank-topic'
import { PLAIN_MAP } from '../../../core/commands/maps'
import { MapId, TopicId } from '../../../core/records/ids'
import type { LayoutKind } from '../../../core/records/layout'
import type { MapLook } from '../../../core/records/look'
import type { Place, Side } from '../../../core/records/place'
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

interface Sample {
  records: Records
  map: MapId
}

function sample(
  topics: readonly (readonly [parent: number | null, text: string, side?: Side])[],
  layout: LayoutKind,
  look: MapLook | null,
): Sample {
  const records = new Records()
  records.put('map', { id: MAP, title: 'Bog', ...PLAIN_MAP, layout, look, trashed: false })
  topics.forEach(([parent, text, side = null], i) => {
    const place: Place =
      parent === null
        ? { kind: 'root', map: MAP }
        : { kind: 'arranged', map: MAP, parent: id(parent), rank: `a${i}`, side }
    records.put('topic', blankTopic(id(i), place, text))
  })
  return { records, map: MAP }
}

/** A map of five topics in a look, for showing what the look does. */
export const sampleMap = (look: MapLook): Sample => sample(TOPICS, 'right', look)

const BRANCHES = [
  [null, 'Bog'],
  [0, 'Water', 'right'],
  [0, 'Peat', 'right'],
  [0, 'Birds', 'left'],
  [0, 'Paths', 'left'],
  [1, 'Dams'],
  [1, 'Wells'],
  [3, 'Snipe'],
  [3, 'Crane'],
] as const
const layouts = new Map<LayoutKind, Sample>()

/** A map of nine topics in a layout, for showing what the layout does: the same one each time. */
export function sampleOfLayout(layout: LayoutKind): Sample {
  let known = layouts.get(layout)
  if (!known) layouts.set(layout, (known = sample(BRANCHES, layout, null)))
  return known
}
