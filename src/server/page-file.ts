import { readFileSync } from 'node:fs'
import { basename } from 'node:path'
import { v7 as uuid } from 'uuid'
import { applyEdits } from '../core/changes/edit'
import { importPages } from '../core/commands/import-pages'
import { CollectionId, type MapId } from '../core/records/ids'
import { parentOf } from '../core/records/place'
import { Records } from '../core/records/records'
import type { TopicRecord } from '../core/records/topic'

/** Ids of records that are held in memory only. */
export const NEW_IDS = { newId: () => uuid() }

/** A map that is nowhere but here. */
export interface HeldMap {
  records: Records
  map: MapId
}

/** Reads an indented text or a CommonMark page as the map that an import would make of it. Throws where it cannot be read or is empty. */
export function mapOfFile(path: string): HeldMap {
  const records = new Records()
  const collection = CollectionId.parse(uuid())
  records.put('collection', {
    id: collection,
    title: basename(path),
    homeMap: null,
    look: null,
    limits: null,
    trashed: false,
  })
  const pages = [{ path: basename(path), text: textOf(path) }]
  const { change, maps } = importPages(records, { collection, pages, files: new Map() }, NEW_IDS)
  applyEdits(records, change.edits)
  return { records, map: maps[0]! }
}

function textOf(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    throw new Error(`${path} is no file that can be read.`)
  }
}

/** The texts on the way to a topic from the root of its map, its own last. */
export function pathTo(records: Records, topic: TopicRecord): string[] {
  const path: string[] = []
  for (let at: TopicRecord | undefined = topic; at; at = records.get('topic', parentOf(at))) path.push(at.text)
  return path.reverse()
}
