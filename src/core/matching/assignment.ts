/**
 * The one-to-one pairing of rows with columns whose weights have the largest total; cells that are 0 or less pair nothing.
 * Kuhn 1955, The Hungarian method for the assignment problem, as shortest augmenting paths (Jonker and Volgenant 1987).
 * Of each row its column, or -1. O(n³) for the larger side n.
 */
export function bestAssignment(weights: readonly Float64Array[]): Int32Array {
  const rows = weights.length
  const columns = weights[0]?.length ?? 0
  const n = Math.max(rows, columns)
  const cost = (row: number, column: number) => -Math.max(0, weights[row]?.[column] ?? 0)
  const rowPotential = new Float64Array(n + 1)
  const columnPotential = new Float64Array(n + 1)
  /** Of each column, from 1, its row, from 1. */
  const rowOf = new Int32Array(n + 1)
  const way = new Int32Array(n + 1)
  for (let row = 1; row <= n; row++) {
    rowOf[0] = row
    let column = 0
    const least = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY)
    const used = new Uint8Array(n + 1)
    do {
      used[column] = 1
      const from = rowOf[column]!
      let [delta, next] = [Number.POSITIVE_INFINITY, 0]
      for (let other = 1; other <= n; other++) {
        if (used[other]) continue
        const reduced = cost(from - 1, other - 1) - rowPotential[from]! - columnPotential[other]!
        if (reduced < least[other]!) {
          least[other] = reduced
          way[other] = column
        }
        if (least[other]! < delta) [delta, next] = [least[other]!, other]
      }
      for (let other = 0; other <= n; other++) {
        if (used[other]) {
          rowPotential[rowOf[other]!]! += delta
          columnPotential[other]! -= delta
        } else least[other]! -= delta
      }
      column = next
    } while (rowOf[column] !== 0)
    do {
      const from = way[column]!
      rowOf[column] = rowOf[from]!
      column = from
    } while (column !== 0)
  }
  const paired = new Int32Array(rows).fill(-1)
  for (let column = 1; column <= columns; column++) {
    const row = rowOf[column]! - 1
    if (row < rows && (weights[row]?.[column - 1] ?? 0) > 0) paired[row] = column - 1
  }
  return paired
}
