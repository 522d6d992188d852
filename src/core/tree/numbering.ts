import type { NumberingScheme } from '../records/layout'

/** 1 → a, 26 → z, 27 → aa: letters as numbers without a zero. */
export function lettersOf(count: number): string {
  let letters = ''
  for (let rest = count; rest > 0; rest = Math.floor((rest - 1) / 26))
    letters = String.fromCharCode(97 + ((rest - 1) % 26)) + letters
  return letters
}

/** Levels of a section number before its items begin: 1.1.1, then 1.1.1-1. */
const SECTION_LEVELS = 3

/** Digits behind letters and at the beginning, letters behind digits. */
const inTurn = (above: string, count: number): string => (/\d$/.test(above) ? lettersOf(count) : String(count))

/**
 * The number of the `count`-th item (from 1) beneath an item with the number `above`, which is empty at the top. What comes
 * next follows from the number above alone, so it goes on from fixed numbers too.
 *
 * - `decimal`: 1, 1.1, 1.1.1
 * - `turns`: digits and letters in turn: 1, 1a, 1a1
 * - `sections`: three decimal levels, then items in turn after a hyphen: 1.1.1-1a1
 */
export function numberBelow(scheme: NumberingScheme, above: string, count: number): string {
  const decimal = above === '' ? String(count) : `${above}.${count}`
  switch (scheme) {
    case 'decimal':
      return decimal
    case 'turns':
      return above + inTurn(above, count)
    case 'sections':
      if (above.includes('-')) return above + inTurn(above, count)
      return above.split('.').length < SECTION_LEVELS || above === '' ? decimal : `${above}-${count}`
    default:
      return scheme satisfies never
  }
}

/** How the topics below one are numbered: by a scheme, beneath a number. */
export interface Numbering {
  scheme: NumberingScheme
  above: string
}

/**
 * Numbers for siblings in order. A fixed number stays; the others count on without it, and skip what is taken by a
 * fixed one. Null where there is no scheme and no fixed number.
 */
export function numbersOf(
  siblings: readonly { number: string | null }[],
  numbering: Numbering | null,
): (string | null)[] {
  const fixed = new Set(siblings.flatMap(({ number }) => number ?? []))
  let count = 0
  return siblings.map(({ number }) => {
    if (number !== null || !numbering) return number
    let next: string
    do next = numberBelow(numbering.scheme, numbering.above, ++count)
    while (fixed.has(next))
    return next
  })
}

/** The numbering of what hangs below a topic: a scheme of its own begins anew beneath its number. */
export function numberingBelow(
  topic: { numbering: NumberingScheme | null },
  number: string | null,
  around: Numbering | null,
): Numbering | null {
  if (topic.numbering) return { scheme: topic.numbering, above: number ?? '' }
  return around && { scheme: around.scheme, above: number ?? around.above }
}

const FREE_TRIES = 10_000

/**
 * A free number between two fixed ones, for a topic that is added between them: 1a after 1, 1b where 1a is taken, 1a1
 * beneath 1a. `after` is null at the beginning.
 */
export function freeNumberAfter(after: string | null, taken: ReadonlySet<string>): string {
  const make = (count: number): string => {
    if (after === null) return String(count)
    return after + (/\d$/.test(after) ? lettersOf(count) : String(count))
  }
  for (let count = 1; count < FREE_TRIES; count++) if (!taken.has(make(count))) return make(count)
  return make(FREE_TRIES)
}

/** A number that was typed before a text, and that text without it. */
export interface Typed {
  number: string
  text: string
}

/**
 * Numbers typed at the beginning of the texts of siblings. A bare whole number counts where it goes on from that of a neighbour: `1 Peas`,
 * `2 Beans`. Else it is a count of things: "7 lines of wells". Null where there is none. Linear.
 */
export function typedNumbers(texts: readonly string[]): (Typed | null)[] {
  const bare = texts.map((text) => /^\s*(\d{1,4})[ \t]+(\S[\s\S]*)$/.exec(text))
  return texts.map((text, i) => {
    const typed = typedNumber(text)
    const [, number, rest] = bare[i] ?? []
    if (typed || number === undefined || rest === undefined) return typed
    const goesOn = Number(bare[i - 1]?.[1]) + 1 === Number(number) || Number(bare[i + 1]?.[1]) - 1 === Number(number)
    return goesOn ? { number, text: rest } : null
  })
}

/** A number typed at the beginning of a text: `1.2 Dams`, `1a1) Dams`, `1.1-2a Dams`. Null where there is none. Linear: each part of the pattern begins with another sign. */
export function typedNumber(text: string): Typed | null {
  const found =
    /^\s*(\d{1,4}(?:\.\d{1,4})*(?:-\d{1,4})?(?:[a-z]{1,2}\d{1,4})*(?:[a-z]{1,2})?)([.):]?)[ \t]+(\S[\s\S]*)$/.exec(text)
  if (!found) return null
  const [, number = '', mark = '', rest = ''] = found
  // A plain count of things is no number of a topic: "7 lines of wells". One with a mark or a second part is.
  if (mark === '' && /^\d+$/.test(number)) return null
  return { number, text: rest }
}
