import { z } from 'zod'
import { Dates, TaskState, Work } from './dates'
import { FileId, MapId, NoteId, TagId, TopicId } from './ids'
import { carries, defineKind, inside, names } from './kind'
import { LayoutKind, NumberingScheme } from './layout'
import { Look } from './look'
import { Place } from './place'
import { SearchAsked } from './search'
import { MAX_TOPIC_TEXT, storedText } from './text'

/** Widths between which a topic's text can be set, in px. */
export const TOPIC_WIDTH = { least: 40, most: 1_200 }

/** Most badges, and most tags, of one topic. */
export const MOST_BADGES = 20
export const MOST_TAGS = 50
/** Most topics that are told apart from one. */
export const MOST_APART = 200

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

/**
 * The topic that one was copied from, and what that said then, so that two that were changed apart can be merged three ways. No
 * reference: nothing is followed or shown, so one that is gone does no harm. Of its note a fingerprint is kept (`text/fingerprint`).
 */
export const CopyOf = z.strictObject({
  topic: TopicId,
  text: storedText(MAX_TOPIC_TEXT),
  note: storedText(40).nullable(),
  dates: Dates.nullable(),
  task: TaskState.nullable(),
})
export type CopyOf = z.infer<typeof CopyOf>

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
  width: z.number().min(TOPIC_WIDTH.least).max(TOPIC_WIDTH.most).nullable(),
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
  badges: z.array(Badge).max(MOST_BADGES),
  tags: z.array(TagId).max(MOST_TAGS),
  /** Whether it stays on its side when sides are evened out. */
  held: z.boolean(),
  /** Whether everything below it keeps the place that it was given; at a root everything on the map. See `tree/free.ts`. */
  free: z.boolean().default(false),
  /** Null where there is nothing to do. */
  task: TaskState.nullable(),
  /** Who does it, how much it is and how far it is; null where nothing is known. */
  work: Work.nullable().default(null),
  /**
   * Topics of which a person has said that they are not to be linked with it: they are not proposed again. No reference: nothing
   * is followed or shown, so one that is gone does no harm.
   */
  apart: z.array(TopicId).max(MOST_APART).default([]),
  /** What is gathered below it from all over the collection; null where nothing is. */
  gathers: SearchAsked.nullable().default(null),
  /** Null where it is no copy. */
  copyOf: CopyOf.nullable().default(null),
  /** Set on the head of a branch that was put into the trash; what is below stays as it is. */
  trashed: z.boolean(),
})
export type TopicRecord = z.infer<typeof TopicRecord>

/** What a topic has before anything was put on it. */
export const BARE_TOPIC: Omit<TopicRecord, 'id' | 'place' | 'text'> = {
  note: null,
  opensMap: null,
  folded: false,
  layout: null,
  width: null,
  numbering: null,
  number: null,
  dates: null,
  look: null,
  branchLook: null,
  picture: null,
  badges: [],
  tags: [],
  held: false,
  free: false,
  task: null,
  work: null,
  apart: [],
  gathers: null,
  copyOf: null,
  trashed: false,
}

export const topicKind = defineKind(TopicRecord, {
  references: [
    inside('place.map', 'map', 'The map of this topic'),
    inside('place.parent', 'topic', 'The topic that this one should hang on'),
    carries('note', 'note', 'The note of this topic'),
    names('opensMap', 'map', 'The map that this topic should open'),
    carries('picture.file', 'file', 'The picture'),
    names('tags.*', 'tag', 'A tag of this topic', { seen: 'here' }),
    names('gathers.tag', 'tag', 'The tag of what is gathered here', { seen: 'here' }),
    names('gathers.map', 'map', 'The map of what is gathered here'),
  ],
  joins: {
    text: 'lines',
    badges: 'elements',
    tags: 'elements',
    apart: 'elements',
    look: 'properties',
    branchLook: 'properties',
    work: 'properties',
  },
})
