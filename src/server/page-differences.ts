import { v7 as uuid } from 'uuid'
import type { z } from 'zod'
import { differencesIn, knownPages, type PageDifferences } from '../core/commands/bring-again'
import { Records } from '../core/records/records'
import { wholeCollection } from './collections'
import { snapshot } from './database'
import type { Member } from './http/endpoint'
import type { PagesAsked } from './jobs/import-job'
import { loadInto } from './records/tables'

/** A page from which a map of a collection came. */
export interface KnownPage {
  path: string
  map: string
  title: string
}

/** The pages from which maps came that are there still, by path. */
export async function knownPagesOf({ collection }: Member): Promise<KnownPage[]> {
  const records = await snapshot(async (client) => {
    const held = new Records()
    await loadInto(held, client, 'page', collection)
    await loadInto(held, client, 'map', collection)
    return held
  })
  return [...knownPages(records).values()]
    .map(({ path, map }) => ({ path, map, title: records.need('map', map).title }))
    .sort((a, b) => (a.path < b.path ? -1 : 1))
}

/** Of each kind of difference so many are told a page. */
const MOST_TOLD = 40

/** What is different in pages since they were last brought in, and how much of each kind. Changes nothing. */
export async function pageDifferences({ collection }: Member, { pages }: z.infer<typeof PagesAsked>) {
  const { records } = await wholeCollection(collection)
  return differencesIn(records, pages, { newId: uuid }).map((page) => {
    const counts: Record<string, number> = {}
    const told: Record<string, unknown> = {}
    for (const kind of KINDS) {
      counts[kind] = page[kind].length
      told[kind] = page[kind].slice(0, MOST_TOLD)
    }
    return { ...page, ...told, counts }
  })
}

const KINDS = ['added', 'removed', 'moved', 'reworded', 'noted', 'both'] as const satisfies (keyof PageDifferences)[]
