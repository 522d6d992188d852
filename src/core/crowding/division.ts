import { type Bearable, COSTS, pieceCost } from './piece-cost'
import { childrenOf, type TopicTree } from './topic-tree'

/** A tree with its cuts, what they cost in all, and what another cut would change. */
export class Division {
  /** Of each node the node at which its map begins; a cut node stands on the map above. */
  private readonly mapOf: Int32Array
  private readonly sizes = new Map<number, number>()
  private readonly tiesAt: readonly (readonly number[])[]

  constructor(
    private readonly tree: TopicTree,
    private readonly bearable: Bearable,
    cuts: Iterable<number>,
  ) {
    const { parent, ties, weight } = tree
    const cut = new Set(cuts)
    this.mapOf = new Int32Array(parent.length)
    for (let node = 1; node < parent.length; node++) {
      const above = parent[node]!
      this.mapOf[node] = cut.has(above) ? above : this.mapOf[above]!
    }
    this.sizes.set(0, weight[0]!)
    for (const node of cut) this.sizes.set(node, weight[node]!)
    for (let node = 1; node < parent.length; node++) this.grow(this.mapOf[node]!, weight[node]!)
    const at: number[][] = Array.from({ length: parent.length }, () => [])
    for (const [a, b] of ties) {
      at[a]!.push(b)
      at[b]!.push(a)
    }
    this.tiesAt = at
  }

  private grow(map: number, by: number): void {
    this.sizes.set(map, this.sizes.get(map)! + by)
  }

  get cuts(): number[] {
    return [...this.sizes.keys()].filter((node) => node !== 0).sort((a, b) => a - b)
  }

  isCut(node: number): boolean {
    return node !== 0 && this.sizes.has(node)
  }

  /** What the map that begins at a node bears, its root with it. */
  sizeOf(map: number): number {
    return this.sizes.get(map) ?? 0
  }

  /** Ties whose ends stand on different maps. O(ties). */
  get cutTies(): number {
    return this.tree.ties.filter(([a, b]) => this.mapOf[a] !== this.mapOf[b]).length
  }

  /** What it costs as a whole. O(maps and ties). */
  get cost(): number {
    let cost = COSTS.cut * this.cutTies + COSTS.map * (this.sizes.size - 1)
    for (const size of this.sizes.values()) cost += pieceCost(size, this.bearable)
    return cost
  }

  private weightOf(nodes: readonly number[]): number {
    let weight = 0
    for (const node of nodes) weight += this.tree.weight[node]!
    return weight
  }

  /** The nodes below one that stand on its map, or on the one it opens. O(their number and their children). */
  private below(node: number): number[] {
    const found: number[] = []
    const waiting = [...childrenOf(this.tree, node)]
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      found.push(next)
      if (!this.isCut(next)) waiting.push(...childrenOf(this.tree, next))
    }
    return found
  }

  /**
   * By how much the cost would change if the cut at a node were made, or taken back, and how many ties that would cut or
   * mend. O(topics of the maps on both sides, and their ties).
   */
  changeBy(node: number): { cost: number; ties: number } {
    const moving = this.below(node)
    const around = this.mapOf[node]!
    const [here, there] = [this.sizeOf(around), this.isCut(node) ? this.sizeOf(node) : 0]
    const bears = (size: number) => pieceCost(size, this.bearable)
    const among = there > 0 ? null : new Set(moving)
    let ties = 0
    for (const end of moving)
      for (const other of this.tiesAt[end]!) if (this.mapOf[other] === around && !among?.has(other)) ties++
    if (there > 0)
      return {
        cost: bears(here + there - this.tree.weight[node]!) - bears(here) - bears(there) - COSTS.map - COSTS.cut * ties,
        ties,
      }
    const moved = this.weightOf(moving)
    const [left, size] = [here - moved, moved + this.tree.weight[node]!]
    return { cost: bears(size) + bears(left) - bears(here) + COSTS.map + COSTS.cut * ties, ties }
  }

  /** Makes the cut at a node, or takes it back. O(topics of the map below). */
  toggle(node: number): void {
    const moving = this.below(node)
    const around = this.mapOf[node]!
    const isCut = this.isCut(node)
    for (const each of moving) this.mapOf[each] = isCut ? around : node
    const moved = this.weightOf(moving)
    if (isCut) this.sizes.delete(node)
    else this.sizes.set(node, moved + this.tree.weight[node]!)
    this.grow(around, isCut ? moved : -moved)
  }
}
