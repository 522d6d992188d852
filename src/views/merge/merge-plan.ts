import { z } from 'zod'
import type { ChosenField, Decision, MergePlan, Part, SourceEnd } from '../../core/matching/decisions'
import { CHOSEN_FIELDS, type Choice, type MergeWay, SOURCE_ENDS } from '../../core/matching/decisions'
import { MapId, TopicId } from '../../core/records/ids'

const Judged = z.object({
  map: MapId,
  text: z.string(),
  parent: TopicId.optional(),
  note: z.string().optional(),
  dates: z.object({ start: z.string(), end: z.string().nullable() }).optional(),
  task: z.string().optional(),
  tags: z.array(z.string()).optional(),
  files: z.array(z.string()).optional(),
})
export type Judged = z.infer<typeof Judged>

/** A plan as our own server answers it. */
export const PlanAnswer = z.object({
  plan: z.custom<MergePlan>((value) => typeof value === 'object' && value !== null),
  topics: z.record(z.string(), Judged),
  conflicts: z.record(z.string(), z.array(z.enum(CHOSEN_FIELDS))),
})
export type PlanAnswer = z.infer<typeof PlanAnswer>

/** What a person has asked for and decided; it is kept until the merge is done, or begun anew. */
export interface Asked {
  sources: readonly MapId[]
  parts: readonly Part[]
  way: MergeWay
  /** The topic of the target that a topic of a source is; null for none. */
  said: ReadonlyMap<TopicId, TopicId | null>
  choices: ReadonlyMap<TopicId, Choice>
  title: string
  isNew: boolean
  sourcesThen: SourceEnd
  linksFollow: boolean
}

export const KINDS = {
  decide: 'To decide',
  same: 'The same',
  conflict: 'Said differently',
  apart: 'Two topics',
  only: 'Only there',
  left: 'Taken out here',
} as const
export type Kind = keyof typeof KINDS

/** In which list a decision stands. */
export function kindOf(decision: Decision, { said }: Pick<Asked, 'said'>): Exclude<Kind, 'conflict'> {
  if (decision.act === 'join') return 'same'
  if (decision.act === 'leave') return 'left'
  if (said.get(decision.source) === null) return 'apart'
  return decision.likely ? 'decide' : 'only'
}

/** What both topics say in their own way, besides their texts. */
export const conflictsIn = ({ conflicts }: PlanAnswer, { source, act }: Decision): ChosenField[] =>
  act === 'join' ? (conflicts[source] ?? []).filter((field) => field !== 'text') : []

// ---- Kept between visits -----------------------------------------------------------------------------------------

const pairs = <Key extends z.ZodType, Value extends z.ZodType>(key: Key, value: Value) => z.array(z.tuple([key, value]))
const KeptPlan = z.object({
  at: z.number(),
  sources: z.array(MapId),
  parts: pairs(MapId, TopicId),
  way: z.enum(['beside', 'combined']),
  said: pairs(TopicId, TopicId.nullable()),
  choices: pairs(TopicId, z.object({ takes: z.array(z.enum(CHOSEN_FIELDS)), text: z.string().nullable() })),
  title: z.string(),
  isNew: z.boolean(),
  sourcesThen: z.enum(SOURCE_ENDS),
  linksFollow: z.boolean(),
  /** Texts of the topics as they were when the plan was last seen. */
  texts: pairs(TopicId, z.string()),
})

/** A plan that was begun before: what was asked and said, when, and what the topics said then. */
export interface KeptMerge {
  at: Date
  asked: Asked
  texts: ReadonlyMap<TopicId, string>
}

/** Beyond this the texts of a plan are not kept, and what has changed since is not told. */
const MOST_TEXTS = 4_000

const keyOf = (collection: string, target: string) => `folvet-merge ${collection} ${target}`

export function keepMerge(collection: string, target: string, asked: Asked, answer: PlanAnswer | undefined): void {
  const topics = Object.entries(answer?.topics ?? {})
  const kept = {
    ...asked,
    at: Date.now(),
    said: [...asked.said],
    choices: [...asked.choices],
    texts: topics.length > MOST_TEXTS ? [] : topics.map(([id, { text }]) => [id, text]),
  }
  try {
    localStorage.setItem(keyOf(collection, target), JSON.stringify(kept))
  } catch {
    // Where the browser has no room left, the plan lives as long as the page does.
  }
}

export function keptMerge(collection: string, target: string): KeptMerge | null {
  let value: unknown
  try {
    value = JSON.parse(localStorage.getItem(keyOf(collection, target)) ?? 'null')
  } catch {
    return null
  }
  const parsed = KeptPlan.safeParse(value)
  if (!parsed.success) return null
  const { at, said, choices, texts, ...rest } = parsed.data
  return {
    at: new Date(at),
    asked: { ...rest, said: new Map(said), choices: new Map(choices) },
    texts: new Map(texts),
  }
}

export const forgetMerge = (collection: string, target: string): void =>
  localStorage.removeItem(keyOf(collection, target))

/** How the topics of a plan have changed since it was kept, in words; null where they have not. */
export function changedSince({ texts }: KeptMerge, { topics }: PlanAnswer): string | null {
  if (texts.size === 0) return null
  let [reworded, gone, fresh] = [0, 0, 0]
  for (const [id, text] of texts) {
    const now = topics[id]
    if (!now) gone++
    else if (now.text !== text) reworded++
  }
  for (const id of Object.keys(topics)) if (!texts.has(id as TopicId)) fresh++
  const said = [reworded > 0 && `${reworded} reworded`, gone > 0 && `${gone} gone`, fresh > 0 && `${fresh} new`].filter(
    Boolean,
  )
  return said.length > 0 ? said.join(', ') : null
}
