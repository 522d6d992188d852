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

  get(map: string): MapDigest | undefined {
    return this.rows.get(map)?.row
  }

  /** All rows, by id; the same array until something changes. */
  get all(): readonly MapDigest[] {
    this.sorted ??= [...this.rows.values()].map(({ row }) => row).sort((a, b) => (a.id < b.id ? -1 : 1))
    return this.sorted
  }
}
