/**
 * Texts as they are compared, in the terms of Unicode (The Unicode Standard, 3.13 "Default Case Algorithms"; Annex 15
 * "Normalization Forms"). There are three foldings and no others:
 *
 * | folding | two texts are equal when | for |
 * |---|---|---|
 * | identity | they differ in case, width or composition only | names that must be told apart: tags, saved looks |
 * | finding | they differ in accents and points too, where readers of the script leave these out | filters, search, matching, sorting |
 * | addresses | they differ in what stands between words too | parts of addresses |
 *
 * Signs that make another letter or word stay in all of them: vowel signs of Indic scripts, tone marks of Thai, the voicing
 * marks of kana. All are linear.
 */

/** Full case folding as far as lower case differs from it: sharp s, and the sigma at the end of words. */
const foldCase = (text: string): string => text.toLowerCase().replaceAll('ß', 'ss').replaceAll('ς', 'σ')

/** Compatibility composition, case folded, white space single: NFKC_Casefold but for what is ignored by default. */
export const foldForIdentity = (text: string): string =>
  foldCase(text.normalize('NFKC')).normalize('NFC').split(/\s+/).join(' ').trim()

/**
 * Marks that readers do without: accents of Latin, Greek and Cyrillic (combining marks of no script of their own), and the
 * points of Hebrew and Arabic. Not the voicing marks of kana (U+3099, U+309A).
 */
const OPTIONAL_MARKS =
  /(?=\p{Mn})[\p{Script=Inherited}\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Hebrew}\p{Script=Arabic}](?<![\u3099\u309a])/gu

export const foldForFinding = (text: string): string =>
  foldCase(text.normalize('NFKD').replace(OPTIONAL_MARKS, '').normalize('NFC'))

/** Letters, digits, and the marks that belong to them. */
const WORD = /[\p{L}\p{N}\p{M}]+/gu

/** The words of a text as they are found, in order. Scripts that are written without spaces give their runs. */
export const wordsForFinding = (text: string): string[] => foldForFinding(text).match(WORD) ?? []

/** Words joined by hyphens; empty for a text without letters and digits. */
export const foldForAddress = (text: string): string => wordsForFinding(text).join('-')

/** A text for sorting: folded as for finding, runs of digits by their value. Compared by code unit, not by locale. */
export const foldForSorting = (text: string): string =>
  foldForFinding(text).replace(/\d+/g, (digits) => digits.replace(/^0+(?=\d)/, '').padStart(12, '0'))
