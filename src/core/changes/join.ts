import { dequal } from 'dequal/lite'
import type { Joining } from '../records/kind'
import { mergeText } from '../text/merge-text'

/** Whether a text is joined line by line. */
export const isOfLines = (joining: Joining): joining is 'paragraphs' | 'lines' =>
  joining === 'paragraphs' || joining === 'lines'

/** How two versions of the same lines stand in a text. */
const STAND = { paragraphs: 'as paragraphs', lines: 'as lines' } as const

/**
 * What a field holds when somebody who saw `before` set it to `after` while it had become `current`: what they did is
 * done to what is there. Values that no two people can have made apart are simply `after`.
 */
export function joinField(joining: Joining, before: unknown, current: unknown, after: unknown): unknown {
  if (dequal(before, current)) return after
  if (dequal(before, after)) return current
  switch (joining) {
    case 'paragraphs':
    case 'lines':
      return typeof before === 'string' && typeof current === 'string' && typeof after === 'string'
        ? mergeText(before, current, after, STAND[joining]).text
        : after
    case 'elements':
      return Array.isArray(before) && Array.isArray(current) && Array.isArray(after)
        ? joinElements(before, current, after)
        : after
    case 'properties':
      return joinProperties(before, current, after)
    default:
      return joining satisfies never
  }
}

/**
 * A list of which each person brought elements in, took some out, or changed the order. Elements that both have left stand
 * in the order of whoever changed it, last `after`; new ones stand behind their neighbours. Each element once. O(n²) for
 * the few elements that such a list may have.
 */
function joinElements(before: readonly unknown[], current: readonly unknown[], after: readonly unknown[]): unknown[] {
  const [was, is, wanted] = [new Set(before), new Set(current), new Set(after)]
  const shared = (list: readonly unknown[]) =>
    list.filter((element) => was.has(element) && is.has(element) && wanted.has(element))
  const isReordered = !dequal(shared(before), shared(after))
  const joined = isReordered
    ? after.filter((element) => is.has(element) || !was.has(element))
    : current.filter((element) => wanted.has(element) || !was.has(element))
  const other = isReordered ? current : after
  other.forEach((element, i) => {
    if (was.has(element) || joined.includes(element)) return
    const behind = i === 0 ? -1 : joined.indexOf(other[i - 1])
    joined.splice(behind < 0 && i > 0 ? joined.length : behind + 1, 0, element)
  })
  return joined
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Values that are set one by one, also inside one another; null holds none, and so does what is empty in the end. */
function joinProperties(before: unknown, current: unknown, after: unknown): unknown {
  if (dequal(before, current)) return after
  if (dequal(before, after)) return current
  const ownList = [before, current, after].every((value) => Array.isArray(value) || value === null)
  if (ownList && [current, after].some(Array.isArray)) return joinByIndex(before, current, after)
  if (![before, current, after].every((value) => isPlain(value) || value === null || value === undefined)) return after
  const [was, is, wanted] = [before, current, after].map((value) => (isPlain(value) ? value : {})) as [
    Record<string, unknown>,
    Record<string, unknown>,
    Record<string, unknown>,
  ]
  const joined: Record<string, unknown> = {}
  for (const field of new Set([...Object.keys(is), ...Object.keys(wanted)])) {
    const value = joinProperties(was[field], is[field], wanted[field])
    if (value !== undefined) joined[field] = value
  }
  return Object.keys(joined).length === 0 && (current === null || after === null) ? null : joined
}

function joinByIndex(before: unknown, current: unknown, after: unknown): unknown[] {
  const [was, is, wanted] = [before, current, after].map((value) => (Array.isArray(value) ? value : [])) as [
    unknown[],
    unknown[],
    unknown[],
  ]
  return Array.from({ length: Math.max(is.length, wanted.length) }, (_, i) =>
    joinProperties(was[i] ?? {}, is[i] ?? {}, wanted[i] ?? {}),
  )
}
