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

/** So many words of a text are compared: a topic is a short text, and what comes later in a long one tells little of it. */
const MOST_WORDS = 40

export function comparedText(text: string): Compared {
  const folded = wordsForFinding(foldForFinding(text).replace(/['’]/g, '')).map(
    (word) => NUMBER_WORDS.get(word) ?? word,
  )
  const words = folded.filter((word) => !NUMBER.test(word))
  const telling = words.filter((word) => !COMMON_WORDS.has(word))
  return {
    normal: normalText(text),
    words: (telling.length > 0 ? telling : words)
      .slice(0, MOST_WORDS)
      .map((word) => ({ folded: word, stem: stemOf(word) })),
    numbers: folded
      .filter((word) => NUMBER.test(word))
      .slice(0, MOST_WORDS)
      .sort(),
    denies: words.some((word) => DENIALS.has(word)),
  }
}

/** How alike two words are, and whether they mean opposites. */
interface WordLikeness extends TextLikeness {
  areOpposite: boolean
}

/** What texts are compared with: how rare words are among them, and how alike words are, each pair of words looked at once. */
export class Comparison {
  private readonly weights = new Map<string, number>()
  private readonly numbers = new Map<string, number>()
  private readonly known = new Map<number, WordLikeness>()

  constructor(
    texts: readonly Compared[],
    readonly lexicon: Lexicon,
  ) {
    const counts = new Map<string, number>()
    for (const { words } of texts) {
      for (const stem of new Set(words.map((word) => word.stem))) counts.set(stem, (counts.get(stem) ?? 0) + 1)
      for (const { folded } of words) if (!this.numbers.has(folded)) this.numbers.set(folded, this.numbers.size)
    }
    for (const [stem, count] of counts) this.weights.set(stem, Math.log(1 + texts.length / count))
  }

  /** The inverse document frequency of a stem (Spärck Jones 1972, A statistical interpretation of term specificity). */
  weight(stem: string): number {
    return this.weights.get(stem) ?? 1
  }

  words(a: Word, b: Word): WordLikeness {
    const key = (this.numbers.get(a.folded) ?? 0) * this.numbers.size + (this.numbers.get(b.folded) ?? 0)
    let known = this.known.get(key)
    if (!known) this.known.set(key, (known = wordLikeness(a, b, this.lexicon)))
    return known
  }
}

function wordLikeness(a: Word, b: Word, lexicon: Lexicon): WordLikeness {
  const areOpposite = lexicon.areOpposite(a.stem, b.stem)
  const spelling = spellingLikeness(a, b)
  return { areOpposite, spelling, text: Math.max(spelling, lexicon.nearness(a.stem, b.stem)) }
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
export function textLikeness(a: Compared, b: Compared, comparison: Comparison): TextLikeness {
  if (a.normal !== '' && a.normal === b.normal) return ALL
  if (a.words.length === 0 || b.words.length === 0) return NOTHING
  if (areInitials(a, b) || areInitials(b, a)) return { text: 0.9, spelling: 0.5 }
  const pairs: WordPair[] = []
  let areOpposite = false
  for (const [i, one] of a.words.entries())
    for (const [j, other] of b.words.entries()) {
      const { text, spelling, ...like } = comparison.words(one, other)
      if (like.areOpposite) areOpposite = true
      if (text >= LEAST) pairs.push({ i, j, text, spelling })
    }
  if (pairs.length === 0) return NOTHING
  const worth = (text: Compared) => text.words.reduce((sum, { stem }) => sum + comparison.weight(stem), 0)
  const all = worth(a) + worth(b)
  let left = 1
  if (a.numbers.join(' ') !== b.numbers.join(' '))
    left *= a.numbers.length > 0 && b.numbers.length > 0 ? OTHER_NUMBERS : ONE_NUMBER
  if (a.denies !== b.denies) left *= DENIED
  if (areOpposite) left *= OPPOSITE
  const shared = (of: 'text' | 'spelling') => (left * sharedWorth(pairs, of, a, b, comparison)) / all
  return { text: shared('text'), spelling: shared('spelling') }
}

interface WordPair {
  i: number
  j: number
  text: number
  spelling: number
}

/** What words are worth that are paired one to one, the most alike first. */
function sharedWorth(
  pairs: WordPair[],
  by: 'text' | 'spelling',
  a: Compared,
  b: Compared,
  comparison: Comparison,
): number {
  const [pairedA, pairedB] = [new Set<number>(), new Set<number>()]
  let shared = 0
  for (const { i, j, [by]: like } of pairs.sort((x, y) => y[by] - x[by])) {
    if (like < LEAST || pairedA.has(i) || pairedB.has(j)) continue
    pairedA.add(i)
    pairedB.add(j)
    shared += like * (comparison.weight(a.words[i]!.stem) + comparison.weight(b.words[j]!.stem))
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

/** Whether a word is made of letters of another one, from its first to its last: mgmt, dept, bldg. */
function isSkeleton(short: string, long: string): boolean {
  if (short.length > 5 || long.length < 2 * short.length) return false
  if (short[0] !== long[0] || (short.at(-1) !== long.at(-1) && short.at(-1) !== long.replace(/s$/, '').at(-1)))
    return false
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
