import { z } from 'zod'
import { TagId } from './ids'
import { defineKind } from './kind'
import { storedText } from './text'

/** A word that ties together topics of any maps. */
export const TagRecord = z.strictObject({
  id: TagId,
  name: storedText(100).min(1),
  /** Which of the eight tones; null is drawn quiet. */
  tone: z.number().int().min(0).max(7).nullable(),
  trashed: z.boolean(),
})
export type TagRecord = z.infer<typeof TagRecord>

export const tagKind = defineKind(TagRecord, { seenEverywhere: true })
