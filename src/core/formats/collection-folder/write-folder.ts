import { shortFileName } from '../../records/file-name'
import { kinds, type RecordByKind, type RecordKind } from '../../records/kinds'
import { hangs } from '../../records/place'
import type { Records } from '../../records/records'
import { endsOf } from '../../records/reference-path'
import type { TopicRecord } from '../../records/topic'
import { foldForAddress } from '../../text/folding'
import { topicsInOrder } from '../../tree/walk'
import {
  byId,
  FORMAT,
  type FolderText,
  INDEX_PATH,
  type IndexFile,
  MAP_KINDS,
  type MapFile,
  type PageTopic,
  toJson,
  USUAL_TOPIC,
  VERSION,
  WHOLE_KINDS,
} from './form'
import { type PageLine, readPage, readSourcePage, writePage } from './page'

/** A collection as files: texts, and the files of the collection by the paths at which their content stands. */
export interface Folder {
  texts: FolderText[]
  files: { path: string; file: RecordByKind['file'] }[]
}

const MOST_NAME_BYTES = 80

/** Names in one folder, each once. */
class Names {
  private readonly taken = new Set<string>()

  take(wanted: string): string {
    const dot = wanted.lastIndexOf('.')
    const [stem, ending] = dot > 0 ? [wanted.slice(0, dot), wanted.slice(dot)] : [wanted, '']
    let name = wanted
    for (let n = 2; this.taken.has(name.toLowerCase()); n++) name = `${stem}-${n}${ending}`
    this.taken.add(name.toLowerCase())
    return name
  }
}

/**
 * Writes a collection as a folder (see `form.ts`). Nothing is left out: what lies in the trash and what nobody refers to
 * comes along. The same records give the same files. Linear in the records.
 */
export function writeFolder(records: Records, collection: string): Folder {
  const names = new Names()
  const fileNames = new Names()
  const files = sorted(records, 'file').map((file) => ({ path: `files/${fileNames.take(file.name)}`, file }))
  const maps = sorted(records, 'map')
  const texts: FolderText[] = []
  const index: IndexFile = {
    format: FORMAT,
    version: VERSION,
    collection: { ...records.need('collection', collection) },
    maps: [],
    files: files.map(({ path, file }) => ({ path, record: { ...file } })),
    records: {},
  }
  const told = new Set<string>()
  const digits = Math.max(2, String(maps.length).length)
  maps.forEach((map, i) => {
    const words = foldForAddress(map.title) || 'map'
    const name = names.take(shortFileName(`${String(i + 1).padStart(digits, '0')}-${words}`, MOST_NAME_BYTES))
    index.maps.push(name)
    const { page, file } = writeMap(records, map, told)
    texts.push({ path: `maps/${name}.md`, text: page }, { path: `maps/${name}.json`, text: toJson(file) })
  })
  for (const kind of WHOLE_KINDS) index.records[kind] = sorted(records, kind).map((record) => ({ ...record }))
  // Notes that no topic carries any more.
  index.records.note = sorted(records, 'note').flatMap((note) => (told.has(note.id) ? [] : { ...note }))
  return { texts: [{ path: INDEX_PATH, text: toJson(index) }, ...texts], files }
}

const sorted = <K extends RecordKind>(records: Records, kind: K): RecordByKind[K][] => [...records.all(kind)].sort(byId)

/** `told` gathers the notes whose text stands somewhere. */
function writeMap(records: Records, map: RecordByKind['map'], told: Set<string>): { page: string; file: MapFile } {
  const shown = [...topicsInOrder(records, map.id)]
  const levels = new Map<string, number>()
  const lines: PageLine[] = []
  const ownNotes = new Set<string>()
  for (const topic of shown) {
    const level = hangs(topic.place) ? levels.get(topic.place.parent)! + 1 : topic.place.kind === 'root' ? 0 : 1
    levels.set(topic.id, level)
    const note = records.get('note', topic.note)
    const tellsNote = note !== undefined && !note.trashed && note.joinedInto === null && !told.has(note.id)
    if (tellsNote) {
      told.add(note.id)
      ownNotes.add(topic.id)
    }
    lines.push({ level, text: topic.text, note: tellsNote ? note.text : '', links: [] })
  }
  const source = sourceOf(records, map, shown, lines)
  const { page, read } = source ?? pageOf(lines)
  const topics = shown.map((topic, i) => pageTopic(topic, lines[i]!, read[i], ownNotes.has(topic.id), records))
  const others = [...records.topicsOf(map.id)].filter((topic) => !levels.has(topic.id)).sort(byId)
  const file: MapFile = {
    format: `${FORMAT}: map`,
    version: VERSION,
    map: { ...map },
    topics,
    ...(source ? { source: source.path } : {}),
    records: { ...belongings(records, [...shown, ...others]) },
  }
  file.records.topic = others.map((topic) => ({ ...topic }))
  file.records.note = [...shown, ...others]
    .flatMap(({ note }) => records.get('note', note) ?? [])
    .filter((note) => !told.has(note.id) && told.add(note.id))
    .map((note) => ({ ...note }))
  return { page, file }
}

/** The page from which a map came, as it came, where the map says still what it said then; null for any other map. */
function sourceOf(
  records: Records,
  map: RecordByKind['map'],
  shown: readonly TopicRecord[],
  lines: readonly PageLine[],
): { page: string; read: PageLine[]; path: string } | null {
  const reference = kinds.page.references.find(({ path }) => path === 'map')!
  const [came] = [...records.referring('page', reference, { kind: 'map', id: map.id })].filter(
    ({ trashed }) => !trashed,
  )
  if (!came || !/\.(md|markdown|txt)$/i.test(came.path) || came.topics.length !== shown.length) return null
  const read = readSourcePage({ path: came.path, text: came.text })
  const isSame = shown.every(({ id, text }, i) => {
    const was = read[i]
    if (id !== came.topics[i] || was?.level !== lines[i]!.level) return false
    return (was.text === text || was.text.trim() === '') && withoutTargets(was.note) === withoutTargets(lines[i]!.note)
  })
  return isSame && read.length === shown.length ? { page: came.text, read, path: came.path } : null
}

/** A note whose links lead nowhere: those inside of an import lead to what came of it. */
const withoutTargets = (note: string): string => note.trim().replace(/(\]\(|\]: )<?[^)\s]*/g, '$1')

/** A page that reads back as the topics that it was written from, whatever their texts. */
function pageOf(lines: readonly PageLine[]): { page: string; read: PageLine[] } {
  const page = writePage(lines)
  const read = readPage(page, '')
  const isSame = read.length === lines.length && read.every(({ level }, i) => level === lines[i]!.level)
  if (isSame) return { page, read }
  const cautious = writePage(lines, true)
  return { page: cautious, read: readPage(cautious, '') }
}

function pageTopic(
  topic: TopicRecord,
  line: PageLine,
  read: PageLine | undefined,
  ownsNote: boolean,
  records: Records,
): PageTopic {
  const { place } = topic
  const says = read?.text ?? ''
  const note = records.get('note', topic.note)
  const fields: Record<string, unknown> = {}
  for (const field of Object.keys(USUAL_TOPIC) as (keyof typeof USUAL_TOPIC)[])
    if (JSON.stringify(topic[field]) !== JSON.stringify(USUAL_TOPIC[field])) fields[field] = topic[field]
  if (topic.note && !ownsNote) fields.note = topic.note
  return {
    id: topic.id,
    level: line.level,
    says,
    ...(says === topic.text ? {} : { exact: topic.text }),
    ...(ownsNote && note
      ? {
          note: {
            id: note.id,
            ...(read?.note === note.text ? {} : { exact: { text: note.text, asRead: read?.note ?? '' } }),
          },
        }
      : {}),
    ...(hangs(place) ? { rank: place.rank } : {}),
    ...(hangs(place) && place.side ? { side: place.side } : {}),
    ...(place.kind === 'by hand' || place.kind === 'loose' ? { point: { x: place.x, y: place.y } } : {}),
    ...(place.kind === 'loose' ? { isLoose: true as const } : {}),
    ...(Object.keys(fields).length > 0 ? { fields } : {}),
  }
}

/** Records of other kinds that are inside topics: each stands with the first topic that it is in. */
function belongings(records: Records, topics: readonly TopicRecord[]): Record<string, Record<string, unknown>[]> {
  const found: Record<string, Record<string, unknown>[]> = {}
  for (const kind of MAP_KINDS) {
    const of: RecordByKind[typeof kind][] = []
    for (const reference of kinds[kind].references)
      if (reference.hold === 'inside' && reference.to === 'topic')
        for (const { id } of topics)
          for (const record of records.referring(kind, reference, { kind: 'topic', id }))
            if (endsOf(record, reference)[0]?.id === id) of.push(record)
    found[kind] = of.sort(byId).map((record) => ({ ...record }))
  }
  return found
}
