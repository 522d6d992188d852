import { px } from './drawing'

/** How far a line drawn by hand strays, in px, and the length from which it strays that far. */
const STRAY = 2.4
const FULL_LENGTH = 50

/** Numbers from 0 to 1 that look random and are the same for the same seed (mulberry32 on a hash of the seed). */
function wavering(seed: string): () => number {
  let state = 2_166_136_261
  for (let i = 0; i < seed.length; i++) state = Math.imul(state ^ seed.charCodeAt(i), 16_777_619)
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}

interface Point {
  x: number
  y: number
}

function wavyLine(from: Point, to: Point, next: () => number): string {
  const stray = STRAY * Math.min(1, Math.hypot(to.x - from.x, to.y - from.y) / FULL_LENGTH)
  const off = () => (next() - 0.5) * 2 * stray
  const at = (part: number) =>
    `${px(from.x + (to.x - from.x) * part + off())} ${px(from.y + (to.y - from.y) * part + off())}`
  return `C${at(0.33)} ${at(0.66)} ${px(to.x + off() / 2)} ${px(to.y + off() / 2)}`
}

/**
 * A path of M, H, V, L, C and Z with absolute coordinates as a hand would draw it: straight parts waver a little, and
 * always in the same way for the same seed. Curves stay as they are.
 */
export function sketched(path: string, seed: string): string {
  const next = wavering(seed)
  let drawn = ''
  let at: Point = { x: 0, y: 0 }
  let start = at
  const lineTo = (to: Point) => {
    drawn += wavyLine(at, to, next)
    at = to
  }
  for (const [, letter, rest] of path.matchAll(/([MHVLCZ])([^MHVLCZ]*)/g)) {
    const numbers = (rest!.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number)
    switch (letter) {
      case 'M':
        at = { x: numbers[0]!, y: numbers[1]! }
        start = at
        drawn += `M${px(at.x)} ${px(at.y)}`
        break
      case 'H':
        lineTo({ x: numbers[0]!, y: at.y })
        break
      case 'V':
        lineTo({ x: at.x, y: numbers[0]! })
        break
      case 'L':
        lineTo({ x: numbers[0]!, y: numbers[1]! })
        break
      case 'C':
        drawn += `C${numbers.map(px).join(' ')}`
        at = { x: numbers[4]!, y: numbers[5]! }
        break
      default:
        lineTo(start)
    }
  }
  return drawn
}
