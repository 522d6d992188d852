import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { refuse } from '../../core/changes/problem'
import { undoChange } from '../../core/changes/undo'
import { bringBack } from '../../core/commands/bring-back'
import type { IdSource, Outcome } from '../../core/commands/command'
import { importPages } from '../../core/commands/import-pages'
import { restoreMap, trashMap } from '../../core/commands/maps'
import { mergeMaps } from '../../core/commands/merge-maps'
import { planMerge } from '../../core/matching/merge-plan'
import { ChangeId, type CollectionId, MapId, TopicId } from '../../core/records/ids'
import type { Records } from '../../core/records/records'
import { wholeCollection } from '../collections'
import { changeOf, type StoredChange } from '../commit/commit-changes'
import { Failure } from '../http/failure'
import { loadCollection } from '../records/tables'

const newIds: IdSource = { newId: uuid }

interface Setting {
  records: Records
  collection: CollectionId
  /** Committed change by its id; null where there is none in this collection. */
  changeById(id: string): Promise<StoredChange | null>
}

/** A command that reads more than a browser holds. `report` is handed on to whoever asked. */
interface ServerCommand<Args> {
  args: z.ZodType<Args>
  run(setting: Setting, args: Args): Promise<Outcome & { report?: unknown }>
}

const command = <Args>(args: z.ZodType<Args>, run: ServerCommand<Args>['run']): ServerCommand<Args> => ({ args, run })

const Decision = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('join'), source: TopicId, into: TopicId, why: z.enum(['root', 'same text']) }),
  z.strictObject({
    act: z.literal('add'),
    source: TopicId,
    below: z.union([TopicId, z.strictObject({ copyOf: TopicId })]),
  }),
])
/** The maps that are merged, each once. */
const Sources = z
  .array(MapId)
  .min(1)
  .max(50)
  .refine((maps) => new Set(maps).size === maps.length, 'A map is named once.')

const Plan = z.strictObject({
  target: MapId,
  sources: Sources,
  way: z.enum(['beside', 'combined']),
  decisions: z.array(Decision).min(1).max(100_000),
})

const commands = {
  'bring-back': command(z.strictObject({ topic: TopicId }), async ({ records }, args) =>
    bringBack(records, args, newIds),
  ),
  'trash-map': command(z.strictObject({ map: MapId }), async ({ records }, args) => trashMap(records, args, newIds)),
  'restore-map': command(z.strictObject({ map: MapId }), async ({ records }, args) =>
    restoreMap(records, args, newIds),
  ),
  merge: command(z.strictObject({ plan: Plan }), async ({ records }, args) => mergeMaps(records, args, newIds)),
  import: command(
    z.strictObject({
      pages: z
        .array(z.strictObject({ path: z.string().min(1).max(500), text: z.string() }))
        .min(1)
        .max(500),
    }),
    async ({ records, collection }, { pages }) => {
      const outcome = importPages(records, { collection, pages, files: new Map() }, newIds)
      return { ...outcome, report: { maps: outcome.maps, unread: outcome.unread } }
    },
  ),
  undo: command(z.strictObject({ change: ChangeId }), async ({ records, changeById }, args) => {
    const undone = (await changeById(args.change)) ?? refuse('gone', 'This change is not known here.')
    const { change, leftAlone } = undoChange(records, undone, ChangeId.parse(newIds.newId()))
    return {
      change: change ?? refuse('gone', 'Others have changed all of this since; there is nothing left to take back.'),
      select: [],
      report: { leftAlone },
    }
  }),
} as const

export type CommandName = keyof typeof commands
export const isCommandName = (name: string): name is CommandName => Object.hasOwn(commands, name)

const loadAll = (collection: string) =>
  wholeCollection(collection, (client, into) => loadCollection(client, into, collection))

/** What a command comes to for a collection as it is now, with the number of the last change that was known. */
export async function computeCommand(collection: string, name: CommandName, args: unknown) {
  const { args: schema, run } = commands[name] as ServerCommand<unknown>
  const parsed = schema.safeParse(args)
  if (!parsed.success)
    throw new Failure(400, `This command cannot be understood: ${parsed.error.issues[0]?.message ?? 'invalid'}`)
  const { records, number } = await loadAll(collection)
  const changeById = (change: string) => changeOf(collection, change)
  const { change, select, report } = await run(
    { records, collection: collection as CollectionId, changeById },
    parsed.data,
  )
  return { number, change, select, report: report ?? null }
}

export const MergeRequest = z.strictObject({
  target: MapId,
  sources: Sources,
  way: z.enum(['beside', 'combined']),
})

/** The plan of a merge with the texts that a person needs to judge it. */
export async function planMergeOf(collection: string, request: z.infer<typeof MergeRequest>) {
  const { records } = await loadAll(collection)
  for (const map of [request.target, ...request.sources])
    if (!records.root(map) || records.get('map', map)?.trashed) throw new Failure(404, 'One of these maps is gone.')
  if (request.sources.includes(request.target)) throw new Failure(400, 'A map cannot be merged into itself.')
  const plan = planMerge(records, request.target, request.sources, request.way)
  const texts: Record<string, string> = {}
  for (const decision of plan.decisions) {
    texts[decision.source] = records.need('topic', decision.source).text
    const other =
      decision.act === 'join'
        ? decision.into
        : typeof decision.below === 'string'
          ? decision.below
          : decision.below.copyOf
    texts[other] = records.need('topic', other).text
  }
  return { plan, texts }
}
