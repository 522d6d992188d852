/**
 * A text without those of some signs with which it ends. Linear, unlike a pattern that ends in `+$`, which looks at the rest
 * of a run again for each of its signs.
 */
export function trimEndOf(text: string, signs: string): string {
  let end = text.length
  while (end > 0 && signs.includes(text[end - 1]!)) end--
  return text.slice(0, end)
}
