import { generateKeyBetween } from 'fractional-indexing'
import { z } from 'zod'
import { FileId, MapId, NoteId, TagId, TopicId } from './ids'
import { LayoutKind, NumberingScheme } from './layout'
import { Look } from './look'
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
 * A topic with a parent has a rank among its siblings; the root has neither parent nor coordinates; the head of a loose
 * branch has no parent but coordinates. A topic with both is placed by hand. Coordinates are those of the upper left
 * corner in map units (px at zoom 1), seen from the middle of the root.
 */
export const Place = z
  .strictObject({
    map: MapId,
    parent: TopicId.nullable(),
    rank: Rank,
    /** Which side of its parent the branch grows on, where the parent sets its children to both sides. */
    side: Side.nullable(),
    x: z.number().min(-1e7).max(1e7).nullable(),
    y: z.number().min(-1e7).max(1e7).nullable(),
  })
  .refine((place) => (place.x === null) === (place.y === null), 'A place has both coordinates or none.')
export type Place = z.infer<typeof Place>

const Day = z.iso.date()
/** One day, or a span of days that ends on its second one, as in ISO 8601. */
export const Dates = z
  .strictObject({ start: Day, end: Day.nullable() })
  .refine(({ start, end }) => end === null || end >= start, 'A span of days ends after it begins.')
export type Dates = z.infer<typeof Dates>

/** Widths between which a topic can be drawn, in px. */
export const [LEAST_WIDTH, MOST_WIDTH] = [40, 1_200]

/** The sides of a picture on a topic, in px. */
export const PICTURE_SIDE = { least: 16, most: 2_000 }

/** A picture above a topic's text, in the size in which it is drawn, in px. */
export const TopicPicture = z.strictObject({
  file: FileId,
  width: z.number().min(PICTURE_SIDE.least).max(PICTURE_SIDE.most),
  height: z.number().min(PICTURE_SIDE.least).max(PICTURE_SIDE.most),
})
export type TopicPicture = z.infer<typeof TopicPicture>

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' })
/** Whether a text is a single sign as people count them, however many code points it takes. */
const isOneSign = (text: string) => text.isWellFormed() && [...graphemes.segment(text)].length === 1

/** `icon:` with the name of one of our icons, or a single emoji. */
export const Badge = z
  .string()
  .regex(/^(icon:[a-z0-9-]{1,60}|\P{ASCII}[^\s<>]{0,30}|[0-9#*]\ufe0f?\u20e3)$/u, 'This is no badge.')
  .refine((badge) => badge.startsWith('icon:') || isOneSign(badge), 'This is no badge.')
export type Badge = z.infer<typeof Badge>

export const TaskState = z.enum(['open', 'begun', 'done'])
export type TaskState = z.infer<typeof TaskState>

/** One item of a map. */
export const TopicRecord = z.strictObject({
  id: TopicId,
  place: Place,
  text: storedText(MAX_TOPIC_TEXT),
  note: NoteId.nullable(),
  /** The map that this topic is a doorway to. */
  opensMap: MapId.nullable(),
  folded: z.boolean(),
  /** How its children are set, where that differs from what is around it. */
  layout: LayoutKind.nullable(),
  /** Width of its text in px, where it was given one. */
  width: z.number().min(LEAST_WIDTH).max(MOST_WIDTH).nullable(),
  /** How the topics below it are numbered, where that differs from what is around it. */
  numbering: NumberingScheme.nullable(),
  /** The number that it keeps, whatever its place. */
  number: storedText(40).min(1).nullable(),
  dates: Dates.nullable(),
  /** Look of this topic alone, and of it with everything below. */
  look: Look.nullable(),
  branchLook: Look.nullable(),
  picture: TopicPicture.nullable(),
  /** In the order in which they stand before the text. */
  badges: z.array(Badge).max(20),
  tags: z.array(TagId).max(50),
  /** Whether it stays on its side when sides are evened out. */
  held: z.boolean(),
  /** Null where there is nothing to do. */
  task: TaskState.nullable(),
  /** Set on the head of a branch that was put into the trash; what is below stays as it is. */
  trashed: z.boolean(),
})
export type TopicRecord = z.infer<typeof TopicRecord>

export const isRoot = (topic: TopicRecord) => topic.place.parent === null && topic.place.x === null
export const isPlacedByHand = (topic: TopicRecord) => topic.place.parent !== null && topic.place.x !== null
