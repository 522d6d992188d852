import { z } from 'zod'
import { settledBetween } from '../../core/matching/common-origin'
import { openConflicts } from '../../core/matching/conflicts'
import { CHOSEN_FIELDS, type ChosenField, type Decision, meantIn, SOURCE_ENDS } from '../../core/matching/decisions'
import { planMerge } from '../../core/matching/merge-plan'
import { MapId, TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { Records } from '../../core/records/records'
import { MAX_TITLE, MAX_TOPIC_TEXT } from '../../core/records/text'
import { mayRead } from '../../core/rights/grant'
import { noteBeginning } from '../../core/text/note-beginning'
import { wholeCollection } from '../collections'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { english } from '../lexicon/lexicon'

/** A topic that another one may be; see core/matching/merge-plan. */
const meant = { into: TopicId, sure: z.number(), why: z.string().max(2_000) }

const Choice = z.strictObject({
  takes: z.array(z.enum(CHOSEN_FIELDS)).max(CHOSEN_FIELDS.length),
  text: z.string().max(MAX_TOPIC_TEXT).nullable(),
})

const DecisionAsked = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('join'), source: TopicId, ...meant, choice: Choice.optional() }),
  z.strictObject({
    act: z.literal('add'),
    source: TopicId,
    below: z.union([TopicId, z.strictObject({ copyOf: TopicId })]),
    likely: z.strictObject(meant).optional(),
  }),
  z.strictObject({ act: z.literal('leave'), source: TopicId, why: meant.why }),
])

/** The maps that are merged, each once. */
const Sources = z
  .array(MapId)
  .min(1)
  .max(50)
  .refine((maps) => new Set(maps).size === maps.length, 'A map is named once.')

const Way = z.enum(['beside', 'combined'])
/** Of which sources only a branch is taken over. */
const Parts = z.array(z.tuple([MapId, TopicId])).max(50)

/** A merge plan as it is carried out. */
export const Plan = z.strictObject({
  target: MapId,
  sources: Sources,
  parts: Parts.optional(),
  way: Way,
  decisions: z.array(DecisionAsked).min(1).max(100_000),
  manner: z
    .strictObject({
      title: z.string().max(MAX_TITLE).nullable(),
      isNew: z.boolean(),
      sourcesThen: z.enum(SOURCE_ENDS),
      linksFollow: z.boolean(),
    })
    .optional(),
})

/** All topics that a plan names. */
export function topicsOf(decision: Decision): TopicId[] {
  if (decision.act === 'join') return [decision.source, decision.into]
  if (decision.act === 'leave') return [decision.source]
  const { source, below, likely } = decision
  return [source, typeof below === 'string' ? below : below.copyOf, ...(likely ? [likely.into] : [])]
}

export const MergeRequest = z.strictObject({
  target: MapId,
  sources: Sources,
  parts: Parts.default([]),
  way: Way,
  /** What the person has said of topics of the sources: which topic of the target each is, or null for none. */
  said: z
    .array(z.tuple([TopicId, TopicId.nullable()]))
    .max(100_000)
    .default([]),
  choices: z
    .array(z.tuple([TopicId, Choice]))
    .max(100_000)
    .default([]),
})

/** What a person needs to know of a topic to judge whether it is another one; what there is none of is left out. */
export interface Judged {
  map: MapId
  text: string
  parent?: TopicId
  note?: string
  dates?: { start: string; end: string | null }
  task?: string
  tags?: string[]
  files?: string[]
}

/** How much of a note is told. */
const NOTE_LETTERS = 600

function judged(records: Records, id: TopicId): Judged {
  const topic = records.need('topic', id)
  const { text, dates, task } = topic
  const parent = parentOf(topic)
  const note = noteBeginning(records.get('note', topic.note)?.text ?? '', NOTE_LETTERS)
  const tags = topic.tags.flatMap((tag) => records.get('tag', tag)?.name ?? [])
  const files = records.attachments(id).flatMap(({ file }) => records.get('file', file)?.name ?? [])
  return {
    map: topic.place.map,
    text,
    ...(parent ? { parent } : {}),
    ...(note ? { note } : {}),
    ...(dates ? { dates } : {}),
    ...(task ? { task } : {}),
    ...(tags.length > 0 ? { tags } : {}),
    ...(files.length > 0 ? { files } : {}),
  }
}

/** The plan of a merge with what a person needs to judge it: the topics it names, and where two say different things. */
export async function planMergeOf({ collection, reach }: Member, request: z.infer<typeof MergeRequest>) {
  const { records, number } = await wholeCollection(collection)
  for (const map of [request.target, ...request.sources])
    if (!records.root(map) || records.get('map', map)?.trashed || !mayRead(reach, map))
      throw new Failure(404, 'One of these maps is gone.')
  if (request.sources.includes(request.target)) throw new Failure(400, 'A map cannot be merged into itself.')
  for (const [map, head] of request.parts) {
    const topic = records.get('topic', head)
    if (topic?.place.map !== map || topic.trashed) throw new Failure(404, 'One of these branches is gone.')
  }
  const plan = planMerge(records, request.target, request.sources, request.way, {
    lexicon: english(),
    said: new Map(request.said),
    choices: new Map(request.choices),
    parts: request.parts,
  })
  const topics: Record<string, Judged> = {}
  const conflicts: Record<string, ChosenField[]> = {}
  const tell = (id: TopicId) => {
    // With those above it, which say where it stands.
    for (let at: TopicId | null = id; at && !topics[at]; ) {
      topics[at] = judged(records, at)
      at = parentOf(records.need('topic', at))
    }
  }
  for (const decision of plan.decisions) {
    for (const topic of topicsOf(decision)) tell(topic)
    const other = meantIn(decision)?.into
    if (!other) continue
    const [own, its] = [records.need('topic', other), records.need('topic', decision.source)]
    const both = openConflicts(own, its, settledBetween(records, own, its))
    if (both.length > 0) conflicts[decision.source] = both
  }
  return { plan, topics, conflicts, number }
}
