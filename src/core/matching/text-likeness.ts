import { foldForFinding, wordsForFinding } from '../text/folding'
import { COMMON_WORDS } from './common-words'
import type { Lexicon } from './lexicon'
import { normalText } from './normal-text'
import { stemOf } from './stems'

/** A text as it is compared. */
export interface Compared {
  /** Case, accents, punctuation and plurals aside. */
  normal: string
  /** Its words, as they are folded and as their stems; those that every text has left out where others remain. */
  words: readonly Word[]
  numbers: readonly string[]
  /** Whether it denies: not, no, without. */
  denies: boolean
}

interface Word {
  folded: string
  stem: string
}

const DENIALS = new Set(['not', 'no', 'non', 'without', 'never', 'dont', 'cannot'])
const NUMBER = /^\p{N}/u
/** Numbers that are written as words, by what they are worth. */
const NUMBER_WORDS = new Map(
  [
    ['one', 'first'],
    ['two', 'second'],
    ['three', 'third'],
    ['four', 'fourth'],
    ['five', 'fifth'],
    ['six', 'sixth'],
    ['seven', 'seventh'],
    ['eight', 'eighth'],
    ['nine', 'ninth'],
    ['ten', 'tenth'],
    ['eleven', 'eleventh'],
    ['twelve', 'twelfth'],
  ].flatMap((words, i) => words.map((word): [string, string] => [word, String(i + 1)])),
)

export function comparedText(text: string): Compared {
  const folded = wordsForFinding(foldForFinding(text).replace(/['’]/g, '')).map(
    (word) => NUMBER_WORDS.get(word) ?? word,
  )
  const words = folded.filter((word) => !NUMBER.test(word))
  const telling = words.filter((word) => !COMMON_WORDS.has(word))
  return {
    normal: normalText(text),
    words: (telling.length > 0 ? telling : words).map((word) => ({ folded: word, stem: stemOf(word) })),
    numbers: folded.filter((word) => NUMBER.test(word)).sort(),
    denies: words.some((word) => DENIALS.has(word)),
  }
}

/** How rare words are in the maps that are compared: what a word is worth. */
export class Rarity {
  private readonly counts = new Map<string, number>()
  constructor(private readonly texts: readonly Compared[]) {
    for (const { words } of texts)
      for (const stem of new Set(words.map((word) => word.stem)))
        this.counts.set(stem, (this.counts.get(stem) ?? 0) + 1)
  }
  /** The inverse document frequency of a stem (Spärck Jones 1972, A statistical interpretation of term specificity). */
  weight(stem: string): number {
    return Math.log(1 + this.texts.length / (this.counts.get(stem) ?? 1))
  }
}

/** Numbers that differ, denial on one side, opposites: what is left of a likeness then. */
const OTHER_NUMBERS = 0.35
const ONE_NUMBER = 0.85
const DENIED = 0.5
const OPPOSITE = 0.3
/** Less than this is no likeness between words. */
const LEAST = 0.5

/** How alike two texts are; each between 0 and 1. */
export interface TextLikeness {
  /** By spelling, meaning and abbreviation. */
  text: number
  /** By spelling alone. */
  spelling: number
}

const NOTHING: TextLikeness = { text: 0, spelling: 0 }
const ALL: TextLikeness = { text: 1, spelling: 1 }

/**
 * How alike two texts are: their words are paired one to one, the most alike first, each worth as much as it is rare (soft
 * TF-IDF: Cohen, Ravikumar and Fienberg 2003, A comparison of string metrics for matching names and records). Words are
 * alike by stem, by meaning, by spelling, or as a word and its abbreviation; word order is nothing.
 */
export function textLikeness(a: Compared, b: Compared, rarity: Rarity, lexicon: Lexicon): TextLikeness {
  if (a.normal !== '' && a.normal === b.normal) return ALL
  if (a.words.length === 0 || b.words.length === 0) return NOTHING
  if (areInitials(a, b) || areInitials(b, a)) return { text: 0.9, spelling: 0.5 }
  const pairs: WordPair[] = []
  let areOpposite = false
  for (const [i, one] of a.words.entries())
    for (const [j, other] of b.words.entries()) {
      if (lexicon.areOpposite(one.stem, other.stem)) areOpposite = true
      const spelling = spellingLikeness(one, other)
      const text = Math.max(spelling, lexicon.nearness(one.stem, other.stem))
      if (text >= LEAST) pairs.push({ i, j, text, spelling })
    }
  const worth = (text: Compared) => text.words.reduce((sum, { stem }) => sum + rarity.weight(stem), 0)
  const all = worth(a) + worth(b)
  let left = 1
  if (a.numbers.join(' ') !== b.numbers.join(' '))
    left *= a.numbers.length > 0 && b.numbers.length > 0 ? OTHER_NUMBERS : ONE_NUMBER
  if (a.denies !== b.denies) left *= DENIED
  if (areOpposite) left *= OPPOSITE
  const shared = (of: 'text' | 'spelling') => (left * sharedWorth(pairs, of, a, b, rarity)) / all
  return { text: shared('text'), spelling: shared('spelling') }
}

interface WordPair {
  i: number
  j: number
  text: number
  spelling: number
}

/** What words are worth that are paired one to one, the most alike first. */
function sharedWorth(pairs: WordPair[], by: 'text' | 'spelling', a: Compared, b: Compared, rarity: Rarity): number {
  const [pairedA, pairedB] = [new Set<number>(), new Set<number>()]
  let shared = 0
  for (const { i, j, [by]: like } of pairs.sort((x, y) => y[by] - x[by])) {
    if (like < LEAST || pairedA.has(i) || pairedB.has(j)) continue
    pairedA.add(i)
    pairedB.add(j)
    shared += like * (rarity.weight(a.words[i]!.stem) + rarity.weight(b.words[j]!.stem))
  }
  return shared
}

const SHORTEST_TYPO = 4

function spellingLikeness(a: Word, b: Word): number {
  if (a.stem === b.stem) return 1
  const [short, long] = a.folded.length < b.folded.length ? [a.folded, b.folded] : [b.folded, a.folded]
  // A word cut short: info, dept, approx.
  if (short.length >= 3 && long.startsWith(short) && long.length - short.length >= 2) return 0.75
  if (short.length >= 3 && long.length >= 6 && isSkeleton(short, long)) return 0.7
  if (short.length < SHORTEST_TYPO) return 0
  const like = trigramLikeness(a.folded, b.folded)
  return like >= 0.45 ? 0.45 + like / 2 : 0
}

/** Whether a word is another one without vowels: mgmt, dept, bldg. */
function isSkeleton(short: string, long: string): boolean {
  if (/[aeiou]/.test(short.slice(1)) || short[0] !== long[0] || short.at(-1) !== long.at(-1)) return false
  let at = 0
  for (const letter of long) if (letter === short[at]) at++
  return at === short.length
}

/** Whether one text has a word that is the initials of words of the other that follow one another. */
function areInitials(a: Compared, b: Compared): boolean {
  if (b.words.length < 2) return false
  const initials = b.words.map(({ folded }) => folded[0]).join('')
  return a.words.length === 1 && a.words[0]!.folded.length >= 2 && a.words[0]!.folded === initials
}

const trigrams = (word: string): Set<string> => {
  const padded = `  ${word} `
  const found = new Set<string>()
  for (let i = 0; i + 3 <= padded.length; i++) found.add(padded.slice(i, i + 3))
  return found
}

/** The share of runs of three letters that two words have in common (Dice). */
function trigramLikeness(a: string, b: string): number {
  const [of, others] = [trigrams(a), trigrams(b)]
  let shared = 0
  for (const gram of of) if (others.has(gram)) shared++
  return (2 * shared) / (of.size + others.size)
}

/** Words of two texts that are not the same but mean it, or are meant by it: `costs ≈ expenses`. */
export function nearWords(a: Compared, b: Compared, lexicon: Lexicon): string[] {
  const shared = new Set(a.words.map(({ stem }) => stem).filter((stem) => b.words.some((word) => word.stem === stem)))
  return a.words.flatMap((one) => {
    if (shared.has(one.stem)) return []
    const other = b.words.find(
      (word) =>
        !shared.has(word.stem) && Math.max(spellingLikeness(one, word), lexicon.nearness(one.stem, word.stem)) >= LEAST,
    )
    return other ? `${one.folded} ≈ ${other.folded}` : []
  })
}
