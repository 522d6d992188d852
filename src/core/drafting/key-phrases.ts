import { foldForFinding } from '../text/folding'

/** English words that carry no matter by themselves. */
const STOP_WORDS = new Set(
  `a about above after again all also am an and any are as at be because been before being below between both but by can
  could did do does doing down during each few for from further get gets had has have having he her here hers him his how
  i if in into is it its just let like made make makes many may me might more most much must my need needs no nor not now
  of off on once one only or other our out over own per please put same shall she should since so some such than that the
  their them then there these they this those through to too two under until up upon us use very was we were what when
  where whether which while who whom why will with within without would yet you your`.split(/\s+/),
)

const isStopWord = (word: string): boolean => STOP_WORDS.has(word.toLowerCase())

const WORD = /[\p{L}\p{N}][\p{L}\p{N}'’-]*/gu

/** The words of a text as they are compared: in lower case, without the endings of plurals. */
export const stem = (word: string): string => {
  const lower = foldForFinding(word).replace(/['’]s$/, '')
  if (lower.length > 4 && lower.endsWith('ies')) return `${lower.slice(0, -3)}y`
  if (lower.length > 3 && lower.endsWith('s') && !lower.endsWith('ss')) return lower.slice(0, -1)
  return lower
}

/** The words that carry matter in a text, as stems, each once. */
export const contentWords = (text: string): string[] => [
  ...new Set((text.match(WORD) ?? []).filter((word) => !isStopWord(word)).map(stem)),
]

export interface KeyPhrase {
  text: string
  stems: readonly string[]
}

/** How many phrases are told apart; those that a long text brings later can only be chance. */
const MOST_PHRASES = 60_000

/** Longest phrase, in words. */
const LONGEST = 3

/** Runs of words between stop words and punctuation, as they stand in the text. */
function* runsIn(text: string): Generator<string[]> {
  for (const part of text.split(/[^\p{L}\p{N}'’\s-]+/u)) {
    let run: string[] = []
    for (const word of part.match(WORD) ?? []) {
      if (isStopWord(word) || /^\d+$/.test(word)) {
        if (run.length > 0) yield run
        run = []
      } else run.push(word)
    }
    if (run.length > 0) yield run
  }
}

/**
 * The phrases that say what a text is about, best first, at most `most`, none sharing a half of its words with a better
 * one. Linear in the text, but for sorting its phrases.
 *
 * Source: Frantzi, Ananiadou and Mima, "Automatic Recognition of Multi-Word Terms: the C-value/NC-value Method", 2000:
 * a phrase counts with its length and its frequency. Single words are candidates too, so the logarithm is taken of the
 * length and one; what stands inside a better phrase is left out rather than discounted; and phrases that stand only
 * once, most of them chance, count half.
 */
export function keyPhrases(text: string, most: number): KeyPhrase[] {
  const found = new Map<string, KeyPhrase & { count: number }>()
  for (const run of runsIn(text)) {
    const stems = run.map(stem)
    for (let from = 0; from < run.length; from++)
      for (let to = from + 1; to <= Math.min(run.length, from + LONGEST); to++) {
        const key = stems.slice(from, to).join(' ')
        const known = found.get(key)
        if (known) known.count++
        else if (found.size < MOST_PHRASES)
          found.set(key, { text: run.slice(from, to).join(' '), stems: stems.slice(from, to), count: 1 })
      }
  }
  const value = ({ stems, count }: KeyPhrase & { count: number }) =>
    Math.log2(stems.length + 1) * (count > 1 ? count : 0.5)
  // Sorting is stable: of equal ones that which stands first in the text comes first.
  const ordered = [...found.values()].sort((a, b) => value(b) - value(a))
  const chosen: KeyPhrase[] = []
  for (const { text: words, stems } of ordered) {
    if (chosen.length >= most) break
    if (words.length < 3) continue
    const shared = (other: KeyPhrase) => stems.filter((word) => other.stems.includes(word)).length
    if (chosen.some((other) => 2 * shared(other) >= Math.min(stems.length, other.stems.length))) continue
    chosen.push({ text: words, stems })
  }
  return chosen
}
