import { dequal } from 'dequal/lite'
import type { MapDigest } from '../../core/records/snapshot'

/** What is known of every map of a collection, open or not. */
export class DigestRows {
  private readonly rows = new Map<string, { row: MapDigest; number: number }>()
  private sorted: readonly MapDigest[] | null = null

  /** Takes rows as they were at a change, where nothing newer is known. Returns whether counts of maps changed. */
  take(rows: readonly MapDigest[], number: number): boolean {
    let changed = false
    for (const row of rows) {
      const known = this.rows.get(row.id)
      if (known && known.number > number) continue
      changed ||= known?.row.topics !== row.topics
      this.rows.set(row.id, { row: known && dequal(known.row, row) ? known.row : row, number })
      if (this.rows.get(row.id)!.row !== known?.row) this.sorted = null
    }
    return changed
  }

  /** Takes all rows that there are: maps without one are not open any more. */
  replace(rows: readonly MapDigest[], number: number): boolean {
    const there = new Set<string>(rows.map(({ id }) => id))
    const gone = [...this.rows].filter(([id, known]) => !there.has(id) && known.number <= number)
    for (const [id] of gone) this.rows.delete(id)
    if (gone.length > 0) this.sorted = null
    return this.take(rows, number) || gone.length > 0
  }

  get(map: string): MapDigest | undefined {
    return this.rows.get(map)?.row
  }

  /** All rows, by id; the same array until something changes. */
  get all(): readonly MapDigest[] {
    this.sorted ??= [...this.rows.values()].map(({ row }) => row).sort((a, b) => (a.id < b.id ? -1 : 1))
    return this.sorted
  }
}
