/** Marks of CommonMark at the beginning of a line: headings, quotes, list items, task boxes. */
const LINE_MARKS = /^\s*(?:#{1,6}\s+|>\s?|[-*+]\s+(?:\[[ xX]\]\s+)?|\d{1,9}[.)]\s+)+/
const RULE = /^\s*(?:[-*_=]\s*){3,}$/
const FENCE = /^\s*(?:```|~~~)/
const TABLE_RULE = /^\s*\|?[-:|\s]+\|[-:|\s]*$/

/**
 * A line of a note as plain text, without its marks; empty for one that is nothing but marks. A light reading of CommonMark, not a parse;
 * quadratic in the line, which is short.
 */
function plainLine(line: string): string {
  if (RULE.test(line) || FENCE.test(line) || TABLE_RULE.test(line)) return ''
  return cellsApart(line)
    .replace(LINE_MARKS, '')
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
    .replace(/<(https?:[^>]*)>/g, '$1')
    .replace(/(\*\*|__|~~|`)/g, '')
    .replace(/(^|[^\p{L}\p{N}])[*_](\S(?:.*?\S)?)[*_](?![\p{L}\p{N}])/gu, '$1$2')
    .replace(/\\([!-/:-@[-`{-~])/g, '$1')
    .replace(ENTITY, (whole, name: string) => ENTITIES[name] ?? numbered(name) ?? whole)
    .trim()
}

/** References to characters as an editor of CommonMark writes them; others stay as they are. */
const ENTITY = /&(#x?[0-9a-fA-F]{1,6}|[a-z]{2,5});/g
const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: ' ' }

/** The character that a reference names by its number; null where there is none of it. */
function numbered(name: string): string | null {
  const code = name.startsWith('#x') ? Number.parseInt(name.slice(2), 16) : Number.parseInt(name.slice(1), 10)
  const isCharacter = name.startsWith('#') && code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff)
  return isCharacter ? String.fromCodePoint(code) : null
}

/** The cells of a row of a table, one after the other; any other line as it is. */
const cellsApart = (line: string): string =>
  /^\s*\|/.test(line)
    ? line
        .split('|')
        .map((cell) => cell.trim())
        .filter(Boolean)
        .join(', ')
    : line

/**
 * The first words of a note as plain text, at most `most` letters, without its marks: for showing it in little space.
 * Linear in the part that is read, but for lines of hundreds of marks.
 */
export function noteBeginning(note: string, most: number): string {
  let text = ''
  for (const line of note.slice(0, most * 4).split('\n')) {
    const plain = plainLine(line)
    if (plain !== '') text += (text === '' ? '' : ' ') + plain
    if (text.length > most) break
  }
  return text.length <= most ? text : `${cutAtSpace(text, most)}…`
}

/** So many letters of a note are read for an excerpt, before its first word and in all: addresses take room, and are not shown. */
export const EXCERPT_WINDOW = { before: 300, most: 900 }

/**
 * What is read of a note around the first of some words: plain text, whole words, at most `most` letters, of which `before` stand before that
 * word. `piece` is the note around it (`EXCERPT_WINDOW`), which may begin and end in the middle of a mark. Bounded by the piece.
 */
export function noteExcerpt(piece: string, words: readonly string[], before: number, most: number): string {
  // An address that is cut off at either end says nothing.
  const whole = piece.replace(/^[^\s()[\]]*\)/, '').replace(/(?:\[([^[\]]*))?\]\([^)\s]*$/, '$1')
  const plain = whole.split('\n').map(plainLine).filter(Boolean).join(' ')
  return excerpt(plain, words, before, most)
}

/** The same of a text that is plain already. */
export function excerpt(text: string, words: readonly string[], before: number, most: number): string {
  const lower = text.toLowerCase()
  const places = words.map((word) => lower.indexOf(word.toLowerCase())).filter((at) => at >= 0)
  const place = places.length > 0 ? Math.min(...places) : 0
  const start = Math.max(0, place - before)
  const space = text.indexOf(' ', start)
  // A text without spaces is cut where it is, so that the word is in what is told.
  const from = start === 0 || space < 0 || space >= place ? start : space + 1
  const rest = text.slice(from).toWellFormed()
  const cut = rest.length <= most ? rest : `${cutAtSpace(rest, most)}…`
  return from > 0 ? `…${cut}` : cut
}

function cutAtSpace(text: string, most: number): string {
  const cut = text.slice(0, most).toWellFormed()
  const space = cut.lastIndexOf(' ')
  return (space > most / 2 ? cut.slice(0, space) : cut).trimEnd()
}
