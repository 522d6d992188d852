import { z } from 'zod'
import { FileId, LookId } from './ids'
import { defineKind, names } from './kind'
import { storedText } from './text'

/** Eight hues that go together; their tones stand in `core/look/families.ts`. */
export const HueFamily = z.enum(['spruce', 'heather', 'sedge', 'peat', 'rain', 'ink'])
export type HueFamily = z.infer<typeof HueFamily>

/** What is drawn behind a topic's text. */
export const TopicShape = z.enum(['bar', 'slab', 'block', 'card', 'frame', 'pill', 'rule', 'sketch', 'bare'])
export type TopicShape = z.infer<typeof TopicShape>

/** How a topic is joined to its children. */
export const ConnectorForm = z.enum(['spine', 'curve', 'straight', 'sketch'])
export type ConnectorForm = z.infer<typeof ConnectorForm>

export const LookFont = z.enum(['plain', 'reading', 'hand'])
export type LookFont = z.infer<typeof LookFont>

export const BackgroundPattern = z.enum(['plain', 'ruled', 'dotted', 'squared', 'paper'])
export type BackgroundPattern = z.infer<typeof BackgroundPattern>

/** A look for everything, made to go together; see `core/look/whole-looks.ts`. */
export const WholeLook = z.enum(['laid', 'lantern', 'galley', 'pencil', 'mosaic', 'willow'])
export type WholeLook = z.infer<typeof WholeLook>

/** A colour that a person has picked, as #rrggbb. */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is written as # and six hexadecimal digits.')
export type Colour = z.infer<typeof Colour>

/** Widths of an outline in px: where none is said, and the most. */
export const [PLAIN_OUTLINE_WIDTH, MOST_OUTLINE_WIDTH] = [1.6, 5]

/** How topics are drawn, as far as it is set: what is left out is inherited. */
export const Look = z
  .strictObject({
    family: HueFamily,
    /** Which hue of the family, instead of the one that the branch has by its place. */
    hue: z.number().int().min(0).max(7),
    shape: TopicShape,
    /** How the topic is joined to its children. */
    connector: ConnectorForm,
    /** Whether connectors are stronger near the root. */
    tapering: z.boolean(),
    font: LookFont,
    /** Size of the text in px. */
    size: z.number().min(11).max(60),
    bold: z.boolean(),
    italic: z.boolean(),
    /** The colour of the letters, brought towards the plain ink as far as it must be to be read on what is behind them. */
    letters: Colour.nullable(),
    /** Null takes away a fill that would be inherited. */
    fill: Colour.nullable(),
    /** The second tone of a fill that passes from one into another. */
    fillEnd: Colour.nullable(),
    outline: Colour.nullable(),
    /** Width of an outline that was picked, in px: a wider one would reach what stands beside the topic. */
    outlineWidth: z.number().min(0.5).max(MOST_OUTLINE_WIDTH),
    /** Whether the beginning of the note stands under the text. */
    excerpt: z.boolean(),
  })
  .partial()
export type Look = z.infer<typeof Look>
export type LookField = keyof Look
export const LookField = Look.keyof()

/** What lies behind a map. */
export const Background = z.strictObject({
  pattern: BackgroundPattern,
  tone: Colour.nullable(),
  picture: FileId.nullable(),
})
export type Background = z.infer<typeof Background>

/** The look of a map or of a whole collection. */
export const MapLook = z.strictObject({
  /** Null follows the collection, or, there, *Laid*. */
  whole: WholeLook.nullable(),
  every: Look,
  /** What holds for the root, the first, the second and every deeper level. */
  levels: z.array(Look).max(4),
  /** Null follows the collection, or what belongs to the whole look. */
  background: Background.nullable(),
})
export type MapLook = z.infer<typeof MapLook>

/** The picture behind a map, for the kinds of records that have a look for whole maps. */
export const backgroundPicture = names('look.background.picture', 'file', 'The picture of the background', {
  seen: 'here',
})

export const PLAIN_MAP_LOOK: MapLook = { whole: null, every: {}, levels: [], background: null }

/** A look that a person has saved under a name, to put on other topics. */
const LookRecord = z.strictObject({
  id: LookId,
  name: storedText(100).min(1),
  look: Look,
  trashed: z.boolean(),
})
export const lookKind = defineKind(LookRecord, { joins: { look: 'properties' }, seenEverywhere: true })
