import { v7 as uuid } from 'uuid'
import { applyEdits, type Edit } from '../../core/changes/edit'
import { Refusal } from '../../core/changes/problem'
import { importPages } from '../../core/commands/import-pages'
import { makeMapFrom } from '../../core/commands/use-template'
import type { Page } from '../../core/formats/page-file'
import { type CollectionId, FileId } from '../../core/records/ids'
import { Records } from '../../core/records/records'
import { today } from '../app/when'

/** Ids of records that are only looked at. */
const ids = { newId: () => uuid() }

/** A map as it would be. */
export interface MapPreview {
  records: Records
  map: string
  title: string
  topics: number
}

/** The maps that edits make, the first ones only; what else they alter is left out. */
function madeBy(edits: readonly Edit[], most: number): MapPreview[] {
  const records = new Records()
  applyEdits(
    records,
    edits.filter(({ before }) => before === null),
  )
  return [...records.all('map')].slice(0, most).map(({ id, title }) => ({
    records,
    map: id,
    title,
    topics: [...records.topicsOf(id)].length,
  }))
}

/** The map that a template makes; null where the template is gone. */
export function previewTemplate(
  records: Records,
  collection: CollectionId,
  template: string,
  name: string,
): MapPreview | null {
  try {
    return madeBy(makeMapFrom(records, { collection, title: name, template, today: today() }, ids).change.edits, 1)[0]!
  } catch (error) {
    if (error instanceof Refusal) return null
    throw error
  }
}

/** What would come of an import: the first of its maps, how many there are, and which links lead nowhere. */
export interface ImportPreview {
  shown: MapPreview[]
  maps: number
  topics: number
  unread: number
}

/** Maps of an import that are shown before they are made. */
const MOST_SHOWN = 4

/** Looks at what pages would become; a sentence where they would become nothing. O(text). */
export function previewImport(
  records: Records,
  collection: CollectionId,
  pages: readonly Page[],
  /** The other files that came along: what leads to them leads somewhere. */
  paths: readonly string[],
): ImportPreview | string {
  try {
    const attached = new Map(paths.map((path) => [path, FileId.parse(ids.newId())]))
    const { change, maps, unread } = importPages(records, { collection, pages, files: attached }, ids)
    return {
      shown: madeBy(change.edits, MOST_SHOWN),
      maps: maps.length,
      topics: change.edits.filter(({ kind, before }) => kind === 'topic' && before === null).length,
      unread: unread.length,
    }
  } catch (error) {
    if (error instanceof Refusal) return error.message
    throw error
  }
}
