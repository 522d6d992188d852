import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { type Change, joinEdits } from '../../core/changes/edit'
import { refuse } from '../../core/changes/problem'
import { undoChange } from '../../core/changes/undo'
import { hangMap, placeInAtlas } from '../../core/commands/atlas-places'
import { bringAgain } from '../../core/commands/bring-again'
import { bringBack } from '../../core/commands/bring-back'
import { bringCalendar } from '../../core/commands/bring-calendar'
import { carryNote } from '../../core/commands/carried-notes'
import type { IdSource, Outcome } from '../../core/commands/command'
import { duplicateMap } from '../../core/commands/copy-map'
import { addCrosslink, drawCrosslinks, removeCrosslinks } from '../../core/commands/crosslinks'
import { chooseHomeDoorway, closeDoorway, makeDoorway } from '../../core/commands/doorways'
import { renameFile, trashFiles } from '../../core/commands/files'
import { putIntoFolder } from '../../core/commands/folders'
import { gatherTopics } from '../../core/commands/gather-topics'
import { keepClipping } from '../../core/commands/keep-clipping'
import { restoreMap, trashMaps } from '../../core/commands/maps'
import { mergeMaps } from '../../core/commands/merge-maps'
import { restoreTopic } from '../../core/commands/restore-topic'
import { changeSearch, removeSearch } from '../../core/commands/searches'
import { sendToMap } from '../../core/commands/send-to-map'
import { setDates } from '../../core/commands/set-dates'
import { setTask } from '../../core/commands/set-task'
import { splitOffAll } from '../../core/commands/split-off'
import { changeTag, mergeTags, removeTag } from '../../core/commands/tags'
import { tellApart } from '../../core/commands/tell-apart'
import { readCalendar } from '../../core/formats/icalendar'
import { withKeptPlaces } from '../../core/free/kept-places'
import { Drawn, LinkEnd } from '../../core/records/crosslink'
import { Dates, Day, TaskState } from '../../core/records/dates'
import {
  ChangeId,
  type CollectionId,
  CrosslinkId,
  FileId,
  FolderId,
  MapId,
  SearchId,
  TagId,
  TopicId,
} from '../../core/records/ids'
import { AtlasPlace } from '../../core/records/map'
import type { Records } from '../../core/records/records'
import { SearchAsked } from '../../core/records/search'
import { MAX_NOTE_TEXT, MAX_TITLE, MAX_TOPIC_TEXT } from '../../core/records/text'
import { MAX_ADDRESS } from '../../core/records/weblink'
import { mayRead, type Reach, reachesAll } from '../../core/rights/grant'
import { standsOn } from '../../core/rights/standing'
import { ALL_FONTS } from '../../core/text/all-fonts'
import { mapsAround, wholeCollection } from '../collections'
import { changesOfStep } from '../commit/history'
import { Parts } from '../crowding'
import { snapshot } from '../database'
import type { Member } from '../http/endpoint'
import { Failure } from '../http/failure'
import { PagesAsked } from '../jobs/import-job'
import { isFinished, jobOf } from '../jobs/job-rows'
import { Plan, topicsOf } from './merge-request'

const newIds: IdSource = { newId: uuid }

interface Setting {
  records: Records
  collection: CollectionId
  /** A step of history by its id, as one change; null where there is none in this collection. */
  stepById(id: string): Promise<Change | null>
}

/** A command that reads more than a browser holds. `report` is handed on to whoever asked. */
interface ServerCommand<Args> {
  args: z.ZodType<Args>
  /** The maps, topics and whatever else it is told to look at: all of it must be open to whoever asks. */
  names(args: Args): readonly string[]
  /** Whether it looks at nothing beyond the maps on which that stands. */
  isLocal: boolean
  run(setting: Setting, args: Args): Promise<Outcome & { report?: unknown }>
}

const command = <Args>(
  args: z.ZodType<Args>,
  names: ServerCommand<Args>['names'],
  run: ServerCommand<Args>['run'],
): ServerCommand<Args> => ({ args, names, run, isLocal: false })

/** One that looks at nothing beyond the maps on which what it names stands, as a browser that has them open. */
const local = <Args>(...given: Parameters<typeof command<Args>>): ServerCommand<Args> => ({
  ...command(...given),
  isLocal: true,
})

/** Letters of a calendar that is brought in. */
const MOST_CALENDAR = 2_000_000

function readable(text: string, zone: string) {
  try {
    return readCalendar(text, zone)
  } catch (error) {
    if (error instanceof RangeError) return refuse('invalid', error.message)
    throw error
  }
}

const Links = z.array(CrosslinkId).min(1).max(10_000)

const commands = {
  'bring-back': command(
    z.strictObject({ topic: TopicId }),
    ({ topic }) => [topic],
    async ({ records }, args) => bringBack(records, args, newIds),
  ),
  'split-off': command(
    z.strictObject({ parts: Parts }),
    ({ parts }) => parts.flatMap((part) => ('row' in part ? part.row : [part.topic])),
    async ({ records }, args) => splitOffAll(records, args, newIds),
  ),
  'put-into-folder': command(
    z.strictObject({ maps: z.array(MapId).min(1).max(1_000), folder: FolderId.nullable() }),
    ({ maps }) => maps,
    async ({ records }, args) => putIntoFolder(records, args, newIds),
  ),
  'place-in-atlas': command(
    z.strictObject({
      places: z
        .array(z.strictObject({ map: MapId, at: AtlasPlace.nullable() }))
        .min(1)
        .max(10_000),
    }),
    ({ places }) => places.map(({ map }) => map),
    async ({ records }, args) => placeInAtlas(records, args, newIds),
  ),
  'hang-map': command(
    z.strictObject({ map: MapId, behind: MapId }),
    ({ map, behind }) => [map, behind],
    async ({ records }, args) => hangMap(records, args, newIds),
  ),
  'duplicate-map': command(
    z.strictObject({ map: MapId, withChildren: z.boolean() }),
    ({ map }) => [map],
    async ({ records }, args) => duplicateMap(records, args, newIds),
  ),
  'tell-apart': local(
    z.strictObject({ a: TopicId, b: TopicId }),
    ({ a, b }) => [a, b],
    async ({ records }, args) => tellApart(records, args, newIds),
  ),
  'make-doorway': command(
    z.strictObject({ topic: TopicId, map: MapId }),
    ({ topic, map }) => [topic, map],
    async ({ records }, args) => makeDoorway(records, args, newIds),
  ),
  'choose-home-doorway': command(
    z.strictObject({ topic: TopicId }),
    ({ topic }) => [topic],
    async ({ records }, args) => chooseHomeDoorway(records, args, newIds),
  ),
  'close-doorway': command(
    z.strictObject({ topic: TopicId }),
    ({ topic }) => [topic],
    async ({ records }, args) => closeDoorway(records, args, newIds),
  ),
  'trash-maps': command(
    z.strictObject({ maps: z.array(MapId).min(1).max(1_000) }),
    ({ maps }) => maps,
    async ({ records }, args) => trashMaps(records, args, newIds),
  ),
  'restore-topic': command(
    z.strictObject({ topic: TopicId }),
    ({ topic }) => [topic],
    async ({ records }, args) => restoreTopic(records, args, newIds),
  ),
  'restore-map': command(
    z.strictObject({ map: MapId }),
    ({ map }) => [map],
    async ({ records }, args) => restoreMap(records, args, newIds),
  ),
  merge: command(
    z.strictObject({ plan: Plan }),
    ({ plan }) => [plan.target, ...plan.sources, ...plan.decisions.flatMap(topicsOf)],
    async ({ records }, args) => mergeMaps(records, args, newIds),
  ),
  'send-to-map': command(
    z.strictObject({ topics: z.array(TopicId).min(1).max(1_000), map: MapId, copies: z.boolean() }),
    ({ topics, map }) => [map, ...topics],
    async ({ records }, args) => sendToMap(records, args, newIds),
  ),
  'gather-topics': command(
    z.strictObject({
      topics: z.array(TopicId).min(1).max(1_000),
      into: z.union([z.strictObject({ drawer: MapId }), z.strictObject({ branch: TopicId })]),
      copies: z.boolean(),
    }),
    ({ topics, into }) => ['drawer' in into ? into.drawer : into.branch, ...topics],
    async ({ records }, args) => gatherTopics(records, args, newIds),
  ),
  'draw-links': local(
    z.strictObject({ crosslinks: Links, drawn: Drawn }),
    ({ crosslinks }) => crosslinks,
    async ({ records }, args) => drawCrosslinks(records, args, newIds),
  ),
  'remove-links': command(
    z.strictObject({ crosslinks: Links }),
    ({ crosslinks }) => crosslinks,
    async ({ records }, args) => removeCrosslinks(records, args, newIds),
  ),
  'set-dates': local(
    z.strictObject({ topics: z.array(TopicId).min(1).max(1_000), dates: Dates.nullable() }),
    ({ topics }) => topics,
    async ({ records }, args) => setDates(records, args, newIds),
  ),
  'set-task': local(
    z.strictObject({ topics: z.array(TopicId).min(1).max(1_000), task: TaskState.nullable(), today: Day }),
    ({ topics }) => topics,
    async ({ records }, args) => setTask(records, args, newIds),
  ),
  'keep-clipping': local(
    z.strictObject({
      at: z.union([z.strictObject({ drawer: MapId }), z.strictObject({ topic: TopicId })]),
      text: z.string().max(MAX_TOPIC_TEXT),
      note: z.string().max(MAX_NOTE_TEXT),
      quote: z.string().max(MAX_NOTE_TEXT),
      address: z.string().max(MAX_ADDRESS),
    }),
    ({ at }) => ['drawer' in at ? at.drawer : at.topic],
    async ({ records }, args) => keepClipping(records, args, newIds),
  ),
  'bring-calendar': command(
    z.strictObject({
      map: MapId,
      name: z.string().max(MAX_TITLE),
      text: z.string().max(MOST_CALENDAR),
      zone: z.string().max(100).default('UTC'),
    }),
    ({ map }) => [map],
    async ({ records }, { map, name, text, zone }) => {
      const calendar = readable(text, zone)
      const outcome = bringCalendar(records, { map, name: calendar.name || name, items: calendar.items }, newIds)
      return { ...outcome, report: { entries: calendar.items.length, unread: calendar.unread } }
    },
  ),
  'rename-file': command(
    z.strictObject({ file: FileId, name: z.string().max(MAX_TITLE) }),
    ({ file }) => [file],
    async ({ records }, args) => renameFile(records, args, newIds),
  ),
  'trash-files': command(
    z.strictObject({ files: z.array(FileId).min(1).max(1_000) }),
    ({ files }) => files,
    async ({ records }, args) => trashFiles(records, args, newIds),
  ),
  'change-tag': command(
    z.strictObject({ tag: TagId, name: z.string().max(100), tone: z.int().min(0).max(7).nullable() }),
    () => [],
    async ({ records }, args) => changeTag(records, args, newIds),
  ),
  'bring-again': command(
    PagesAsked.extend({ gone: z.array(MapId).max(2_000) }),
    ({ gone }) => gone,
    async ({ records, collection }, { pages, files, gone }) => {
      const paths = new Map(files.map(({ path, file }) => [path, file]))
      const outcome = bringAgain(records, { collection, pages, files: paths, gone }, newIds)
      return { change: outcome.change, select: outcome.select, report: { unread: outcome.unread, maps: outcome.maps } }
    },
  ),
  'carry-note': command(
    z.strictObject({ of: TopicId, also: TopicId }),
    ({ of, also }) => [of, also],
    async ({ records }, args) => carryNote(records, args, newIds),
  ),
  'change-search': command(
    z.strictObject({ search: SearchId, name: z.string().max(200), asked: SearchAsked }),
    ({ asked }) => (asked.map ? [asked.map] : []),
    async ({ records }, args) => changeSearch(records, args, newIds),
  ),
  'remove-search': command(
    z.strictObject({ search: SearchId }),
    () => [],
    async ({ records }, args) => removeSearch(records, args, newIds),
  ),
  'merge-tags': command(
    z.strictObject({ into: TagId, tags: z.array(TagId).min(1).max(200) }),
    () => [],
    async ({ records }, args) => mergeTags(records, args, newIds),
  ),
  'remove-tag': command(
    z.strictObject({ tag: TagId }),
    () => [],
    async ({ records }, args) => removeTag(records, args, newIds),
  ),
  link: local(
    z.strictObject({ from: TopicId, to: LinkEnd, drawn: Drawn }),
    ({ from, to }) => [from, to.id],
    async ({ records }, args) => addCrosslink(records, args, newIds),
  ),
  // Which maps it touches is known when it is found, and asked for as for any change.
  undo: command(
    z.strictObject({ change: ChangeId }),
    () => [],
    async ({ records, stepById }, args) => {
      const undone = (await stepById(args.change)) ?? refuse('gone', 'This change is not known here.')
      const { change, leftAlone } = undoChange(records, undone, ChangeId.parse(newIds.newId()))
      return {
        change: change ?? refuse('gone', 'Others have changed all of this since; there is nothing left to take back.'),
        select: [],
        report: { leftAlone },
      }
    },
  ),
} as const

export type CommandName = keyof typeof commands
export const isCommandName = (name: string): name is CommandName => Object.hasOwn(commands, name)

const NOT_THERE = 'What this is about is not there, or not open to you.'

/** What a command can be told to look at. */
const NAMED = ['topic', 'map', 'enclosure', 'note', 'crosslink', 'file'] as const

/**
 * Whether what is named is open to somebody: a part of it stands on a map that they may read. What is not there is as what is
 * not open; for who reads everything it is the command's to refuse.
 */
function isNamedOpen(records: Records, id: string, reach: Reach): boolean {
  if (reachesAll(reach)) return true
  return NAMED.some((kind) => {
    const record = records.get(kind, id)
    return record !== undefined && [...standsOn(records, kind, record)].some((map) => mayRead(reach, map))
  })
}

/** What a command comes to for a collection as it is now, with the number of the last change that was known. */
export async function computeCommand({ collection, reach }: Member, name: CommandName, args: unknown) {
  const { args: schema, names, isLocal, run } = commands[name] as ServerCommand<unknown>
  const parsed = schema.safeParse(args)
  if (!parsed.success)
    throw new Failure(400, `This command cannot be understood: ${parsed.error.issues[0]?.message ?? 'invalid'}`)
  const named = names(parsed.data)
  const { records, number } = await (isLocal ? mapsAround(collection, named) : wholeCollection(collection))
  if (!named.every((id) => isNamedOpen(records, id, reach))) throw new Failure(404, NOT_THERE)
  const stepById = async (step: string): Promise<Change | null> => {
    const [parts, job] = await Promise.all([
      snapshot((client) => changesOfStep(client, collection, step)),
      jobOf(collection, step),
    ])
    if (job && !isFinished(job.state)) refuse('invalid', 'This is still going on. Cancel it instead.')
    return parts[0] ? { ...parts[0], edits: joinEdits(parts.flatMap(({ edits }) => edits)) } : null
  }
  const { change, select, report } = await run(
    { records, collection: collection as CollectionId, stepById },
    parsed.data,
  )
  const kept = withKeptPlaces(records, change, { fonts: ALL_FONTS, countTopics: () => 0 })
  return { number, change: kept, select, report: report ?? null }
}
