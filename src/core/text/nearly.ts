/**
 * Whether two words are the same but for one typing mistake: a letter left out, put in, taken for another, or exchanged with
 * its neighbour (Damerau, "A Technique for Computer Detection and Correction of Spelling Errors", 1964). Words of up to three
 * letters must be equal. Linear.
 */
export function isNearly(a: string, b: string): boolean {
  if (a === b) return true
  if (Math.min(a.length, b.length) < 4 || Math.abs(a.length - b.length) > 1) return false
  let same = 0
  while (a[same] === b[same]) same++
  const restOf = (word: string, skipped: number) => word.slice(same + skipped)
  return (
    restOf(a, 1) === restOf(b, 1) ||
    restOf(a, 1) === restOf(b, 0) ||
    restOf(a, 0) === restOf(b, 1) ||
    (a[same] === b[same + 1] && a[same + 1] === b[same] && restOf(a, 2) === restOf(b, 2))
  )
}
