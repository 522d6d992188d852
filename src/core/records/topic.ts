import { generateKeyBetween } from 'fractional-indexing'
import { z } from 'zod'
import { MapId, NoteId, TopicId } from './ids'
import { MAX_TOPIC_TEXT, storedText } from './text'

export const Side = z.enum(['left', 'right'])
export type Side = z.infer<typeof Side>

const isOrderKey = (key: string) => {
  try {
    generateKeyBetween(key, null)
    return true
  } catch {
    return false
  }
}

/** Keys of `fractional-indexing`: compared by code unit, never by locale. */
export const Rank = z
  .string()
  .regex(/^[0-9A-Za-z]{1,500}$/)
  .refine(isOrderKey, 'This is not an order key.')

/**
 * Where a topic stands. One field that changes as one.
 * A topic with a parent has a rank among its siblings; the root has neither parent nor coordinates;
 * the head of a loose branch has no parent but coordinates in map units (px at zoom 1).
 */
export const Place = z
  .strictObject({
    map: MapId,
    parent: TopicId.nullable(),
    rank: Rank,
    /** Which side of the root the branch grows on. Only set on first-level topics. */
    side: Side.nullable(),
    x: z.number().min(-1e7).max(1e7).nullable(),
    y: z.number().min(-1e7).max(1e7).nullable(),
  })
  .refine((place) => (place.x === null) === (place.y === null), 'A place has both coordinates or none.')
  .refine((place) => place.parent === null || place.x === null, 'A topic that hangs on another has no coordinates.')
export type Place = z.infer<typeof Place>

/** One item of a map. */
export const TopicRecord = z.strictObject({
  id: TopicId,
  place: Place,
  text: storedText(MAX_TOPIC_TEXT),
  note: NoteId.nullable(),
  /** The map that this topic is a doorway to. */
  opensMap: MapId.nullable(),
  folded: z.boolean(),
  /** Set on the head of a branch that was put into the trash; what is below stays as it is. */
  trashed: z.boolean(),
})
export type TopicRecord = z.infer<typeof TopicRecord>

export const isRoot = (topic: TopicRecord) => topic.place.parent === null && topic.place.x === null
