import { wordsForFinding } from '../text/folding'

/**
 * A text as it is compared: case, accents, punctuation, repeated space and a plain plural aside.
 * Two topics are called the same when these are equal and not empty.
 */
export const normalText = (text: string): string => wordsForFinding(text).map(singular).join(' ')

/** English plurals only, and only where taking the ending away leaves a word: buses, cities, ditches, plants. */
function singular(word: string): string {
  if (word.length < 4 || /(ss|us|is)$/.test(word)) return word
  if (word.endsWith('ies') && word.length > 4) return `${word.slice(0, -3)}y`
  if (/(s|x|z|ch|sh)es$/.test(word)) return word.slice(0, -2)
  return word.endsWith('s') ? word.slice(0, -1) : word
}
