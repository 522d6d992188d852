const SAYS = /[\p{L}\p{N}]/u

/** How many words a text has: runs of letters and digits between spaces, whatever else is in them; marks alone are none. Linear. */
export function countWords(text: string): number {
  let count = 0
  for (const [run] of text.matchAll(/\S+/g)) if (SAYS.test(run)) count++
  return count
}

/**
 * How many words a note has as it is read: addresses of its links and pictures are none. A light reading of CommonMark, not a parse.
 * Linear.
 */
export const countNoteWords = (note: string): number => countWords(withoutAddresses(note))

function withoutAddresses(note: string): string {
  let read = ''
  let done = 0
  for (let at = note.indexOf(']('); at >= 0; at = note.indexOf('](', done)) {
    const end = note.indexOf(')', at)
    if (end < 0) break
    read += note.slice(done, at)
    done = end + 1
  }
  return read + note.slice(done)
}
