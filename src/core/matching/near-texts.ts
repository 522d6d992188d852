import type { Lexicon } from './lexicon'
import type { Compared } from './text-likeness'

/** So many near texts are given. */
const NEAREST = 8
/** What more texts than this have in common tells few of them from the others. */
const MOST_POSTINGS = 200
const NO_POSTINGS: readonly number[] = []

/** Finds, among many texts, those that have something rare in common with another one. */
export class NearTexts {
  private readonly index = new Map<string, number[]>()
  /** Of each text how much it has in common with the one that is looked at; 0 in between. */
  private readonly worth: Float64Array

  constructor(
    texts: readonly Compared[],
    private readonly lexicon: Lexicon,
  ) {
    this.worth = new Float64Array(texts.length)
    for (const [node, text] of texts.entries())
      for (const key of keysOf(text, lexicon)) {
        const known = this.index.get(key)
        if (known) known.push(node)
        else this.index.set(key, [node])
      }
  }

  /** The texts that have most in common with this one, the nearest first. O(its words times `MOST_POSTINGS`). */
  to(text: Compared): number[] {
    const { worth } = this
    const found: number[] = []
    for (const key of keysOf(text, this.lexicon)) {
      const postings = this.index.get(key) ?? NO_POSTINGS
      if (postings.length > MOST_POSTINGS) continue
      const weight = 1 / (1 + Math.log(postings.length))
      for (const node of postings) {
        if (worth[node] === 0) found.push(node)
        worth[node]! += weight
      }
    }
    found.sort((x, y) => worth[y]! - worth[x]!)
    for (const node of found) worth[node] = 0
    return found.slice(0, NEAREST)
  }
}

/** What a text is found by: itself, its numbers, and of its words the stems, the beginnings, the senses and the wider ones. */
function keysOf({ normal, numbers, words }: Compared, lexicon: Lexicon): Set<string> {
  const keys = new Set([`"${normal}`, ...numbers.map((number) => `#${number}`)])
  for (const { stem, folded } of words) {
    keys.add(`=${stem}`).add(`^${folded.slice(0, 4)}`)
    for (const sense of lexicon.sensesAround(stem)) keys.add(`~${sense}`)
  }
  return keys
}
