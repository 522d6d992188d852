import { MOST_PASSAGE } from '../formats/own-address'
import { foldForFinding } from './folding'

const WORD = /[\p{L}\p{N}\p{M}]+/gu

/** Where words stand in a text, in UTF-16 code units. */
export interface Span {
  from: number
  to: number
}

/**
 * The first place in a text where the words of a passage stand one after the other, whatever stands between them and however they are
 * written in case and accents; null where they do not. Linear in both (Knuth, Morris, Pratt 1977).
 */
export function findPassage(text: string, passage: string): Span | null {
  const wanted = [...passage.matchAll(WORD)].map(([word]) => foldForFinding(word))
  if (wanted.length === 0) return null
  const back = fallbacks(wanted)
  const starts: number[] = []
  let met = 0
  for (const { 0: word, index } of text.matchAll(WORD)) {
    const folded = foldForFinding(word)
    while (met > 0 && wanted[met] !== folded) met = back[met - 1]!
    if (wanted[met] === folded) met++
    starts.push(index)
    if (met === wanted.length) return { from: starts[starts.length - wanted.length]!, to: index + word.length }
  }
  return null
}

/** For each beginning of the words, the length of the longest shorter one that it ends with. */
function fallbacks(words: readonly string[]): number[] {
  const back = [0]
  for (let i = 1, met = 0; i < words.length; i++) {
    while (met > 0 && words[met] !== words[i]) met = back[met - 1]!
    if (words[met] === words[i]) met++
    back.push(met)
  }
  return back
}

/** The beginning of words as it stands in an address: whole words, no more than an address takes; empty where there are none. */
export function passageOf(words: string): string {
  let passage = ''
  for (const [word] of words.toWellFormed().matchAll(WORD)) {
    const longer = passage === '' ? word : `${passage} ${word}`
    if (longer.length > MOST_PASSAGE) break
    passage = longer
  }
  return passage
}
