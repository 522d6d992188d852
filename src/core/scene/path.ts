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
