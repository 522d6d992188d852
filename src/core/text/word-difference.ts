import { lineDifference } from './line-difference'

/** A piece of a text, and whether it is only there, not in the other one. */
export interface Piece {
  text: string
  isOwn: boolean
}

const words = (text: string): string[] => text.match(/\s+|[\p{L}\p{N}]+|[^\s\p{L}\p{N}]/gu) ?? []

/** Which words of two texts are only in one of them. Bounded as `lineDifference` is. */
export function wordDifference(a: string, b: string): [Piece[], Piece[]] {
  const [first, second] = [words(a), words(b)]
  const own = { a: new Set<number>(), b: new Set<number>() }
  for (const { oldStart, oldEnd, newStart, newEnd } of lineDifference(first, second)) {
    for (let i = oldStart; i < oldEnd; i++) own.a.add(i)
    for (let i = newStart; i < newEnd; i++) own.b.add(i)
  }
  const pieces = (all: readonly string[], only: ReadonlySet<number>): Piece[] => {
    const found: Piece[] = []
    all.forEach((text, i) => {
      const isOwn = only.has(i)
      const last = found.at(-1)
      if (last?.isOwn === isOwn) last.text += text
      else found.push({ text, isOwn })
    })
    return found
  }
  return [pieces(first, own.a), pieces(second, own.b)]
}
