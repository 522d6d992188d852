/** Texts longer than this, in letters, are no names; a name made of one is at most so long, and at least. */
const MOST = 100
const [MOST_OF_NAME, LEAST_OF_NAME] = [80, 12]

/**
 * A short name for a text: the text itself up to 100 letters; of a longer one its first sentence or clause of 12 to 80
 * letters, else as many whole words, with `…` behind it. Null where the text is short enough. Linear in the name.
 */
export function shortName(text: string): string | null {
  if (text.length <= MOST) return null
  const beginning = text.slice(0, MOST_OF_NAME + 1)
  const ends = [/[.!?:;](?=\s)/g, /,(?=\s)|\s[–—-](?=\s)/g, /\s/g]
  for (const end of ends) {
    const places = [...beginning.matchAll(end)].map(({ index }) => index).filter((at) => at >= LEAST_OF_NAME)
    // A sentence ends at its first end; of clauses and words there is room for several.
    const at = end === ends[0] ? places[0] : places.at(-1)
    if (at !== undefined) return `${beginning.slice(0, at).trim()}…`
  }
  // Not in the middle of a letter that takes two places.
  return `${beginning.slice(0, MOST_OF_NAME).replace(/[\uD800-\uDBFF]$/, '')}…`
}
