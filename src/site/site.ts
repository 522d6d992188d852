import { ALL_ICONS } from '../core/badges/all-icons'
import { type GatheredTopics, MapTeller } from '../core/document/map-document'
import { backdropOf } from '../core/look/styles'
import type { FileRecord } from '../core/records/file'
import { RECORD_KINDS } from '../core/records/kinds'
import { Records } from '../core/records/records'
import { ALL_FONTS } from '../core/text/all-fonts'
import { topicsInOrder } from '../core/tree/walk'
import { Addresses, publishedMaps } from './addresses'
import { indexPage, notFoundPage } from './index-page'
import { mapPage } from './map-page'
import { searchIndex } from './search-index'

/** A file of the site: made here, or a file of the collection that whoever writes the site looks up by its record. */
export type SiteFile = { path: string; type: string; content: string | Uint8Array } | { path: string; file: FileRecord }

/** What the site needs that is no record: its style, its script and its fonts. */
export interface SiteAsset {
  path: string
  type: string
  content: string | Uint8Array
}

export interface Progress {
  done: number
  total: number
}

/**
 * Makes the site of a collection, file by file, in one order. Pure: the same records and assets give the same bytes.
 * Nothing tells of comments. With `only`, of some maps: nothing of the others is in it, and nothing leads there. `gathered` says what each gathered list found. Each step tells how far it is, so that the caller can show progress, breathe, or stop.
 */
export function* buildSite(
  held: Records,
  collection: string,
  assets: readonly SiteAsset[],
  only: ReadonlySet<string> | null = null,
  gathered: GatheredTopics = new Map(),
): Generator<{ files: SiteFile[]; progress: Progress }> {
  const records = withoutComments(held)
  const { title, homeMap } = records.need('collection', collection)
  const addresses = new Addresses(publishedMaps(records, only))
  const counts = new Map<string, number>()
  for (const map of addresses.published) counts.set(map.id, [...topicsInOrder(records, map.id)].length)
  const countTopics = (map: string) => counts.get(map) ?? 0
  const teller = new MapTeller(records, (map) => addresses.map(map) !== undefined, gathered)
  const total = addresses.published.length + 3
  let done = 0
  const step = (files: SiteFile[]) => ({ files, progress: { done: ++done, total } })

  yield step([...assets])
  for (const map of addresses.published)
    yield step([
      page(
        addresses.map(map.id)!,
        mapPage(records, map, title, addresses, teller, { fonts: ALL_FONTS, icons: ALL_ICONS, countTopics }),
      ),
      ...attachedFiles(records, map.id, addresses),
    ])
  yield step(
    searchIndex(records, addresses).map(({ path, content }) => ({
      path,
      type: 'text/javascript; charset=utf-8',
      content,
    })),
  )
  yield step([
    page('index.html', indexPage(records, title, homeMap, addresses, countTopics)),
    page('404.html', notFoundPage(title)),
  ])
}

/** Comments are for those who work on a collection: in its site nothing tells that there are any. */
function withoutComments(records: Records): Records {
  if (records.count('comment') === 0) return records
  const told = new Records()
  for (const kind of RECORD_KINDS)
    if (kind !== 'comment') for (const record of records.all(kind)) told.put(kind, record as never)
  return told
}

const page = (path: string, content: string): SiteFile => ({ path, type: 'text/html; charset=utf-8', content })

/** The files on the topics of a map, its pictures, and what lies behind it. */
function attachedFiles(records: Records, map: string, addresses: Addresses): SiteFile[] {
  const ids = new Set<string | null>([backdropOf(records, map).picture])
  for (const topic of topicsInOrder(records, map)) {
    for (const attachment of records.attachments(topic.id)) ids.add(attachment.file)
    ids.add(topic.picture?.file ?? null)
  }
  return [...ids].flatMap((id) => {
    const file = records.get('file', id)
    return file ? [{ path: decodeURIComponent(addresses.file(file)), file }] : []
  })
}
