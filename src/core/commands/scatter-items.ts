import type { OutlineItem } from '../formats/outline'
import type { MapId } from '../records/ids'
import { command, named } from './command'
import { plantHead, sizeToPlant } from './plant'

/** From one loose topic to the next, in px; they move on where there is no room. */
const LOOSE_STEP = 48

/**
 * Lays items down as loose branches, one below the other and so many px `apart`, from a point of the map on. Selects them. Refused for
 * nothing, and for more than can be made at once. O(items).
 */
export const scatterItems = command(
  (change, args: { map: MapId; x: number; y: number; items: readonly OutlineItem[]; apart?: number }) => {
    const { map, x, y, items, apart = LOOSE_STEP } = args
    const count = sizeToPlant(items, 'lay down')
    const heads = items.map((item, i) => {
      const place = { kind: 'loose' as const, map, x: Math.round(x), y: Math.round(y + i * apart) }
      return plantHead(change, item, place).id
    })
    return { label: `Lay down ${count === 1 ? named(items[0]!.text) : `${count} topics`}`, select: heads }
  },
)
