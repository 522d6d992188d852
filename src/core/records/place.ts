import { generateKeyBetween } from 'fractional-indexing'
import { z } from 'zod'
import { MapId, TopicId } from './ids'

export const Side = z.enum(['left', 'right'])
export type Side = z.infer<typeof Side>

const isOrderKey = (key: string) => {
  try {
    generateKeyBetween(key, null)
    return true
  } catch {
    return false
  }
}

/** Keys of `fractional-indexing`: compared by code unit, never by locale. */
export const Rank = z
  .string()
  .max(500)
  .regex(/^[0-9A-Za-z]+$/)
  .refine(isOrderKey, 'This is not an order key.')

const coordinate = z.number().min(-1e7).max(1e7)

/** The upper left corner of a topic, seen from the middle of the root, in map units (px at zoom 1). */
const point = { x: coordinate, y: coordinate }
export interface Point {
  x: number
  y: number
}

/** Among the children of a topic. */
const hanging = {
  map: MapId,
  parent: TopicId,
  /** Where it stands among its siblings; no two of them have the same, trashed ones included. */
  rank: Rank,
  /** Which side of its parent the branch grows on, where the parent shares its children out to two sides. */
  side: Side.nullable(),
}

/** Where a topic stands. One field that changes as one. */
export const Place = z.discriminatedUnion('kind', [
  /** In the middle of its map. */
  z.strictObject({ kind: z.literal('root'), map: MapId }),
  /** Among the children of another topic, where the layout puts it. */
  z.strictObject({ kind: z.literal('arranged'), ...hanging }),
  /** The same, at a point that a person gave it. */
  z.strictObject({ kind: z.literal('by hand'), ...hanging, ...point }),
  /** At the head of a loose branch, which hangs on nothing. */
  z.strictObject({ kind: z.literal('loose'), map: MapId, ...point }),
  /** Not on its map at all: what hangs on it is still to be placed; see `tree/to-place.ts`. */
  z.strictObject({ kind: z.literal('to place'), map: MapId }),
])
export type Place = z.infer<typeof Place>

/** The place of a topic that hangs on another. */
export type HangingPlace = Extract<Place, { parent: unknown }>

interface Placed {
  place: Place
}

export const hangs = (place: Place): place is HangingPlace => place.kind === 'arranged' || place.kind === 'by hand'

export const isRoot = ({ place }: Placed): boolean => place.kind === 'root'
export const isPlacedByHand = ({ place }: Placed): boolean => place.kind === 'by hand'

/** The topic on which one hangs; null for roots and loose branches. */
export const parentOf = ({ place }: Placed): TopicId | null => (hangs(place) ? place.parent : null)

export const sideOf = ({ place }: Placed): Side | null => (hangs(place) ? place.side : null)

/** The point that a topic was given; null where the layout puts it. */
export const pointOf = ({ place }: Placed): Point | null =>
  place.kind === 'by hand' || place.kind === 'loose' ? { x: place.x, y: place.y } : null

/** The same place among its siblings, left to the layout. A root and a loose branch stay as they are. */
export const arranged = (place: Place): Place =>
  place.kind === 'by hand'
    ? { kind: 'arranged', map: place.map, parent: place.parent, rank: place.rank, side: place.side }
    : place
