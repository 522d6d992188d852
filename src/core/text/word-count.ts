const SAYS = /[\p{L}\p{N}]/u

/** How many words a text has: runs of letters and digits between spaces, whatever else is in them; marks alone are none. Linear. */
export function countWords(text: string): number {
  let count = 0
  for (const [run] of text.matchAll(/\S+/g)) if (SAYS.test(run)) count++
  return count
}

/**
 * How many words a note has as it is read: addresses of its links, pictures, and the boxes of its tasks are none. A light reading of
 * CommonMark, not a parse. Linear.
 */
export const countNoteWords = (note: string): number =>
  countWords(withoutAddresses(note).replace(/^([ \t]*[-*+][ \t]+)\[[xX]\]/gm, '$1'))

function withoutAddresses(note: string): string {
  let read = ''
  let done = 0
  for (let at = note.indexOf(']('); at >= 0; at = note.indexOf('](', done)) {
    const end = note.indexOf(')', at)
    if (end < 0) break
    const before = note.slice(done, at)
    const picture = before.lastIndexOf('![')
    // Where it is a picture, nothing of its name is between the two.
    read += picture >= 0 && picture === before.lastIndexOf('[') - 1 ? before.slice(0, picture) : before
    done = end + 1
  }
  return read + note.slice(done)
}
