import { FileId, MapId, TagId, type TopicId } from '../records/ids'
import { type AnyRecord, kinds, type RecordByKind } from '../records/kinds'
import type { Records } from '../records/records'
import { type End, withEnds } from '../records/reference-path'
import type { CopyOf, TopicRecord } from '../records/topic'
import { foldForFinding } from '../text/folding'
import { command, named } from './command'
import { duplicateMap } from './copy-map'

interface Adopted {
  /** The records of the other collection. */
  there: Records
  map: MapId
  /** What its topics said when they came into that collection, where that is known, so that a merge can be made three ways. */
  first: ReadonlyMap<TopicId, CopyOf>
}

/**
 * Copies a map of another collection into this one, with notes, files, web links, and what links its topics with one another. Tags are
 * those of the same name here, or new ones. Doorways become ordinary topics: the maps behind them stay where they are. Refused where the
 * map is gone. O(its topics, with what they carry).
 */
export const adoptMap = command((change, { there, map, first }: Adopted) => {
  const { title } = there.need('map', map)
  const copy = duplicateMap(there, { map, withChildren: false }, { newId: () => change.newId(MapId) })
  const ids = new Map<string, string>()
  const own = new Map(
    [...change.records.all('tag')].filter(({ trashed }) => !trashed).map((tag) => [nameOf(tag), tag.id]),
  )
  const brought = ({ kind, id }: End): string => {
    if (kind !== 'file' && kind !== 'tag') return id
    const known = ids.get(id)
    if (known) return known
    const made =
      kind === 'file'
        ? change.create('file', { ...there.need('file', FileId.parse(id)), id: change.newId(FileId), trashed: false })
            .id
        : tagLike(there.need('tag', TagId.parse(id)))
    ids.set(id, made)
    return made
  }
  const tagLike = (tag: RecordByKind['tag']): string => {
    const known = own.get(nameOf(tag))
    return known ?? change.create('tag', { ...tag, id: change.newId(TagId), trashed: false }).id
  }
  for (const { kind, before, after } of copy.change.edits) {
    if (before !== null) continue
    const record = withEnds(after as AnyRecord, kinds[kind].references, brought)
    if (kind === 'map') change.create('map', { ...(record as RecordByKind['map']), title, folder: null, inAtlas: null })
    else if (kind === 'topic') {
      const topic = record as TopicRecord
      const original = topic.copyOf && there.get('topic', topic.copyOf.topic)
      const base = original ? first.get(original.id) : undefined
      const copyOf = original && base ? { ...base, topic: original.copyOf?.topic ?? base.topic } : null
      // What was gathered on one map there has none here.
      const gathers = topic.gathers?.map ? null : topic.gathers
      change.create('topic', { ...topic, opensMap: null, gathers, copyOf })
    } else change.create(kind, record as RecordByKind[typeof kind])
  }
  return { label: `Bring in ${named(title)}`, select: copy.select }
})

const nameOf = ({ name }: { name: string }): string => foldForFinding(name.trim())
