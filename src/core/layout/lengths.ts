/** No cell: where a contour ends. */
export const END = -1

/**
 * The numbers of a map's branches, in typed arrays: the cells of their contours, how far they reach, and
 * where children stand. A map has
 * hundreds of thousands of them, and as objects they would keep the collector of garbage busy for longer than the layout
 * takes. Nothing that was written ever changes, so that branches can be kept and share contours; nothing is given back
 * alone either, so whoever keeps branches begins again with an empty one from time to time.
 *
 * A cell of a contour tells how far a branch reaches across the direction of growth (`edge`), up to a certain distance
 * along it (`far`), both in the frame of the cell; the step to the next cell may shift the frame (`along`, `across`).
 */
export class Lengths {
  far: Float64Array<ArrayBuffer>
  edge: Float64Array<ArrayBuffer>
  along: Float64Array<ArrayBuffer>
  across: Float64Array<ArrayBuffer>
  next: Int32Array<ArrayBuffer>
  /** Sizes of branches, and corners of their children, x and y in turn. */
  numbers: Float64Array<ArrayBuffer>
  private cells = 0
  private reserved = 0

  /** With room for a map of about so many topics; it grows where that is too little. */
  constructor(topics: number) {
    const cells = Math.max(LEAST_ROOM, topics * CELLS_EACH)
    this.far = new Float64Array(cells)
    this.edge = new Float64Array(cells)
    this.along = new Float64Array(cells)
    this.across = new Float64Array(cells)
    this.next = new Int32Array(cells)
    this.numbers = new Float64Array(Math.max(LEAST_ROOM, topics * NUMBERS_EACH))
  }

  /** How many numbers are held: grows with every branch that is set. */
  get used(): number {
    return this.cells * 5 + this.reserved
  }

  /** A cell that is the last of its contour, until it is linked. */
  cell(far: number, edge: number): number {
    const made = this.cells++
    if (made === this.far.length) this.growCells()
    this.far[made] = far
    this.edge[made] = edge
    this.next[made] = END
    return made
  }

  copyOf(cell: number): number {
    return this.cell(this.far[cell]!, this.edge[cell]!)
  }

  link(from: number, next: number, along: number, across: number): void {
    this.next[from] = next
    this.along[from] = along
    this.across[from] = across
  }

  /** Room for so many numbers; tells where it begins. */
  reserve(count: number): number {
    const at = this.reserved
    this.reserved += count
    if (this.reserved > this.numbers.length) this.numbers = grown(this.numbers, this.reserved)
    return at
  }

  private growCells(): void {
    const least = this.far.length + 1
    this.far = grown(this.far, least)
    this.edge = grown(this.edge, least)
    this.along = grown(this.along, least)
    this.across = grown(this.across, least)
    const next = new Int32Array(this.far.length)
    next.set(this.next)
    this.next = next
  }
}

/** What a topic of an ordinary map takes when each is set once, and the least for which there is room. */
const CELLS_EACH = 4
const NUMBERS_EACH = 7
const LEAST_ROOM = 64

function grown(numbers: Float64Array<ArrayBuffer>, least: number): Float64Array<ArrayBuffer> {
  const more = new Float64Array(Math.max(numbers.length * 2, least))
  more.set(numbers)
  return more
}
