import { z } from 'zod'
import { MapId, PageId, TopicId } from './ids'
import { defineKind, inside } from './kind'
import { storedText } from './text'

/** Longest page that is brought in, in UTF-16 code units, and longest path. */
export const MAX_PAGE_TEXT = 10_000_000
export const MAX_PAGE_PATH = 500

/**
 * Where a map came from: a page of a folder, as it was when it was last brought in. Against that it is held when the page comes once
 * more, so that what was changed at the source can be told from what was changed here.
 */
export const PageRecord = z.strictObject({
  id: PageId,
  map: MapId,
  /** Inside of the folder, with `/`. */
  path: storedText(MAX_PAGE_PATH).min(1),
  text: storedText(MAX_PAGE_TEXT),
  /**
   * The topics that the page became, in its reading order, the root first. No references: nothing is followed or shown, so one that is
   * gone does no harm.
   */
  topics: z.array(TopicId),
  trashed: z.boolean(),
})
export type PageRecord = z.infer<typeof PageRecord>

export const pageKind = defineKind(PageRecord, {
  references: [inside('map', 'map', 'The map that came of this page', { seen: 'nowhere', copied: false })],
})
