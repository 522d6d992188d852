import type { LayoutKind } from '../../records/layout'
import type { Block, Growth, Head } from '../block'
import { around } from './around'
import { bothSides } from './both-sides'
import { gapsAt, grow } from './grow'
import { indented } from './indented'
import { alongTime } from './time'

/** What a kind needs to know of the children, by index. */
export interface ChildFacts {
  isLeft(index: number): boolean
  /** Days since 1970-01-01; null without a date. */
  days: readonly (number | null)[]
}

/** How a topic sets its children: the kind of its own, or the growth of the branch around it. */
export type Setting = LayoutKind | Growth

/** Sets the children of a head that has some; one without is a `Leaf`. `level` counts from the root and decides on the gaps, with the spacing of the map. */
export function setChildren<Content>(
  head: Head<Content>,
  setting: Setting,
  level: number,
  spacing: number,
  facts: ChildFacts,
): Block<Content> {
  switch (setting) {
    case 'right':
    case 'left':
    case 'down':
    case 'up':
      return grow(head, setting, gapsAt(level, setting, spacing))
    case 'indented':
    case 'indented-left':
    case 'indented-up':
      return indented(head, setting, gapsAt(Math.max(level, 1), setting, spacing))
    case 'both':
      return bothSides(head, facts.isLeft, gapsAt(level, 'right', spacing))
    case 'around':
      return around(head, facts.isLeft, gapsAt(level, 'right', spacing))
    case 'time':
      return alongTime(head, facts.days, gapsAt(level, 'right', spacing))
    default:
      return setting satisfies never
  }
}

/**
 * Whether a branch has topics between its head and the side from which it is reached, so that its connector comes over
 * the top of the branch.
 */
export const isFlanked = (setting: Setting, growth: Growth | null): boolean =>
  (growth === 'right' || growth === 'left') &&
  (setting === 'both' ||
    setting === 'around' ||
    (setting === 'left' && growth === 'right') ||
    (setting === 'right' && growth === 'left'))

/**
 * How a child that has no layout of its own sets its children. Top down and bottom up only the first row stands side by
 * side: what hangs on it is indented, so that a map becomes columns that can be read instead of one long row.
 */
export const settingBelow = (setting: Setting, growth: Growth): Setting =>
  setting === 'down' ? 'indented' : setting === 'up' ? 'indented-up' : growth

/** How what hangs below a child grows, when its parent sets its children so. */
export function growthOf(setting: Setting, isLeft: boolean): Growth {
  switch (setting) {
    case 'both':
    case 'around':
      return isLeft ? 'left' : 'right'
    case 'time':
      return 'indented'
    default:
      return setting
  }
}
