import type { Lexicon } from '../matching/lexicon'
import { sharedWords, type Vector, type Vectors, vectorsOf } from '../network/closeness'

/** A text on the sorting table. */
export interface Sorted {
  id: string
  text: string
}

/** A band as it is compared: its title and the items in it. */
export interface SortedBand extends Sorted {
  items: readonly string[]
}

export interface Suggestions {
  /** Items that speak of the same, those that hang together most first; an item is in one of them at most. */
  bands: { items: string[]; words: string[] }[]
  /** Items that fit a band that is there already. */
  homes: { item: string; band: string; words: string[] }[]
  /** Bands that belong under one heading. */
  headings: { bands: string[]; words: string[] }[]
}

/** From here on, on average over their pairs, texts speak of the same; and an item of what a band does. */
const ALIKE = 0.16
const AT_HOME = 0.22
/** A band is suggested for so many items. */
const LEAST = 2
/** Of each text so many letters are read: of long ones that all say the same, every word would be compared with every other. */
const READ = 300
/** Words that are told as the reason. */
const WORDS = 3
/** Of what was poured out, so much is compared: 2,000 take about half a second. */
export const MOST_SORTED = 2_000

/**
 * What the words of items and bands suggest. Items are grouped by average linkage on the cosine of their words (UPGMA; Sokal
 * and Michener 1958, A statistical method for evaluating systematic relationships), merged nearest neighbours first. O(n²).
 */
export function suggest(items: readonly Sorted[], bands: readonly SortedBand[], lexicon: Lexicon): Suggestions {
  const pool = items.slice(0, MOST_SORTED)
  const meanings = [
    ...pool.map(({ id, text }) => ({ id, text: text.slice(0, READ), note: '' })),
    ...bands.map(({ id, text, items: inside }) => ({ id, text: text.slice(0, READ), note: inside.join('\n') })),
  ]
  const all = vectorsOf(meanings, lexicon, 1)
  const ofItems = all.vectors.slice(0, pool.length)
  const ofBands = all.vectors.slice(pool.length)
  const groupsOf = (vectors: readonly Vector[], ids: readonly string[]) =>
    linked(vectors).map((group) => ({
      ids: group.map((i) => ids[i]!),
      words: wordsOfMost(
        group.map((i) => vectors[i]!),
        all,
      ),
    }))
  const homes = ofItems.flatMap((vector, i) => {
    const near = ofBands.map((band, at) => ({ at, likeness: cosine(vector, band) }))
    const best = near.reduce((a, b) => (b.likeness > a.likeness ? b : a), { at: -1, likeness: AT_HOME })
    if (best.at < 0) return []
    return [{ item: pool[i]!.id, band: bands[best.at]!.id, words: sharedWords(vector, ofBands[best.at]!, all.formOf) }]
  })
  return {
    bands: groupsOf(
      ofItems,
      pool.map(({ id }) => id),
    ).map(({ ids, words }) => ({ items: ids, words })),
    homes,
    headings: groupsOf(
      ofBands,
      bands.map(({ id }) => id),
    ).map(({ ids, words }) => ({ bands: ids, words })),
  }
}

function cosine(a: Vector, b: Vector): number {
  let product = 0
  for (const [term, weight] of a.size < b.size ? a : b) product += weight * ((a.size < b.size ? b : a).get(term) ?? 0)
  return product
}

/** Groups of vectors by average linkage, the closest first. Chains of nearest neighbours (Murtagh 1983) keep it at O(n²). */
function linked(vectors: readonly Vector[]): number[][] {
  const count = vectors.length
  const likeness = new Float32Array(count * count)
  const postings = new Map<string, { at: number; weight: number }[]>()
  vectors.forEach((vector, b) => {
    for (const [term, weight] of vector) {
      const others = postings.get(term)
      if (!others) postings.set(term, [{ at: b, weight }])
      else {
        for (const { at, weight: other } of others) {
          likeness[at * count + b]! += weight * other
          likeness[b * count + at]! += weight * other
        }
        others.push({ at: b, weight })
      }
    }
  })
  const groups = new Map<number, { members: number[]; likeness: number }>()
  for (let i = 0; i < count; i++) groups.set(i, { members: [i], likeness: 1 })
  const chain: number[] = []
  const open = new Set(groups.keys())
  while (open.size > 0) {
    if (chain.length === 0) chain.push(open.values().next().value!)
    const last = chain.at(-1)!
    const before = chain.at(-2)
    let nearest = -1
    let best = ALIKE
    for (const other of open) {
      if (other === last) continue
      const alike = likeness[last * count + other]!
      if (alike > best || (alike === best && other === before)) {
        nearest = other
        best = alike
      }
    }
    if (nearest < 0) {
      // Nothing is near enough: this group stays as it is.
      open.delete(last)
      chain.pop()
    } else if (nearest === before) {
      chain.length -= 2
      const [a, b] = [groups.get(last)!, groups.get(nearest)!]
      const [m, n] = [a.members.length, b.members.length]
      for (const other of open) {
        const average = (m * likeness[last * count + other]! + n * likeness[nearest * count + other]!) / (m + n)
        likeness[last * count + other] = average
        likeness[other * count + last] = average
      }
      groups.set(last, { members: [...a.members, ...b.members], likeness: best })
      groups.delete(nearest)
      open.delete(nearest)
    } else chain.push(nearest)
  }
  return [...groups.values()]
    .filter(({ members }) => members.length >= LEAST)
    .sort((a, b) => b.likeness * Math.sqrt(b.members.length) - a.likeness * Math.sqrt(a.members.length))
    .map(({ members }) => members.sort((a, b) => a - b))
}

/** The words that most of some texts have, those that say most first. */
function wordsOfMost(vectors: readonly Vector[], { formOf }: Vectors): string[] {
  const worth = new Map<string, { sum: number; count: number }>()
  for (const vector of vectors)
    for (const [term, weight] of vector) {
      const word = formOf.get(term)!
      const known = worth.get(word) ?? { sum: 0, count: 0 }
      worth.set(word, { sum: known.sum + weight, count: known.count + 1 })
    }
  return [...worth]
    .filter(([, { count }]) => count >= 2)
    .sort((a, b) => b[1].sum - a[1].sum)
    .slice(0, WORDS)
    .map(([word]) => word)
}
