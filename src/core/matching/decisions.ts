import type { MapId, TopicId } from '../records/ids'

export type MergeWay = 'beside' | 'combined'

/** A topic of the target that a topic of a source may be, how sure that is, between 0 and 1, and why in words. */
export interface Meant {
  into: TopicId
  sure: number
  why: string
}

/**
 * What happens to one topic of a source: it is joined with a topic of the target, or a copy of it is added. `likely` names
 * the one that it is likely to be, for a person to say whether it is.
 */
export type Decision =
  | ({ act: 'join'; source: TopicId } & Meant)
  | { act: 'add'; source: TopicId; below: TopicId | { copyOf: TopicId }; likely?: Meant }

/** What a merge would do, decision by decision, parents before their children. Data that can be shown and changed. */
export interface MergePlan {
  target: MapId
  sources: MapId[]
  way: MergeWay
  decisions: Decision[]
}

/** Why roots are joined. */
export const ROOTS = 'what the maps are of'
