import { z } from 'zod'
import { CrosslinkId, EnclosureId, MapId, NoteId, TopicId } from './ids'
import { defineKind, inside, names } from './kind'
import { title } from './text'

/** How a cross-link shows on the map: as a line, as a quiet sign at both ends, or as a line while an end is selected. */
export const Drawn = z.enum(['line', 'quiet', 'selected'])
export type Drawn = z.infer<typeof Drawn>

/** Where a cross-link leads. */
export const LinkEnd = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('topic'), id: TopicId }),
  z.strictObject({ kind: z.literal('enclosure'), id: EnclosureId }),
  z.strictObject({ kind: z.literal('map'), id: MapId }),
  z.strictObject({ kind: z.literal('note'), id: NoteId }),
])
export type LinkEnd = z.infer<typeof LinkEnd>

export const isSameEnd = (a: LinkEnd, b: LinkEnd): boolean => a.kind === b.kind && a.id === b.id

/**
 * Where a drawn link was bent by hand: on the way from the middle of one end to that of the other, as a part of it, and how far
 * aside of it, in px to its right. So it keeps its form as the ends move.
 */
export const Bend = z.strictObject({ along: z.number().min(-1).max(2), aside: z.number().min(-5_000).max(5_000) })
export type Bend = z.infer<typeof Bend>

/** A link from a topic to another topic, to an enclosure, a map or a note, anywhere in the collection. */
export const CrosslinkRecord = z.strictObject({
  id: CrosslinkId,
  from: TopicId,
  to: LinkEnd,
  label: title,
  drawn: Drawn,
  /** Whether it leads from its end back to its beginning as well. */
  bothWays: z.boolean().default(false),
  /** Null where the line finds its way by itself. */
  bend: Bend.nullable().default(null),
  trashed: z.boolean(),
})
export type CrosslinkRecord = z.infer<typeof CrosslinkRecord>

export const crosslinkKind = defineKind(CrosslinkRecord, {
  references: [
    inside('from', 'topic', 'The topic where this link begins'),
    names('to', null, 'What this link leads to', { seen: 'there' }),
  ],
})
