/** A node of an ordered tree in reading order: how deep it stands (0 hangs on the head), and its text. */
export interface TreeLine {
  readonly level: number
  readonly text: string
}

/**
 * For each node of the later tree the index of the node of the earlier one that it is, or -1 where it is new. Each earlier
 * node is used at most once.
 *
 * Trees are matched, not lines, so that of two equal nodes each stays with its own parent. After Chawathe, Rajaraman,
 * Garcia-Molina and Widom, "Change Detection in Hierarchically Structured Information" (1996), with the order of steps of
 * Falleri et al., "Fine-grained and Accurate Source Code Differencing" (2014):
 *
 * 1. equal beginnings and ends, as far as their parents agree
 * 2. equal subtrees, the largest first, also where they moved
 * 3. from matched parents down: children with equal texts
 * 4. single nodes that moved, by their texts; of several that with the same parent or the same children
 * 5. parents most of whose children are the same
 * 6. from matched parents down: what was retyped, by likeness, or by order where as many are left on both sides
 *
 * Linear but for step 6, which compares at most `MOST_COMPARED` pairs at a time.
 */
export function matchTrees(before: readonly TreeLine[], after: readonly TreeLine[]): Int32Array {
  const matching = new Matching(new Tree(before), new Tree(after))
  matching.takeEnds()
  if (!matching.isComplete()) matching.takeRest()
  return matching.of
}

/** An ordered tree with what the steps look up. Children of the head are those of -1. */
class Tree {
  readonly parents: Int32Array
  private readonly below: (number[] | undefined)[]

  constructor(readonly lines: readonly TreeLine[]) {
    this.parents = new Int32Array(lines.length)
    this.below = new Array(lines.length + 1)
    const open: number[] = []
    lines.forEach(({ level }, i) => {
      open.length = level
      const parent = open[level - 1] ?? -1
      open[level] = i
      this.parents[i] = parent
      const siblings = this.below[parent + 1]
      if (siblings) siblings.push(i)
      else this.below[parent + 1] = [i]
    })
  }

  get size(): number {
    return this.lines.length
  }
  text(i: number): string {
    return this.lines[i]!.text
  }
  parentText(i: number): string | null {
    const parent = this.parents[i]!
    return parent < 0 ? null : this.text(parent)
  }
  children(i: number): readonly number[] {
    return this.below[i + 1] ?? NO_CHILDREN
  }
  /** How many nodes a subtree has. */
  sizeBelow(i: number): number {
    const { level } = this.lines[i]!
    let end = i + 1
    while (end < this.lines.length && this.lines[end]!.level > level) end++
    return end - i
  }
}
const NO_CHILDREN: readonly number[] = []

class Matching {
  /** For each later node its earlier one. */
  readonly of: Int32Array
  /** For each earlier node its later one. */
  private readonly taken: Int32Array

  constructor(
    private readonly before: Tree,
    private readonly after: Tree,
  ) {
    this.of = new Int32Array(after.size).fill(-1)
    this.taken = new Int32Array(before.size).fill(-1)
  }

  isComplete(): boolean {
    return !this.of.includes(-1)
  }

  private take(old: number, now: number): void {
    this.of[now] = old
    this.taken[old] = now
  }
  private isOpen(old: number, now: number): boolean {
    return this.taken[old]! < 0 && this.of[now]! < 0
  }
  private sameParent(old: number, now: number): boolean {
    const [p, q] = [this.before.parents[old]!, this.after.parents[now]!]
    return q < 0 ? p < 0 : p >= 0 && this.of[q] === p
  }

  takeEnds(): void {
    const { before, after } = this
    const equal = (old: number, now: number) =>
      before.text(old) === after.text(now) && before.lines[old]!.level === after.lines[now]!.level
    const least = Math.min(before.size, after.size)
    let start = 0
    while (start < least && equal(start, start)) this.take(start, start++)
    let end = 0
    while (end < least - start && equal(before.size - 1 - end, after.size - 1 - end)) end++
    for (; end > 0; end--) {
      const [old, now] = [before.size - end, after.size - end]
      if (this.sameParent(old, now)) this.take(old, now)
    }
  }

  takeRest(): void {
    this.takeEqualSubtrees()
    this.matchBelowAll(false)
    this.takeMoved()
    this.takeParents()
    this.matchBelowAll(true)
  }

  private takeEqualSubtrees(): void {
    const { before, after } = this
    const isOpenParent = (now: number) => this.of[now]! < 0 && after.children(now).length > 0
    if (!after.lines.some((_, now) => isOpenParent(now))) return
    const names = new Map<string, number>()
    const named = (tree: Tree): Int32Array => {
      const found = new Int32Array(tree.size)
      for (let i = tree.size - 1; i >= 0; i--) {
        let key = tree.text(i)
        for (const child of tree.children(i)) key += `\u0000${found[child]}`
        let name = names.get(key)
        if (name === undefined) names.set(key, (name = names.size))
        found[i] = name
      }
      return found
    }
    const oldNames = named(before)
    const newNames = named(after)
    const candidates = new Candidates(before.size, (old) =>
      this.taken[old]! < 0 && before.children(old).length > 0 ? oldNames[old]! : null,
    )
    // Reading order comes to the largest subtree first.
    for (let now = 0; now < after.size; now++) {
      if (!isOpenParent(now)) continue
      const old = candidates.best(
        newNames[now]!,
        (one) => this.taken[one]! < 0,
        (one) => this.sameParent(one, now),
      )
      if (old < 0) continue
      for (let i = after.sizeBelow(now) - 1; i >= 0; i--) if (this.isOpen(old + i, now + i)) this.take(old + i, now + i)
    }
  }

  private takeMoved(): void {
    const { before, after } = this
    const candidates = new Candidates(before.size, (old) => (this.taken[old]! < 0 ? before.text(old) : null))
    for (let now = 0; now < after.size; now++) {
      if (this.of[now]! >= 0) continue
      const likes = (old: number) =>
        before.parentText(old) === after.parentText(now) ||
        (after.children(now).length > 0 && this.shareChild(old, now))
      const old = candidates.best(after.text(now), (one) => this.taken[one]! < 0, likes)
      if (old >= 0) this.take(old, now)
    }
  }

  private shareChild(old: number, now: number): boolean {
    return this.after
      .children(now)
      .some((child) => this.of[child]! >= 0 && this.before.parents[this.of[child]!] === old)
  }

  /** From the leaves up: a node most of whose children came from below one node is that node. */
  private takeParents(): void {
    const { before, after } = this
    for (let now = after.size - 1; now >= 0; now--) {
      if (this.of[now]! >= 0) continue
      const children = after.children(now)
      const votes = new Map<number, number>()
      for (const child of children) {
        const parent = this.of[child]! < 0 ? -1 : before.parents[this.of[child]!]!
        if (parent >= 0 && this.taken[parent]! < 0) votes.set(parent, (votes.get(parent) ?? 0) + 1)
      }
      for (const [old, count] of votes)
        if (2 * count > Math.max(children.length, before.children(old).length)) {
          this.take(old, now)
          break
        }
    }
  }

  /** Matches the children of every matched pair, parents before their children. */
  private matchBelowAll(retyped: boolean): void {
    this.matchBelow(-1, -1, retyped)
    for (let now = 0; now < this.after.size; now++)
      if (this.of[now]! >= 0 && this.after.children(now).length > 0) this.matchBelow(this.of[now]!, now, retyped)
  }

  private matchBelow(oldParent: number, newParent: number, retyped: boolean): void {
    const { before, after } = this
    const openNew = () => after.children(newParent).filter((now) => this.of[now]! < 0)
    const openOld = () => before.children(oldParent).filter((old) => this.taken[old]! < 0)
    const news = openNew()
    if (news.length === 0) return
    const byText = new Map<string, number[]>()
    for (const old of openOld().reverse()) {
      const known = byText.get(before.text(old))
      if (known) known.push(old)
      else byText.set(before.text(old), [old])
    }
    for (const now of news) {
      const old = byText.get(after.text(now))?.pop()
      if (old !== undefined) this.take(old, now)
    }
    if (retyped) this.pairRetyped(openOld(), openNew())
  }

  private pairRetyped(olds: readonly number[], news: readonly number[]): void {
    if (olds.length === 0 || news.length === 0) return
    if (olds.length * news.length <= MOST_COMPARED) {
      const pairs: { old: number; now: number; alike: number }[] = []
      for (const now of news)
        for (const old of olds) {
          const alike = likeness(this.before.text(old), this.after.text(now))
          if (alike >= ALIKE) pairs.push({ old, now, alike })
        }
      pairs.sort((a, b) => b.alike - a.alike || a.now - b.now || a.old - b.old)
      for (const { old, now } of pairs) if (this.isOpen(old, now)) this.take(old, now)
    }
    const [restOld, restNew] = [olds.filter((old) => this.taken[old]! < 0), news.filter((now) => this.of[now]! < 0)]
    if (restOld.length === restNew.length) for (const [i, now] of restNew.entries()) this.take(restOld[i]!, now)
  }
}

/** Earlier nodes by what makes them equal to later ones, in reading order. */
class Candidates<Key> {
  private readonly byKey = new Map<Key, { olds: number[]; from: number }>()

  constructor(size: number, keyOf: (old: number) => Key | null) {
    for (let old = 0; old < size; old++) {
      const key = keyOf(old)
      if (key === null) continue
      const known = this.byKey.get(key)
      if (known) known.olds.push(old)
      else this.byKey.set(key, { olds: [old], from: 0 })
    }
  }

  /** The first open one that is liked, among some; else the first open one; -1 where there is none. */
  best(key: Key, isOpen: (old: number) => boolean, isLiked: (old: number) => boolean): number {
    const known = this.byKey.get(key)
    if (!known) return -1
    while (known.from < known.olds.length && !isOpen(known.olds[known.from]!)) known.from++
    const end = Math.min(known.olds.length, known.from + MOST_LOOKED_AT)
    for (let i = known.from; i < end; i++) if (isOpen(known.olds[i]!) && isLiked(known.olds[i]!)) return known.olds[i]!
    return known.olds[known.from] ?? -1
  }
}

/** How many of several equal nodes are asked whether they fit better than the first. */
const MOST_LOOKED_AT = 64
/** How alike two texts must be to be one that was retyped: the part of letter pairs that they share. */
const ALIKE = 0.4
/** Most pairs that are compared at once. */
const MOST_COMPARED = 40_000
/** How much of a text is compared, in letters. */
const COMPARED_LETTERS = 200

/** Dice's coefficient over pairs of neighbouring letters, 0 to 1 (Dice, "Measures of the Amount of Ecologic Association", 1945). Of long texts the beginnings are compared. */
export function likeness(first: string, second: string): number {
  if (first === second) return 1
  const [a, b] = [first.slice(0, COMPARED_LETTERS), second.slice(0, COMPARED_LETTERS)]
  if (a.length < 2 || b.length < 2) return 0
  const pairs = new Map<string, number>()
  for (let i = 0; i < a.length - 1; i++) {
    const pair = a.slice(i, i + 2)
    pairs.set(pair, (pairs.get(pair) ?? 0) + 1)
  }
  let shared = 0
  for (let i = 0; i < b.length - 1; i++) {
    const pair = b.slice(i, i + 2)
    const left = pairs.get(pair) ?? 0
    if (left === 0) continue
    pairs.set(pair, left - 1)
    shared++
  }
  return (2 * shared) / (a.length + b.length - 2)
}
