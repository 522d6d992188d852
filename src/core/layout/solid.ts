import type { Block } from './block'
import { type Bounds, boundsOf, type Face } from './boxes'
import type { Lengths } from './lengths'

/** Room beside a folded topic for the number of topics that it hides. */
export const FOLD_SPACE = 32

export type Faced = Block<{ face: Face }>

/** Where the box of a head stands, seen from the corner of its block. */
export function boxInBlock({ growth, hidden }: Face): { x: number; y: number } {
  const growsLeft = growth === 'left' || growth === 'indented-left'
  return { x: hidden > 0 && growsLeft ? FOLD_SPACE : 0, y: hidden > 0 && growth === 'up' ? FOLD_SPACE : 0 }
}

/** Height of a band, in px: only what lies in the same bands is compared. */
const BAND = 120
const bandOf = (y: number) => Math.floor(y / BAND)

/** Things by the bands over which they reach. */
export class Bands<Thing> {
  private readonly bands = new Map<number, Thing[]>()

  add(thing: Thing, top: number, bottom: number): void {
    for (let band = bandOf(top); band <= bandOf(bottom); band++) {
      const known = this.bands.get(band)
      if (known) known.push(thing)
      else this.bands.set(band, [thing])
    }
  }

  /** All that reach over a band between two heights; some of them more than once. */
  *between(top: number, bottom: number): Generator<Thing> {
    for (let band = bandOf(top); band <= bandOf(bottom); band++) yield* this.bands.get(band) ?? []
  }
}

/** Sides of a cell, in px, and most cells over which something is noted: what is larger is compared with everything. */
const CELL = { width: 480, height: BAND }
const MOST_CELLS = 20_000

/** Things by the cells of the plane over which they reach. */
export class Cells<Thing> {
  private readonly cells = new Map<string, Thing[]>()
  private readonly large: Thing[] = []

  add(thing: Thing, reach: Bounds): void {
    const keys = cellsOf(reach)
    if (!keys) this.large.push(thing)
    for (const key of keys ?? []) {
      const known = this.cells.get(key)
      if (known) known.push(thing)
      else this.cells.set(key, [thing])
    }
  }

  /** All that may reach over a part of the plane; some of them more than once. */
  *near(reach: Bounds): Generator<Thing> {
    yield* this.large
    const keys = cellsOf(reach)
    if (keys) for (const key of keys) yield* this.cells.get(key) ?? []
    else for (const things of this.cells.values()) yield* things
  }
}

/** The keys of the cells that a part of the plane reaches over; null where they are too many. */
function cellsOf({ x, y, width, height }: Bounds): string[] | null {
  const [left, right] = [Math.floor(x / CELL.width), Math.floor((x + width) / CELL.width)]
  const [top, bottom] = [Math.floor(y / CELL.height), Math.floor((y + height) / CELL.height)]
  if (!((right - left + 1) * (bottom - top + 1) <= MOST_CELLS)) return null
  const keys: string[] = []
  for (let row = top; row <= bottom; row++)
    for (let column = left; column <= right; column++) keys.push(`${row} ${column}`)
  return keys
}

/** What can stand on a map and be moved as one: its upper left corner, and the boxes in it. */
export interface Standable {
  x: number
  y: number
  /** How far it reaches. */
  readonly reach: Bounds
  /** Its boxes, seen from its corner. */
  readonly boxes: readonly Bounds[]
  /** The same by bands. */
  readonly boxesByBand: Bands<Bounds>
}

function banded(boxes: readonly Bounds[]): Bands<Bounds> {
  const bands = new Bands<Bounds>()
  for (const box of boxes) bands.add(box, box.y, box.y + box.height)
  return bands
}

/** Boxes that stand together, seen from a corner of their own. */
export class Plate implements Standable {
  private readonly inner: Bounds
  private byBand: Bands<Bounds> | null = null

  constructor(
    readonly boxes: readonly Bounds[],
    public x = 0,
    public y = 0,
  ) {
    this.inner = boundsOf(boxes)
  }

  get reach(): Bounds {
    return { ...this.inner, x: this.x + this.inner.x, y: this.y + this.inner.y }
  }
  get boxesByBand(): Bands<Bounds> {
    this.byBand ??= banded(this.boxes)
    return this.byBand
  }
}

/** A branch that has been set, or its head alone, at a place from which it can still be moved. */
export class Solid<Branch extends Faced = Faced> implements Standable {
  private known: Bounds[] | null = null
  private byBand: Bands<Bounds> | null = null

  constructor(
    readonly block: Branch,
    private readonly lengths: Lengths,
    /** Upper left corner of the head. */
    public x: number,
    public y: number,
    private readonly isHeadAlone = false,
  ) {}

  get reach(): Bounds {
    const { left, top, right, bottom, width, height } = this.block
    if (this.isHeadAlone) return { x: this.x, y: this.y, width, height }
    return { x: this.x + left, y: this.y + top, width: right - left, height: bottom - top }
  }

  /** Made when they are first asked for: most branches are near nothing. */
  get boxes(): readonly Bounds[] {
    this.known ??= this.isHeadAlone ? [boxOf(this.block, 0, 0)] : boxesIn(this.block, this.lengths)
    return this.known
  }

  get boxesByBand(): Bands<Bounds> {
    this.byBand ??= banded(this.boxes)
    return this.byBand
  }
}

function boxOf({ content }: Faced, x: number, y: number): Bounds {
  const { face } = content
  const inside = boxInBlock(face)
  return { x: x + inside.x, y: y + inside.y, width: face.width, height: face.height }
}

function boxesIn(head: Faced, { numbers }: Lengths): Bounds[] {
  const boxes: Bounds[] = []
  const waiting = [{ block: head, x: 0, y: 0 }]
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    const { block, x, y } = at
    boxes.push(boxOf(block, x, y))
    block.children.forEach((child, i) => {
      const corner = block.corners + 2 * i
      waiting.push({ block: child as Faced, x: x + numbers[corner]!, y: y + numbers[corner + 1]! })
    })
  }
  return boxes
}
