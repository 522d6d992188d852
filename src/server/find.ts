import { onlyMaps } from '../core/rights/grant'
import { database } from './database'
import type { Member } from './http/endpoint'
import { type FoundRow, search } from './search/search'
import { type SearchedKind, searchedWords } from './search/search-index'

export interface Found {
  kind: 'topic' | 'map' | 'enclosure'
  id: string
  /** Where it is: the topic itself, or the first one inside an enclosure. */
  topic: string | null
  map: string
  mapTitle: string
  text: string
}

/** What lies behind a topic: a note that it carries, a web link or a file on it. */
export interface FoundBehind {
  kind: 'note' | 'comment' | 'weblink' | 'file' | 'file text'
  id: string
  topic: string
  topicText: string
  map: string
  mapTitle: string
  /** Of a note the words around the first that was looked for, of a file its name, of a web link its name or address. */
  text: string
  /** Of what stands in a file the page. */
  page: number | null
  file: string | null
}

/** Of each kind so many. */
const [MOST_ON_MAPS, MOST_BEHIND] = [30, 12]

/**
 * Maps, enclosures and topics whose text or title contains all words, in any order; where these are few, followed by those that contain
 * words nearly like them. What lies in the trash is left out, and so is what is not open to whoever asks.
 */
export async function find(member: Member, asked: string): Promise<Found[]> {
  if (searchedWords(asked).length === 0) return findSigns(member, asked)
  const asking = { words: asked, map: null, tag: null, conditions: null, most: MOST_ON_MAPS }
  const { rows, isPartial } = await search(member, { ...asking, kinds: ['map', 'enclosure', 'topic'] })
  // Where the index is still being made, what was found in it may be next to nothing.
  if (isPartial) return findSigns(member, asked)
  return rows.flatMap((row) => {
    if (!isOn(row, 'map', 'enclosure', 'topic')) return []
    const { topicText: _, page: __, file: ___, ...found } = row
    return found
  })
}

/** Files, web links and notes that contain all words, by the topics that carry them. */
export async function findBehind(member: Member, asked: string): Promise<FoundBehind[]> {
  const { rows } = await search(member, {
    words: asked,
    kinds: ['file', 'weblink', 'note', 'comment', 'file text'],
    map: null,
    tag: null,
    conditions: null,
    most: MOST_BEHIND,
  })
  return rows.flatMap((row) =>
    isOn(row, 'file', 'weblink', 'note', 'comment', 'file text') && isCarried(row) ? row : [],
  )
}

const isOn = <Kind extends SearchedKind>(
  row: FoundRow,
  ...kinds: readonly Kind[]
): row is FoundRow & { kind: Kind; map: string; mapTitle: string } =>
  (kinds as readonly string[]).includes(row.kind) && row.map !== null

const isCarried = <Row extends FoundRow>(row: Row): row is Row & { topic: string; topicText: string } =>
  row.topic !== null

/** Topics in which signs stand, which are in no index of words, or parts of words: by reading all texts of the collection. */
async function findSigns({ collection, reach }: Member, asked: string): Promise<Found[]> {
  const signs = asked.split(/\s+/).filter(Boolean)
  if (signs.length === 0) return []
  const patterns = signs.map((sign) => `%${sign.replace(/[\\%_]/g, '\\$&')}%`)
  return (await database().query<Found>(WITH_SIGNS, [collection, patterns, onlyMaps(reach), MOST_ON_MAPS])).rows
}

const WITH_SIGNS = `
  SELECT 'topic' AS kind, t.id, t.id AS topic, t.map, m.title AS "mapTitle", t.text
  FROM topic t JOIN map m ON m.collection = $1 AND m.id = t.map
  WHERE t.collection = $1 AND NOT t.trashed AND t.place <> 'to place' AND NOT m.trashed AND t.text ILIKE ALL($2)
    AND ($3::uuid[] IS NULL OR t.map = ANY($3))
    AND NOT EXISTS (
      WITH RECURSIVE above(parent, trashed) AS (
        SELECT t.parent, false UNION SELECT a.parent, a.trashed FROM above JOIN topic a ON a.collection = $1 AND a.id = above.parent
      ) SELECT 1 FROM above WHERE trashed)
  ORDER BY length(t.text), t.id LIMIT $4`
