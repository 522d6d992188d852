/** FNV-1a over 32 bits (Fowler, Noll and Vo, 1991), begun from a number of our choice. */
function fnv1a(text: string, begin: number): number {
  let hash = begin
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16_777_619)
  return hash >>> 0
}

/**
 * A short sign of a text: equal for equal texts, and for others as good as never. It tells whether a text was changed, and guards
 * nothing: whoever wants to can find two texts with one sign. O(n).
 */
export const fingerprint = (text: string): string =>
  `${text.length.toString(36)}-${fnv1a(text, 2_166_136_261).toString(36)}-${fnv1a(text, 84_696_351).toString(36)}`
