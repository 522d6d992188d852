import type { TextLikeness } from './text-likeness'

/** What speaks for a pair; each between 0 and 1. */
export interface Evidence extends TextLikeness {
  /** How sure the parents are a pair; 1 for two roots. */
  parents: number
  /** How much of their children agrees; null where one of them has none. */
  children: number | null
  /** How much of what stands beside them agrees; null where nothing does. */
  siblings: number | null
  /** How sure the topics before them are a pair, and those after them; none before both is a pair too. */
  neighbours: number
}

/** What evidence is worth, as log odds. */
export type Worth = Record<
  'nothing' | 'text' | 'equal' | 'spelling' | 'parents' | 'children' | 'siblings' | 'neighbours' | 'leaf' | 'textAmong',
  number
>

/**
 * Fitted by logistic regression to one half of the labelled merges in tests/core/matching/merges (`npm run fit`); docs/matching.md
 * tells what they reach on the other half. The first is for pairs that are the same or likely so, the second for which of
 * these are the same.
 */
export const WORTH: { pair: Worth; same: Worth } = {
  pair: {
    nothing: -5.05,
    text: 3.37,
    equal: 0.53,
    spelling: 3.1,
    parents: 1.01,
    children: 5.47,
    siblings: 0.24,
    neighbours: 3.36,
    leaf: -0.11,
    textAmong: 2.14,
  },
  same: {
    nothing: -1.4,
    text: 1.2,
    equal: 1.13,
    spelling: 2.63,
    parents: -0.39,
    children: 0.05,
    siblings: 0.01,
    neighbours: -0.08,
    leaf: -0.15,
    textAmong: 0.64,
  },
}

/** How sure a pair is, between 0 and 1. */
export const certainty = (
  { text, spelling, parents, children, siblings, neighbours }: Evidence,
  worth: Worth,
): number => {
  const odds =
    worth.nothing +
    worth.text * text +
    (text === 1 ? worth.equal : 0) +
    worth.spelling * spelling +
    worth.parents * parents +
    (children === null ? worth.leaf : worth.children * children) +
    (siblings === null ? worth.siblings / 2 : worth.siblings * siblings) +
    worth.neighbours * neighbours +
    worth.textAmong * text * parents
  return 1 / (1 + Math.exp(-odds))
}
