import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { hangs, Rank } from '../records/place'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'

/** Behind which child something comes to stand: one of them, none (first), or the last one. */
export type After = string | null | 'last'

const rankOf = (topic: TopicRecord | undefined): string | null =>
  topic && hangs(topic.place) ? topic.place.rank : null

/**
 * `count` ranks in order, directly behind a child of `parent`; trashed children count, so that a restore never collides.
 * What is in `leaving` counts as not there. Behind a child that is not there comes first. O(children).
 */
export function ranksBehind(
  records: Records,
  parent: string,
  after: After,
  count: number,
  leaving: ReadonlySet<string> = new Set(),
): string[] {
  const siblings = records.childrenWithTrashed(parent)
  const here = leaving.size === 0 ? siblings : siblings.filter(({ id }) => !leaving.has(id))
  const at = after === 'last' ? here.length - 1 : after === null ? -1 : here.findIndex(({ id }) => id === after)
  return generateNKeysBetween(rankOf(here[at]), rankOf(here[at + 1]), count)
}

/** A rank between two others, or at an end. Equal ones, which two clients can have made at once, count as the first alone. */
export const between = (before: string | undefined, after: string | undefined): string =>
  generateKeyBetween(before ?? null, after === undefined || after === before ? null : after)

/** A rank after the last of a list that is sorted by rank. */
export function rankAfterLast(list: readonly { rank: string }[]): string {
  return generateKeyBetween(list.at(-1)?.rank ?? null, null)
}

/**
 * The rank itself where no other child of the parent has it, else one between it and the next: two clients that could not
 * see each other can have made the same one. Of the siblings only these two need be held. Refused where some thousands have
 * been given one and the same rank, so that what is between has become too long. O(log children) after the first question
 * for a parent.
 */
export function freeRank(records: Records, parent: string, rank: string, self: string): string {
  const ranks = records.ranksBelow(parent)
  const holder = ranks.holder(rank)
  if (holder === undefined || holder === self) return rank
  const between = Rank.safeParse(generateKeyBetween(rank, ranks.after(rank)))
  return between.data ?? refuse('invalid', 'Too many topics would stand at one and the same place.')
}
