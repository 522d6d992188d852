import { z } from 'zod'
import { Drawn } from '../../core/records/crosslink'
import { CrosslinkId, MapId, TopicId, WeblinkId } from '../../core/records/ids'

const Place = z.object({ topic: TopicId.nullable(), map: MapId, text: z.string() })
export type Place = z.infer<typeof Place>

const LinkRow = z.object({
  id: CrosslinkId,
  from: Place,
  to: Place.nullable(),
  end: z.enum(['topic', 'enclosure', 'map', 'note']),
  label: z.string(),
  drawn: Drawn,
  broken: z.string().nullable(),
})
const WeblinkRow = z.object({ id: WeblinkId, at: Place, url: z.string(), title: z.string() })
const MentionRow = z.object({ in: Place, isInNote: z.boolean(), of: Place, said: z.string() })

const CloseRow = z.object({ a: Place, b: Place, shared: z.array(z.string()) })
const OverlapRow = z.object({ a: Place, b: Place, said: z.number(), of: z.number() })

const SmallPicture = z.object({
  map: MapId,
  width: z.number(),
  height: z.number(),
  boxes: z.array(z.tuple([z.number(), z.number(), z.number(), z.number()])),
  lines: z.array(z.object({ link: CrosslinkId, corners: z.array(z.number()) })),
})
export type SmallPicture = z.infer<typeof SmallPicture>

const Clutter = z.object({
  crossings: z.number(),
  maps: z.array(z.object({ map: MapId, crossings: z.number() })),
  quiet: z.array(CrosslinkId),
  removed: z.number(),
  picture: SmallPicture.nullable(),
})
export type Clutter = z.infer<typeof Clutter>

/** What the server tells of the links of a collection; see server/link-ledger. */
export const LedgerAnswer = z.object({
  links: z.array(LinkRow),
  weblinks: z.array(WeblinkRow),
  mentions: z.array(MentionRow),
  close: z.array(CloseRow),
  overlaps: z.array(OverlapRow),
  counts: z.object({
    links: z.number(),
    weblinks: z.number(),
    mentions: z.number(),
    close: z.number(),
    overlaps: z.number(),
  }),
  clutter: Clutter,
  checks: z.array(z.object({ url: z.string(), trouble: z.string().nullable() })),
  checkedAt: z.string().nullable(),
})
export type LedgerAnswer = z.infer<typeof LedgerAnswer>

/** The shortest way between two topics; null where there is none. */
export const WayAnswer = z.array(Place.extend({ by: z.enum(['branch', 'crosslink', 'doorway']).nullable() })).nullable()
export type WayAnswer = z.infer<typeof WayAnswer>
