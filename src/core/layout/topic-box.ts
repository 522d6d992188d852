import { type Line, type Weight, wrapText } from '../text/measure'

/** How topics of a level are set: the root, the first level, and everything deeper. */
export interface TypeSize {
  size: number
  weight: Weight
  lineHeight: number
  maxWidth: number
  padX: number
  padY: number
}

const TYPE_SIZES: readonly [TypeSize, TypeSize, TypeSize] = [
  { size: 20, weight: 600, lineHeight: 26, maxWidth: 280, padX: 18, padY: 11 },
  { size: 17, weight: 600, lineHeight: 22, maxWidth: 230, padX: 9, padY: 4 },
  { size: 15, weight: 400, lineHeight: 20, maxWidth: 230, padX: 8, padY: 3 },
]

export const typeSizeAt = (level: number): TypeSize => TYPE_SIZES[level <= 0 ? 0 : level === 1 ? 1 : 2]

/** Text of a topic broken into lines, with the space it takes in px. */
export interface SetText {
  lines: readonly Line[]
  width: number
  height: number
}

const MIN_WIDTH = 24
/** Texts that are kept measured, so that a change of one topic measures one topic. */
const KEPT = 200_000
const kept = new Map<string, SetText>()

/**
 * Breaks and measures a topic's text as it is set on its level, in lines of at most `given` px where a width was given.
 * Texts measured before are remembered.
 */
export function setTopicText(text: string, level: number, given: number | null): SetText {
  const key = `${level <= 0 ? 0 : level === 1 ? 1 : 2} ${given ?? ''} ${text}`
  const known = kept.get(key)
  if (known) return known
  const type = typeSizeAt(level)
  const lines = wrapText(text, given ?? type.maxWidth, type.size, type.weight)
  let width = given ?? MIN_WIDTH
  for (const line of lines) width = Math.max(width, line.width)
  const set = { lines, width, height: lines.length * type.lineHeight }
  if (kept.size >= KEPT) kept.clear()
  kept.set(key, set)
  return set
}
