/** Marks of CommonMark at the beginning of a line: headings, quotes, list items, task boxes. */
const LINE_MARKS = /^\s*(?:#{1,6}\s+|>\s?|[-*+]\s+(?:\[[ xX]\]\s+)?|\d{1,9}[.)]\s+)+/
const RULE = /^\s*(?:[-*_=]\s*){3,}$/
const FENCE = /^\s*(?:```|~~~)/

/**
 * The first words of a note as plain text, at most `most` letters, without its marks: for showing it in little space.
 * A light reading of CommonMark, not a parse; linear in the part that is read.
 */
export function noteBeginning(note: string, most: number): string {
  let text = ''
  for (const line of note.slice(0, most * 4).split('\n')) {
    if (RULE.test(line) || FENCE.test(line)) continue
    const plain = line
      .replace(LINE_MARKS, '')
      .replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
      .replace(/<(https?:[^>]*)>/g, '$1')
      .replace(/(\*\*|__|~~|`)/g, '')
      .replace(/(^|[^\p{L}\p{N}])[*_](\S(?:.*?\S)?)[*_](?![\p{L}\p{N}])/gu, '$1$2')
      .replace(/\\([!-/:-@[-`{-~])/g, '$1')
      .trim()
    if (plain !== '') text += (text === '' ? '' : ' ') + plain
    if (text.length > most) break
  }
  if (text.length <= most) return text
  const cut = text.slice(0, most).toWellFormed()
  const space = cut.lastIndexOf(' ')
  return `${(space > most / 2 ? cut.slice(0, space) : cut).trimEnd()}…`
}
