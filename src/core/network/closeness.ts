import { COMMON_WORDS } from '../matching/common-words'
import type { Lexicon } from '../matching/lexicon'
import { stemOf } from '../matching/stems'
import { wordsForFinding } from '../text/folding'

/** A text that may be close to others: what it is called, and what is written behind it. */
export interface Meaning {
  id: string
  text: string
  note: string
}

/** Two texts that are close in meaning, and the words that say so most. */
export interface Close {
  a: string
  b: string
  /** Between 0 and 1. */
  closeness: number
  shared: string[]
}

/** From here on texts are called close. */
const CLOSE = 0.5
/** What a word of a note counts beside one of the text itself. */
const IN_NOTE = 0.4
/** Of a word its stem, and the senses that other words here have too, count together as much as one that shares none. */
const [STEM, SENSE] = [0.6, 0.8]
/** Of a note so many letters are read. */
const READ = 2_000
/** What more texts than this have is no reason to compare them with one another. */
const MOST_POSTINGS = 150
/** Of each text so many close ones are told. */
const MOST_OF_EACH = 5
/** Words that are told as the reason. */
const MOST_SHARED = 3

/** Terms with their weights, of length 1; empty for what says too little. */
export type Vector = ReadonlyMap<string, number>

/** Texts as vectors of words, with a word for each term as it stands somewhere. */
export interface Vectors {
  vectors: readonly Vector[]
  uses: ReadonlyMap<string, number>
  formOf: ReadonlyMap<string, string>
}

/**
 * The words of texts, each as rare as it counts (TF-IDF; Salton and Buckley 1988, Term-weighting approaches), by stems, and by
 * senses for words that mean the same. Texts of fewer words than `least` and without a note have none. Linear in the words.
 */
export function vectorsOf(meanings: readonly Meaning[], lexicon: Lexicon, least: number): Vectors {
  const formOf = new Map<string, string>()
  const senses = sharedSenses(meanings, lexicon)
  const counted = meanings.map((meaning) => termsOf(meaning, senses, formOf, least))
  const uses = new Map<string, number>()
  for (const terms of counted) for (const term of terms.keys()) uses.set(term, (uses.get(term) ?? 0) + 1)
  return { vectors: counted.map((terms) => weighted(terms, uses, meanings.length)), uses, formOf }
}

/**
 * Pairs of texts that are close in meaning, the closest first: the cosine of their vectors. Texts of a single word are compared
 * with none. O(words of the texts times `MOST_POSTINGS`).
 */
export function closePairs(meanings: readonly Meaning[], lexicon: Lexicon): Close[] {
  const { vectors, uses, formOf } = vectorsOf(meanings, lexicon, 2)
  const postings = new Map<string, { at: number[]; weights: number[] }>()
  const found: Close[] = []
  const products = new Float64Array(meanings.length)
  for (const [b, vector] of vectors.entries()) {
    const met: number[] = []
    for (const [term, weight] of vector) {
      const others = postings.get(term)
      if (!others) continue
      others.at.forEach((a, i) => {
        if (products[a] === 0) met.push(a)
        products[a]! += weight * others.weights[i]!
      })
    }
    const near = met.filter((a) => products[a]! >= CLOSE).sort((x, y) => products[y]! - products[x]!)
    for (const a of near.slice(0, MOST_OF_EACH)) {
      const shared = sharedWords(vectors[a]!, vector, formOf)
      found.push({ a: meanings[a]!.id, b: meanings[b]!.id, closeness: Math.min(1, products[a]!), shared })
    }
    for (const a of met) products[a] = 0
    for (const [term, weight] of vector) {
      if (uses.get(term)! > MOST_POSTINGS) continue
      let others = postings.get(term)
      if (!others) postings.set(term, (others = { at: [], weights: [] }))
      others.at.push(b)
      others.weights.push(weight)
    }
  }
  return found.sort((x, y) => y.closeness - x.closeness)
}

const wordsOf = (text: string): string[] => wordsForFinding(text).filter((word) => !COMMON_WORDS.has(word))

/** Of the stems that come up, the senses that another stem has too, as terms: what no other word here means brings nothing together. */
function sharedSenses(meanings: readonly Meaning[], lexicon: Lexicon): ReadonlyMap<string, string[]> {
  const stems = new Set<string>()
  for (const { text, note } of meanings)
    for (const word of [...wordsOf(text), ...wordsOf(note.slice(0, READ))]) stems.add(stemOf(word))
  const having = new Map<number, number>()
  for (const stem of stems) for (const sense of lexicon.sensesOf(stem)) having.set(sense, (having.get(sense) ?? 0) + 1)
  const shared = new Map<string, string[]>()
  for (const stem of stems) {
    const own = lexicon.sensesOf(stem).filter((sense) => having.get(sense)! > 1)
    if (own.length > 0)
      shared.set(
        stem,
        own.map((sense) => `~${sense}`),
      )
  }
  return shared
}

/** How much a text has of each stem and each shared sense; nothing where it says too little. */
function termsOf(
  { text, note }: Meaning,
  senses: ReadonlyMap<string, string[]>,
  formOf: Map<string, string>,
  least: number,
): Vector {
  const terms = new Map<string, number>()
  const own = wordsOf(text)
  if (own.length < least && note === '') return terms
  const add = (term: string, word: string, worth: number) => {
    if (!formOf.has(term)) formOf.set(term, word)
    terms.set(term, (terms.get(term) ?? 0) + worth)
  }
  const addWord = (word: string, worth: number) => {
    const stem = stemOf(word)
    const meant = senses.get(stem)
    add(stem, word, meant ? worth * STEM : worth)
    for (const sense of meant ?? []) add(sense, word, (worth * SENSE) / Math.sqrt(meant!.length))
  }
  for (const word of own) addWord(word, 1)
  for (const word of wordsOf(note.slice(0, READ))) addWord(word, IN_NOTE)
  return terms
}

/** Terms by how rare they are, as a vector of length 1. */
function weighted(terms: Vector, uses: ReadonlyMap<string, number>, texts: number): Vector {
  const vector = new Map<string, number>()
  let square = 0
  for (const [term, count] of terms) {
    // A word that comes often counts for more, but not as many times; one of the note, or a sense, for its part.
    const often = count > 1 ? 1 + Math.log(count) : count
    const weight = often * Math.log(1 + texts / uses.get(term)!)
    vector.set(term, weight)
    square += weight * weight
  }
  for (const [term, weight] of vector) vector.set(term, weight / Math.sqrt(square))
  return vector
}

/** The words by which two vectors are close, those that say most first. */
export function sharedWords(a: Vector, b: Vector, formOf: ReadonlyMap<string, string>): string[] {
  const worth = new Map<string, number>()
  for (const [term, weight] of a) {
    const other = b.get(term)
    if (other === undefined) continue
    const word = formOf.get(term)!
    worth.set(word, (worth.get(word) ?? 0) + weight * other)
  }
  return [...worth]
    .sort((x, y) => y[1] - x[1])
    .slice(0, MOST_SHARED)
    .map(([word]) => word)
}
