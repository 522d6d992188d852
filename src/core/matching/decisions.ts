import type { MapId, TopicId } from '../records/ids'

export type MergeWay = 'beside' | 'combined'

/** A topic of the target that a topic of a source may be, how sure that is, between 0 and 1, and why in words. */
export interface Meant {
  into: TopicId
  sure: number
  why: string
}

/** What only one of two topics can give to the one that they become. */
export const CHOSEN_FIELDS = ['text', 'dates', 'task', 'picture', 'opensMap', 'number', 'look'] as const
export type ChosenField = (typeof CHOSEN_FIELDS)[number]

/** What a person has said of a topic that is joined: what comes from the source, and the text, where it is written anew. */
export interface Choice {
  takes: readonly ChosenField[]
  text: string | null
}

/**
 * What happens to one topic of a source: it is joined with a topic of the target, a copy of it is added, or it is left where it is.
 * `likely` names the one that it is likely to be, for a person to say whether it is.
 */
export type Decision =
  | ({ act: 'join'; source: TopicId; choice?: Choice } & Meant)
  | { act: 'add'; source: TopicId; below: TopicId | { copyOf: TopicId }; likely?: Meant }
  | { act: 'leave'; source: TopicId; why: string }

/** The topic of the target that a topic of a source becomes, or is likely to be; none where it is another one. */
export const meantIn = (decision: Decision): Meant | undefined =>
  decision.act === 'join' ? decision : decision.act === 'add' ? decision.likely : undefined

/** What becomes of a source: it stays, it leads to the result, or it goes into the trash. */
export const SOURCE_ENDS = ['stay', 'doorway', 'trash'] as const
export type SourceEnd = (typeof SOURCE_ENDS)[number]

/** How a merge is carried out, besides what happens to each topic. */
export interface MergeManner {
  /** The title of the result; null leaves the target the one that it has. */
  title: string | null
  /** Whether the result is a new map, so that the target stays as it is too. */
  isNew: boolean
  sourcesThen: SourceEnd
  /** Whether links that lead to topics of the sources lead to where these went. */
  linksFollow: boolean
}

export const AS_IT_IS: MergeManner = { title: null, isNew: false, sourcesThen: 'stay', linksFollow: false }

/** A source of which only one branch is taken over. */
export type Part = readonly [map: MapId, head: TopicId]

/** What a merge would do, decision by decision, parents before their children. Data that can be shown and changed. */
export interface MergePlan {
  target: MapId
  sources: MapId[]
  parts?: readonly Part[]
  way: MergeWay
  decisions: Decision[]
  manner?: MergeManner
}

/** Why roots are joined. */
export const ROOTS = 'what the maps are of'
