import type { MapDigest } from '../records/snapshot'
import { type Atlas, atlasOf, heightOf, moved, type Plate, widthOf } from './atlas'

/**
 * All maps of a collection as plates without overlaps, those that a person has put somewhere where they are, the others as in
 * `atlasOf`; what would lie over another makes way downward. O(maps² · log maps) at worst.
 */
export function atlasByHand(maps: readonly MapDigest[], home: string | null): Atlas {
  const isPut = ({ map }: Plate) => map.inAtlas !== null
  const { plates } = atlasOf(maps, home)
  const standing: Plate[] = []
  for (const plate of [...plates.filter(isPut), ...plates.filter((other) => !isPut(other))])
    standing.push(freeBelow({ ...plate, ...plate.map.inAtlas }, standing))
  const origin = { x: Math.max(0, ...standing.map(({ x }) => -x)), y: Math.max(0, ...standing.map(({ y }) => -y)) }
  const shown = moved(standing, origin.x, origin.y)
  return {
    plates: shown,
    width: Math.max(0, ...shown.map((plate) => plate.x + widthOf(plate))),
    height: Math.max(0, ...shown.map((plate) => plate.y + heightOf(plate))),
    shelf: null,
    origin,
  }
}

/** Room that is kept between plates which a person puts beside one another. */
const APART = 8

/** A plate where it is, or as little below as it takes to lie over none that stand. */
function freeBelow(plate: Plate, standing: readonly Plate[]): Plate {
  const inTheWay = standing
    .filter((other) => other.x < plate.x + widthOf(plate) + APART && plate.x < other.x + widthOf(other) + APART)
    .sort((a, b) => a.y - b.y)
  let { y } = plate
  for (const other of inTheWay)
    if (other.y < y + heightOf(plate) + APART && y < other.y + heightOf(other) + APART)
      y = other.y + heightOf(other) + APART
  return { ...plate, y }
}

/** A frame around the maps of a folder. In px. */
export interface FolderFrame {
  folder: string
  x: number
  y: number
  width: number
  height: number
}

/**
 * Frames around what lies in each folder, what lies in folders inside it included, those around others first. There is none
 * where something else stands between. O(folders · maps).
 */
export function folderFrames({ plates }: Atlas, parentOf: (folder: string) => string | null): FolderFrame[] {
  const inside = new Map<string, { plates: Plate[]; level: number }>()
  /** Puts a plate into a folder and all around it, and returns how deep the folder lies; folders in a circle end where they meet. */
  const put = (folder: string, plate: Plate, within: readonly string[]): number => {
    const parent = parentOf(folder)
    const level = parent === null || within.includes(parent) ? 0 : put(parent, plate, [...within, parent]) + 1
    const known = inside.get(folder)
    if (known) known.plates.push(plate)
    else inside.set(folder, { plates: [plate], level })
    return level
  }
  for (const plate of plates) if (plate.map.folder) put(plate.map.folder, plate, [plate.map.folder])
  const deepest = Math.max(0, ...[...inside.values()].map(({ level }) => level))
  return [...inside]
    .sort(([, a], [, b]) => a.level - b.level)
    .flatMap(([folder, { plates: within, level }]) => {
      const room = FRAME_ROOM * (deepest - level + 1)
      const [x, y] = [Math.min(...within.map((plate) => plate.x)), Math.min(...within.map((plate) => plate.y))]
      const right = Math.max(...within.map((plate) => plate.x + widthOf(plate)))
      const foot = Math.max(...within.map((plate) => plate.y + heightOf(plate)))
      const own = new Set(within)
      const isBetween = (plate: Plate) =>
        plate.x < right && x < plate.x + widthOf(plate) && plate.y < foot && y < plate.y + heightOf(plate)
      if (plates.some((plate) => !own.has(plate) && isBetween(plate))) return []
      const [width, height] = [right - x + 2 * room, foot - y + 2 * room + FRAME_TITLE]
      return [{ folder, x: x - room, y: y - room - FRAME_TITLE, width, height }]
    })
}

/** Between a frame and what is in it, and for its title. */
const [FRAME_ROOM, FRAME_TITLE] = [12, 24]
