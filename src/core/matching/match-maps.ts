import { bestAssignment } from './assignment'
import { certainty, type Evidence, WORTH } from './evidence'
import type { Lexicon } from './lexicon'
import { NearTexts } from './near-texts'
import { type Compared, Comparison, comparedText, type TextLikeness, textLikeness } from './text-likeness'

/** A tree of texts, each parent before its children; the root's parent is -1. */
export interface TextTree {
  texts: readonly string[]
  parents: readonly number[]
}

export type MatchClass = 'same' | 'likely'

/** Two nodes that say the same, or likely do. */
export interface Match {
  a: number
  b: number
  class: MatchClass
  /** How sure it is that they say the same or likely so, and that they say the same; between 0 and 1. */
  sure: number
  sameSure: number
  evidence: Evidence
}

/** From here on two topics are called the same, or likely the same. */
const SAME = 0.6
const LIKELY = 0.07

/** Rounds in which agreement spreads over the trees; later ones change next to nothing. Fewer for large trees. */
const ROUNDS = 5
const ROUNDS_OF_LARGE = 3
/** Texts less alike than this are compared no further, unless they stand below a pair. */
const LEAST_TEXT = 0.25
/** Of parents that are less sure a pair than this, nobody asks what else hangs on them. */
const NO_PAIR = 0.1
/** Below pairs that are as sure as this, all children are compared with all. */
const LIKELY_PARENTS = 0.3
/** Up to so many pairs, all texts are compared with all. */
const ALL_PAIRS = 400_000
/** So many pairs are kept for each node of a large tree. */
const KEPT = 4
/** Of each node so many pairs are looked around. */
const SUREST = 1
/** And so many pairs for each node of large trees. */
const PAIRS_A_NODE = 40
/** Children of two topics are compared with one another up to so many pairs. */
const CHILD_PAIRS = 2_500

/** How much of two groups agrees: the part, its sum and the most it can be; of each node how sure its pair is. */
interface Agreement {
  part: number
  sum: number
  most: number
  ofA: ReadonlyMap<number, number>
  ofB: ReadonlyMap<number, number>
}

/** A pair that may be a match. */
interface Candidate extends TextLikeness {
  a: number
  b: number
  sure: number
}

/**
 * Which nodes of two trees say the same. Texts are compared by words, meaning and spelling; then agreement of parents,
 * children and siblings spreads over the trees until next to nothing changes (as in Melnik, Garcia-Molina and Rahm 2002,
 * Similarity flooding); then pairs are chosen one to one by the best total, within matched parents first. In reading order
 * of the first tree. O(n · m) for small trees, else O(n + m) times the number of near texts.
 */
export function matchMaps(first: TextTree, second: TextTree, lexicon: Lexicon): Match[] {
  const matching = new MapMatching(first, second, lexicon)
  matching.spread()
  return matching.choose()
}

const childrenOf = ({ parents }: TextTree): number[][] => {
  const children: number[][] = parents.map(() => [])
  parents.forEach((parent, node) => {
    if (parent >= 0) children[parent]!.push(node)
  })
  return children
}

function ordinalsOf(children: readonly (readonly number[])[]): Int32Array {
  const ordinals = new Int32Array(children.length)
  for (const row of children)
    row.forEach((node, i) => {
      ordinals[node] = i
    })
  return ordinals
}

const NONE: readonly Candidate[] = []

export class MapMatching {
  private readonly children: { a: number[][]; b: number[][] }
  private readonly texts: { a: Compared[]; b: Compared[] }
  /** Where each node stands among its siblings. */
  private readonly ordinals: { a: Int32Array; b: Int32Array }
  private readonly comparison: Comparison
  private readonly agreements = new Map<number, Agreement>()
  /** Texts that may still be compared: trees in which everything is alike would take all pairs. */
  private left: number
  /** Candidates of each node of the first tree, by the node of the second. */
  private readonly found: Map<number, Candidate>[]

  constructor(
    private readonly first: TextTree,
    private readonly second: TextTree,
    private readonly lexicon: Lexicon,
  ) {
    this.children = { a: childrenOf(first), b: childrenOf(second) }
    this.ordinals = { a: ordinalsOf(this.children.a), b: ordinalsOf(this.children.b) }
    this.texts = { a: first.texts.map(comparedText), b: second.texts.map(comparedText) }
    this.comparison = new Comparison([...this.texts.a, ...this.texts.b], lexicon)
    this.found = first.texts.map(() => new Map())
    this.left = ALL_PAIRS + PAIRS_A_NODE * (first.texts.length + second.texts.length)
    this.consider(0, 0, true)
    for (let a = 0; a < first.texts.length; a++) for (const b of this.nearTo(a)) this.consider(a, b)
  }

  /** The nodes of the second tree whose texts can be like one of the first. */
  private nearTo(a: number): Iterable<number> {
    if (this.areAllCompared) return this.second.texts.keys()
    this.near ??= new NearTexts(this.texts.b, this.lexicon)
    return this.near.to(this.texts.a[a]!)
  }
  private near: NearTexts | null = null

  private consider(a: number, b: number, always = false): void {
    if (this.found[a]!.has(b) || this.left <= 0) return
    const like = textLikeness(this.texts.a[a]!, this.texts.b[b]!, this.comparison)
    this.left--
    if (like.text >= LEAST_TEXT || always) this.found[a]!.set(b, { a, b, ...like, sure: like.text })
  }

  /** What stands below and above the pairs that are surest at each node, whatever the texts say. */
  private considerAround(): void {
    for (const [a, candidates] of this.found.entries()) {
      const surest = [...candidates.values()].filter(({ b, sure }) => sure >= LIKELY_PARENTS || a + b === 0)
      surest.sort((x, y) => y.sure - x.sure)
      for (const { b } of surest.slice(0, SUREST)) {
        const [parent, other] = [this.first.parents[a]!, this.second.parents[b]!]
        if (parent >= 0 && other >= 0) this.consider(parent, other, true)
        const [below, others] = [this.children.a[a]!, this.children.b[b]!]
        if (below.length * others.length > CHILD_PAIRS) continue
        for (const child of below) for (const otherChild of others) this.consider(child, otherChild, true)
      }
    }
  }

  private at(a: number, b: number): number {
    return this.found[a]?.get(b)?.sure ?? 0
  }

  spread(): void {
    const rounds = this.areAllCompared ? ROUNDS : ROUNDS_OF_LARGE
    for (let round = 0; round < rounds; round++) {
      this.considerAround()
      this.agreements.clear()
      const all = this.found.flatMap((candidates) => [...candidates.values()])
      const next = Float64Array.from(all, (candidate) => certainty(this.evidence(candidate), WORTH.pair))
      for (const [i, candidate] of all.entries()) candidate.sure = next[i]!
      this.agreements.clear()
      if (!this.areAllCompared) this.keepSurest()
    }
  }

  /** Leaves each node of a large tree the pairs that are surest: the others have next to no chance any more. */
  private keepSurest(): void {
    for (const candidates of this.found) {
      if (candidates.size <= KEPT) continue
      const surest = [...candidates.values()].sort((x, y) => y.sure - x.sure)
      for (const { b } of surest.slice(KEPT)) candidates.delete(b)
    }
  }

  private get areAllCompared(): boolean {
    return this.first.texts.length * this.second.texts.length <= ALL_PAIRS
  }

  /** All pairs that were considered, with what speaks for them. */
  *considered(): Generator<Candidate & { evidence: Evidence }> {
    for (const candidates of this.found)
      for (const candidate of candidates.values()) yield { ...candidate, evidence: this.evidence(candidate) }
  }

  private evidence({ a, b, text, spelling }: Candidate): Evidence {
    const [parent, other] = [this.first.parents[a]!, this.second.parents[b]!]
    const haveChildren = this.children.a[a]!.length > 0 && this.children.b[b]!.length > 0
    const children = haveChildren ? this.agreement(a, b).part : null
    if (parent < 0 || other < 0) {
      const areRoots = parent === other ? 1 : 0
      return { text, spelling, parents: areRoots, children, siblings: null, neighbours: areRoots }
    }
    const parents = this.pairSure(parent, other)
    const areSeveral = this.children.a[parent]!.length > 1 && this.children.b[other]!.length > 1
    const beside = parents >= NO_PAIR ? this.agreementBeside(parent, other, a, b) : 0
    const neighbours = (this.nextSure(a, b, -1, parents) + this.nextSure(a, b, 1, parents)) / 2
    return { text, spelling, parents, children, siblings: areSeveral ? beside : null, neighbours }
  }

  /** How sure the siblings a step from two nodes are a pair; where there is none at either, as sure as the parents. */
  private nextSure(a: number, b: number, step: number, parents: number): number {
    const next = this.children.a[this.first.parents[a]!]![this.ordinals.a[a]! + step]
    const other = this.children.b[this.second.parents[b]!]![this.ordinals.b[b]! + step]
    if (next === undefined || other === undefined) return next === other ? parents : 0
    return this.at(next, other)
  }

  /** Two roots stand for one another as what the maps are of, whatever they are called. */
  private pairSure(a: number, b: number): number {
    return a === 0 && b === 0 ? 1 : this.at(a, b)
  }

  /**
   * How much of what is below two nodes agrees: each child with the one most like it that is not taken, of as many as the
   * smaller group has. Kept until the next round.
   */
  private agreement(a: number, b: number): Agreement {
    const key = a * this.second.texts.length + b
    let known = this.agreements.get(key)
    if (!known) this.agreements.set(key, (known = this.agreementNow(this.children.a[a]!, this.children.b[b]!)))
    return known
  }

  private agreementNow(of: readonly number[], others: readonly number[]): Agreement {
    const among = new Set(others)
    const pairs: Candidate[] = []
    for (const a of of)
      for (const candidate of this.found[a]?.values() ?? NONE)
        if (among.has(candidate.b) && candidate.sure > 0.2) pairs.push(candidate)
    pairs.sort((x, y) => y.sure - x.sure)
    const [takenA, takenB] = [new Map<number, number>(), new Map<number, number>()]
    let sum = 0
    for (const { a, b, sure } of pairs) {
      if (takenA.has(a) || takenB.has(b)) continue
      takenA.set(a, sure)
      takenB.set(b, sure)
      sum += sure
    }
    const most = Math.min(of.length, others.length)
    return { part: sum / Math.max(1, most), sum, most, ofA: takenA, ofB: takenB }
  }

  /** The same for what stands beside a pair, without the two themselves. */
  private agreementBeside(parent: number, other: number, a: number, b: number): number {
    const { sum, most, ofA, ofB } = this.agreement(parent, other)
    const own = Math.max(ofA.get(a) ?? 0, ofB.get(b) ?? 0)
    return (sum - own) / Math.max(1, most - 1)
  }

  /** Pairs one to one: among children of matched parents by the best total, then across the trees. */
  choose(): Match[] {
    const takenA = new Set<number>()
    const takenB = new Set<number>()
    const chosen: Candidate[] = []
    const pairOf = new Map<number, number>()
    const take = (candidate: Candidate) => {
      takenA.add(candidate.a)
      takenB.add(candidate.b)
      chosen.push(candidate)
      pairOf.set(candidate.a, candidate.b)
    }
    const assign = (of: readonly number[], others: readonly number[]) => {
      const [rows, columns] = [of.filter((a) => !takenA.has(a)), others.filter((b) => !takenB.has(b))]
      if (rows.length === 0 || columns.length === 0) return
      const weights = rows.map((a) => Float64Array.from(columns, (b) => weightOf(this.at(a, b))))
      bestAssignment(weights).forEach((column, row) => {
        const candidate = column >= 0 ? this.found[rows[row]!]!.get(columns[column]!) : undefined
        if (candidate) take(candidate)
      })
    }
    // What is sure whatever stands around it goes first, so that branches that moved are not torn apart.
    const sureness = (candidate: Candidate) => candidate.sure + (this.children.a[candidate.a]!.length > 0 ? 0.001 : 0)
    const heads = this.found
      .flatMap((candidates) => [...candidates.values()])
      .filter(({ sure }) => sure >= LIKELY)
      .sort((x, y) => sureness(y) - sureness(x) || x.a - y.a)
    assign([0], [0])
    for (const { a, b } of heads) {
      const [below, others] = [this.children.a[a]!, this.children.b[b]!]
      if (below.length * others.length > 0 && below.length * others.length <= CHILD_PAIRS) {
        const isBest = !takenA.has(a) && !takenB.has(b)
        if (isBest || pairOf.get(a) === b) assign(below, others)
      }
    }
    for (const group of this.leftTogether(takenA, takenB)) assign(group.a, group.b)
    return chosen
      .filter(({ sure }) => sure >= LIKELY)
      .map((candidate): Match => {
        const { a, b, sure } = candidate
        const evidence = this.evidence(candidate)
        const sameSure = sure * certainty(evidence, WORTH.same)
        return { a, b, class: sameSure >= SAME ? 'same' : 'likely', sure, sameSure, evidence }
      })
      .sort((x, y) => x.a - y.a)
  }

  /** What is left, in groups between which nothing is alike; too large a group is taken apart at its weakest pairs. */
  private leftTogether(takenA: ReadonlySet<number>, takenB: ReadonlySet<number>): { a: number[]; b: number[] }[] {
    const left = this.found
      .flatMap((candidates) => [...candidates.values()])
      .filter(({ a, b, sure }) => sure >= LIKELY && !takenA.has(a) && !takenB.has(b))
      .sort((x, y) => y.sure - x.sure)
    const groupOf = new Map<string, { a: number[]; b: number[] }>()
    for (const { a, b } of left) {
      const [ofA, ofB] = [groupOf.get(`a${a}`), groupOf.get(`b${b}`)]
      const joined = ofA ?? ofB ?? { a: [], b: [] }
      if (!ofA && joined.a.length >= MOST_IN_GROUP) continue
      if (ofA && ofB && ofA !== ofB) {
        if (ofA.a.length + ofB.a.length > MOST_IN_GROUP) continue
        for (const each of ofB.a) groupOf.set(`a${each}`, ofA)
        for (const each of ofB.b) groupOf.set(`b${each}`, ofA)
        ofA.a.push(...ofB.a)
        ofA.b.push(...ofB.b)
        continue
      }
      if (!ofA) {
        joined.a.push(a)
        groupOf.set(`a${a}`, joined)
      }
      if (!ofB) {
        joined.b.push(b)
        groupOf.set(`b${b}`, joined)
      }
    }
    return [...new Set(groupOf.values())]
  }
}

const MOST_IN_GROUP = 200

/** A pair below what is likely pairs nothing; above, what is surer counts for more than two that are less so. */
const weightOf = (sure: number): number => (sure >= LIKELY ? sure : 0)
