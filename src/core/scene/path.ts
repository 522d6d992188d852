import type { Point } from '../ways/way'
import { px } from './drawing'

/** How many numbers each command of a path takes; SVG 2, 9.3. */
const TAKES: Record<string, number> = { m: 2, l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, a: 7, z: 0 }
const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gy

interface Command {
  letter: string
  numbers: number[]
}

/** The numbers of an arc's flags can stand without space: they are read one by one. */
function numbersIn(text: string, letter: string): number[] {
  const takes = TAKES[letter.toLowerCase()]!
  const numbers: number[] = []
  let at = 0
  while (at < text.length) {
    const char = text[at]!
    if (char === ' ' || char === ',' || char === '\n') {
      at++
      continue
    }
    const place = numbers.length % takes
    if (takes === 7 && (place === 3 || place === 4)) {
      numbers.push(Number(char))
      at++
      continue
    }
    NUMBER.lastIndex = at
    const found = NUMBER.exec(text)
    if (!found) break
    numbers.push(Number(found[0]))
    at = NUMBER.lastIndex
  }
  return numbers
}

const parsed = new Map<string, readonly Command[]>()

function commandsOf(path: string): readonly Command[] {
  let commands = parsed.get(path)
  if (!commands) {
    commands = [...path.matchAll(/([mlhvcsqtaz])([^mlhvcsqtaz]*)/gi)].map(([, letter, rest]) => ({
      letter: letter!,
      numbers: numbersIn(rest!, letter!),
    }))
    parsed.set(path, commands)
  }
  return commands
}

/** A path of any commands, scaled about its origin and moved there; for outlines that are drawn again and again. */
export function placedPath(path: string, scale: number, x: number, y: number): string {
  let placed = ''
  for (const { letter, numbers } of commandsOf(path)) {
    const absolute = letter === letter.toUpperCase()
    const kind = letter.toLowerCase()
    const takes = TAKES[kind]!
    const moved = numbers.map((number, i) => {
      const place = takes === 7 ? (i % 7) - 5 : i
      if (takes === 7 && place < -3) return px(number * scale)
      if (takes === 7 && place < 0) return number
      const across = kind === 'h' || (kind !== 'v' && Math.abs(place) % 2 === 0)
      return px(number * scale + (absolute ? (across ? x : y) : 0))
    })
    placed += letter + moved.join(' ')
  }
  return placed
}

const STEPS = 12

/** A path of absolute M, L, H, V, Q and C as runs of straight parts, curves in twelve each. */
export function straightParts(path: string): Point[][] {
  const runs: Point[][] = []
  let at: Point = { x: 0, y: 0 }
  const onTo = (point: Point) => {
    at = point
    runs.at(-1)?.push(at)
  }
  for (const [, letter, rest] of path.matchAll(/([MLHVQC])([^MLHVQC]*)/g)) {
    const numbers = numbersIn(rest!, letter!)
    switch (letter) {
      case 'M':
        runs.push([])
        onTo({ x: numbers[0]!, y: numbers[1]! })
        break
      case 'H':
        onTo({ x: numbers[0]!, y: at.y })
        break
      case 'V':
        onTo({ x: at.x, y: numbers[0]! })
        break
      default: {
        const controls = [at]
        for (let i = 0; i + 1 < numbers.length; i += 2) controls.push({ x: numbers[i]!, y: numbers[i + 1]! })
        if (controls.length === 2) onTo(controls[1]!)
        else for (let step = 1; step <= STEPS; step++) onTo(onCurve(controls, step / STEPS))
      }
    }
  }
  return runs
}

/** A point on a Bézier curve, by de Casteljau's construction; `t` from 0 to 1. */
function onCurve(controls: readonly Point[], t: number): Point {
  let points = controls
  while (points.length > 1)
    points = points.slice(1).map((b, i) => {
      const a = points[i]!
      return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }
    })
  return points[0]!
}
