import { diff3Merge } from 'node-diff3'

/**
 * Joins two texts that were both made from `base`, line by line. Where both changed the same or touching lines, both
 * versions are kept, `mine` after `theirs`, so that nobody's words are lost.
 * Source of the method: Khanna, Kunal, Pierce, "A Formal Investigation of Diff3", 2007.
 */
export function mergeText(base: string, theirs: string, mine: string): { text: string; overlapping: boolean } {
  if (theirs === base || theirs === mine) return { text: mine, overlapping: false }
  if (mine === base) return { text: theirs, overlapping: false }
  const lines: string[] = []
  let overlapping = false
  for (const region of diff3Merge(theirs.split('\n'), base.split('\n'), mine.split('\n'), {
    excludeFalseConflicts: true,
  })) {
    if (region.ok) lines.push(...region.ok)
    else if (region.conflict) {
      overlapping = true
      lines.push(...region.conflict.a, '', ...region.conflict.b)
    }
  }
  return { text: lines.join('\n'), overlapping }
}
