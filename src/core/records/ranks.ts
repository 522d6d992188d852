/** The ranks at which the children of one topic stand, trashed ones included, for finding a free one. */
export class Ranks {
  private readonly holders = new Map<string, string>()
  /** All of them in order, from the first question for a next one on. */
  private sorted: string[] | null = null

  set(rank: string, id: string): void {
    if (this.sorted && !this.holders.has(rank)) this.sorted.splice(indexOf(this.sorted, rank), 0, rank)
    this.holders.set(rank, id)
  }

  delete(rank: string, id: string): void {
    if (this.holders.get(rank) !== id) return
    this.holders.delete(rank)
    this.sorted?.splice(indexOf(this.sorted, rank), 1)
  }

  holder(rank: string): string | undefined {
    return this.holders.get(rank)
  }

  /** The next rank after one, or null. O(log n) steps after the first question, which sorts. */
  after(rank: string): string | null {
    const ranks = this.inOrder()
    const at = indexOf(ranks, rank)
    return ranks[ranks[at] === rank ? at + 1 : at] ?? null
  }

  private inOrder(): string[] {
    this.sorted ??= [...this.holders.keys()].sort()
    return this.sorted
  }
}

/** Where a rank stands in a sorted list, or would stand. Ranks are compared by code unit. */
function indexOf(sorted: readonly string[], rank: string): number {
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (sorted[middle]! < rank) low = middle + 1
    else high = middle
  }
  return low
}
