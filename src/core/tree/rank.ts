import { generateKeyBetween } from 'fractional-indexing'
import type { Records } from '../records/records'

/**
 * A rank directly after `after` among the children of `parent` (trashed siblings count, so that a restore never
 * collides); null puts it first.
 */
export function rankAfter(records: Records, parent: string, after: string | null): string {
  const siblings = records.childrenWithTrashed(parent)
  const at = after === null ? -1 : siblings.findIndex((sibling) => sibling.id === after)
  return generateKeyBetween(siblings[at]?.place.rank ?? null, siblings[at + 1]?.place.rank ?? null)
}

/** A rank after the last of a list that is sorted by rank. */
export function rankAfterLast(list: readonly { rank: string }[]): string {
  return generateKeyBetween(list.at(-1)?.rank ?? null, null)
}

/**
 * The rank itself where it is free below the parent, else one between it and the next.
 * Two clients that could not see each other can have made the same one.
 */
export function freeRank(records: Records, parent: string, rank: string, self: string): string {
  const others = records.childrenWithTrashed(parent).filter((sibling) => sibling.id !== self)
  if (!others.some((sibling) => sibling.place.rank === rank)) return rank
  const next = others.find((sibling) => sibling.place.rank > rank)
  return generateKeyBetween(rank, next?.place.rank ?? null)
}
