import type { Block } from './block'
import type { Bounds, Face } from './boxes'
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

/** A branch that has been set, or its head alone, at a place from which it can still be moved. */
export class Solid<Branch extends Faced = Faced> {
  private known: Bounds[] | null = null
  private banded: Bands<Bounds> | null = null

  constructor(
    readonly block: Branch,
    private readonly lengths: Lengths,
    /** Upper left corner of the head. */
    public x: number,
    public y: number,
    private readonly isHeadAlone = false,
  ) {}

  /** How far it reaches. */
  get reach(): Bounds {
    const { left, top, right, bottom, width, height } = this.block
    if (this.isHeadAlone) return { x: this.x, y: this.y, width, height }
    return { x: this.x + left, y: this.y + top, width: right - left, height: bottom - top }
  }

  /** Its boxes, seen from its corner. Made when they are first asked for: most branches are near nothing. */
  get boxes(): readonly Bounds[] {
    this.known ??= this.isHeadAlone ? [boxOf(this.block, 0, 0)] : boxesIn(this.block, this.lengths)
    return this.known
  }

  /** The same by bands. */
  get boxesByBand(): Bands<Bounds> {
    if (!this.banded) {
      this.banded = new Bands()
      for (const box of this.boxes) this.banded.add(box, box.y, box.y + box.height)
    }
    return this.banded
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
