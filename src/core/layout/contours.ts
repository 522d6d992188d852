/**
 * Outlines of branches as linked cells. A cell tells how far the branch reaches across the direction of growth, up to
 * a certain distance along it. Chains share their ends: the outline of a parent continues into that of a child, and a
 * step from cell to cell may shift the frame of reference. Cells that others may still read are never changed.
 */
export class Contours {
  /** End of the cell along the direction of growth, in the frame of the cell. */
  far: Float64Array
  /** Extent across the direction of growth, in the frame of the cell. */
  edge: Float64Array
  next: Int32Array
  /** Shift from the frame of the cell to the frame of the next one. */
  alongShift: Float64Array
  acrossShift: Float64Array
  private used = 0

  constructor(capacity: number) {
    this.far = new Float64Array(capacity)
    this.edge = new Float64Array(capacity)
    this.next = new Int32Array(capacity)
    this.alongShift = new Float64Array(capacity)
    this.acrossShift = new Float64Array(capacity)
  }

  add(far: number, edge: number): number {
    if (this.used === this.far.length) this.grow()
    const cell = this.used++
    this.far[cell] = far
    this.edge[cell] = edge
    this.next[cell] = -1
    return cell
  }

  link(cell: number, next: number, alongShift: number, acrossShift: number): void {
    this.next[cell] = next
    this.alongShift[cell] = alongShift
    this.acrossShift[cell] = acrossShift
  }

  private grow(): void {
    const grown = <A extends Float64Array | Int32Array>(from: A, to: A): A => {
      to.set(from)
      return to
    }
    const size = this.far.length * 2 + 16
    this.far = grown(this.far, new Float64Array(size))
    this.edge = grown(this.edge, new Float64Array(size))
    this.next = grown(this.next, new Int32Array(size))
    this.alongShift = grown(this.alongShift, new Float64Array(size))
    this.acrossShift = grown(this.acrossShift, new Float64Array(size))
  }
}
