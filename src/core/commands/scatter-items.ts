import { refuse } from '../changes/problem'
import { countItems, type OutlineItem } from '../formats/outline'
import type { MapId } from '../records/ids'
import type { Records } from '../records/records'
import { Draft, type Making, named, type Outcome } from './command'
import { MAX_PLANTED } from './paste-outline'
import { plantHead } from './plant'

/** From one loose topic to the next, in px; they move on where there is no room. */
const STEP = 48

/** Lays items down as loose branches, one below the other, from a point of the map on. Selects them. */
export function scatterItems(
  records: Records,
  args: { map: MapId; x: number; y: number; items: readonly OutlineItem[] },
  making: Making,
): Outcome {
  const draft = new Draft(records, making)
  const { map, x, items } = args
  const count = countItems(items)
  if (count === 0) refuse('invalid', 'There is no text to lay down.')
  if (count > MAX_PLANTED)
    refuse('invalid', `This text would become ${count} topics; at most ${MAX_PLANTED} can be made at once.`)
  const heads = items.map((item, i) => {
    const place = { map, parent: null, rank: 'a0', side: null, x: Math.round(x), y: Math.round(args.y + i * STEP) }
    return plantHead(draft, item, place).id
  })
  return draft.outcome(`Lay down ${count === 1 ? named(items[0]!.text) : `${count} topics`}`, heads)
}
