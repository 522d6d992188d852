import { z } from 'zod'
import { type AnyRecord, kinds, RECORD_KINDS, type RecordKind } from '../../records/kinds'
import { BARE_TOPIC } from '../../records/topic'

/**
 * A collection as a folder of open formats, from which it comes back as it was; described in docs/formats.md.
 *
 * ```
 * collection.json           what belongs to no map: the collection itself, tags, looks, templates, kept searches, pages that were brought in, files by their paths
 * maps/01-water.md          a map that anyone can read and edit: headings, lists, notes
 * maps/01-water.json        what CommonMark cannot say of it: ids, places, looks, badges, dates, links, …
 * files/plan.csv            files as they are
 * ```
 */
export const FORMAT = 'folvet collection'
export const VERSION = 1
export const INDEX_PATH = 'collection.json'

/** A text file of the folder. */
export interface FolderText {
  path: string
  text: string
}

/** Kinds that stand in `collection.json` as a whole; all others belong to a map. */
export const WHOLE_KINDS = [
  'tag',
  'look',
  'template',
  'folder',
  'search',
  'page',
] as const satisfies readonly RecordKind[]

const ELSEWHERE: readonly RecordKind[] = ['collection', 'map', 'topic', 'note', 'file', ...WHOLE_KINDS]
/** Kinds that stand in the file of a map beside its topics and their notes. */
export const MAP_KINDS = RECORD_KINDS.filter((kind) => !ELSEWHERE.includes(kind))

const { note: _, ...usual } = BARE_TOPIC
/** Everything of a topic besides where it hangs and what it says, which the page tells: as it usually is. */
export const USUAL_TOPIC = usual
const shape = kinds.topic.schema.shape
const NoteText = z.strictObject({
  id: kinds.note.schema.shape.id,
  /** The text, where the page cannot say it to the letter, with how it reads on the page. */
  exact: z.strictObject({ text: z.string(), asRead: z.string() }).optional(),
})

/** A topic of a page, in the order in which it stands there. */
export const PageTopic = z.strictObject({
  id: shape.id,
  /** How deep it stands on the page (0 is the root), and what it says there: so it is found again after editing. */
  level: z.number().int().min(0),
  says: z.string(),
  /** Its text, where the page cannot say it to the letter. */
  exact: z.string().optional(),
  note: NoteText.optional(),
  /** Its rank and side among its siblings, and its point, as far as it has them. */
  rank: z.string().optional(),
  side: z.enum(['left', 'right']).optional(),
  point: z.strictObject({ x: z.number(), y: z.number() }).optional(),
  isLoose: z.literal(true).optional(),
  fields: z.record(z.string(), z.unknown()).optional(),
})
export type PageTopic = z.infer<typeof PageTopic>

const records = z.record(z.string(), z.array(z.record(z.string(), z.unknown())))

export const MapFile = z.strictObject({
  format: z.literal(`${FORMAT}: map`),
  version: z.literal(VERSION),
  map: z.record(z.string(), z.unknown()),
  topics: z.array(PageTopic).min(1),
  /** The path of the page from which the map came, where it stands as it came: then it is read as that was. */
  source: z.string().optional(),
  /** Topics that lie in the trash, whole, with their notes; and all other kinds of records of the map, by kind. */
  records,
})
export type MapFile = z.infer<typeof MapFile>

export const IndexFile = z.strictObject({
  format: z.literal(FORMAT),
  version: z.number().int(),
  collection: z.record(z.string(), z.unknown()),
  /** The maps by the names of their two files, without ending. */
  maps: z.array(z.string().regex(/^[^/\\]+$/)).max(100_000),
  files: z.array(z.strictObject({ path: z.string(), record: z.record(z.string(), z.unknown()) })),
  records,
})
export type IndexFile = z.infer<typeof IndexFile>

/** What an object is known by stands first. */
const FIRST = ['format', 'version', 'id']
const keyOrder = (key: string) => (FIRST.includes(key) ? `0${FIRST.indexOf(key)}` : `1${key}`)

/** JSON as it is written: keys in one order whatever made the objects, two spaces, ending in a line break. */
export function toJson(value: unknown): string {
  const ordered = (_: string, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (keyOrder(a) < keyOrder(b) ? -1 : 1)))
      : part
  return `${JSON.stringify(value, ordered, 2)}\n`
}

export const byId = (a: AnyRecord, b: AnyRecord): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
