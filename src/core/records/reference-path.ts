import type { Reference } from './kind'

/** The far end of a reference. */
export interface End {
  kind: string
  id: string
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null

/**
 * Calls `found` with every end to which a reference leads from a record, or from some of its fields. Values of any form
 * are taken, also such as nobody has checked yet: what cannot be an end is passed over. Linear in the field.
 */
export function eachEnd(record: object, reference: Reference, found: (end: End) => void): void {
  follow(record, keysOf(reference.path), 0, reference.to, found)
}

function follow(
  value: unknown,
  keys: readonly string[],
  at: number,
  to: string | null,
  found: (end: End) => void,
): void {
  if (at === keys.length) {
    if (to === null) {
      if (isObject(value) && typeof value.kind === 'string' && typeof value.id === 'string')
        found({ kind: value.kind, id: value.id })
    } else if (typeof value === 'string') found({ kind: to, id: value })
    return
  }
  if (!isObject(value)) return
  const key = keys[at]!
  if (key !== '*') follow(value[key], keys, at + 1, to, found)
  else if (Array.isArray(value)) for (const element of value) follow(element, keys, at + 1, to, found)
}

/** All ends to which a reference leads. */
export function endsOf(record: object, reference: Reference): End[] {
  const ends: End[] = []
  eachEnd(record, reference, (end) => ends.push(end))
  return ends
}

/**
 * A record whose references lead to other ends: `mapped` is asked for the id of each. The record itself is not changed;
 * what no reference touches stays the same object.
 */
export function withEnds<Value extends object>(
  record: Value,
  references: readonly Reference[],
  mapped: (end: End) => string,
): Value {
  let value: Value = record
  for (const reference of references) value = replaced(value, keysOf(reference.path), 0, reference.to, mapped) as Value
  return value
}

function replaced(
  value: unknown,
  keys: readonly string[],
  at: number,
  to: string | null,
  mapped: (end: End) => string,
): unknown {
  if (at === keys.length) {
    if (to !== null) return typeof value === 'string' ? mapped({ kind: to, id: value }) : value
    if (!isObject(value) || typeof value.kind !== 'string' || typeof value.id !== 'string') return value
    return { ...value, id: mapped({ kind: value.kind, id: value.id }) }
  }
  if (!isObject(value)) return value
  const key = keys[at]!
  if (key === '*')
    return Array.isArray(value) ? value.map((element) => replaced(element, keys, at + 1, to, mapped)) : value
  if (value[key] === undefined || value[key] === null) return value
  return { ...value, [key]: replaced(value[key], keys, at + 1, to, mapped) }
}

const split = new Map<string, readonly string[]>()
function keysOf(path: string): readonly string[] {
  let keys = split.get(path)
  if (!keys) split.set(path, (keys = path.split('.')))
  return keys
}

/** The field that a path begins in, which changes as one. */
export const fieldOf = ({ path }: Reference): string => keysOf(path)[0]!
