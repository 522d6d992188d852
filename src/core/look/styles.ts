import { Kept } from '../kept'
import type { Background, Colour, ConnectorForm, HueFamily, Look, MapLook, TopicShape } from '../records/look'
import { PLAIN_MAP_LOOK, PLAIN_OUTLINE_WIDTH } from '../records/look'
import type { Records } from '../records/records'
import type { FaceName } from '../text/measure'
import { contrast, type ReadableFill, readableFill, readableLetters, tonesOfFill } from './contrast'
import { tonesOf } from './families'
import { PALETTE, type Pair } from './palette'
import { WHOLE_LOOKS, type WholeLookParts } from './whole-looks'

/** How a topic is drawn, with every value settled. Lengths in px. Equal styles are the same object. */
export interface Style {
  family: HueFamily
  /** Instead of the hue that the branch has by its place. */
  hue: number | null
  shape: TopicShape
  connector: ConnectorForm
  tapering: boolean
  face: FaceName
  italic: boolean
  size: number
  lineHeight: number
  /** Widest line before the text is broken. */
  maxWidth: number
  padX: number
  padY: number
  fill: string | null
  fillEnd: string | null
  /** The colour of text on a fill that was picked, so that it can be read. */
  ink: string | null
  /** The colour of the letters, where one was picked: on the ground of the shape, and on the sheet of a doorway. */
  letters: { ground: Pair; leaf: Pair } | null
  outline: string | null
  outlineWidth: number
  excerpt: boolean
}

/** Space between a shape and its text. */
const PADDING: Record<TopicShape, readonly [x: number, y: number]> = {
  slab: [18, 11],
  bar: [8, 3],
  block: [12, 6],
  card: [11, 5],
  frame: [11, 5],
  pill: [16, 6],
  rule: [5, 4],
  sketch: [13, 8],
  bare: [5, 3],
}
/** The same for a fill or outline that was picked for a topic whose shape leaves little space. */
const LEAST_PADDING = [9, 4] as const
const WIDEST = [280, 230] as const
/** Size of a text where none is set, in px. */
export const PLAIN_SIZE = 15

/** Levels that a look can tell apart: root, first, second, deeper. */
export const LEVELS = 4
const levelIndex = (level: number) => Math.min(Math.max(level, 0), LEVELS - 1)

function settle(look: Look, level: number): Style {
  const shape = look.shape ?? 'bar'
  const size = look.size ?? PLAIN_SIZE
  const font = look.font ?? 'plain'
  const bold = look.bold ? ('-bold' as const) : ('' as const)
  const italic = look.italic ? ('-italic' as const) : ('' as const)
  const filled = look.fill ? readableFill(look.fill, look.fillEnd ?? null) : null
  const [padX, padY] = PADDING[shape]
  const stands = filled !== null || (look.outline ?? null) !== null
  return {
    family: look.family ?? 'spruce',
    hue: look.hue ?? null,
    shape,
    connector: look.connector ?? 'spine',
    tapering: look.tapering ?? false,
    face: font === 'hand' ? `hand${bold}` : `${font}${bold}${italic}`,
    italic: look.italic ?? false,
    size,
    lineHeight: Math.round(size * (font === 'reading' ? 1.36 : 1.3)),
    maxWidth: Math.round((level <= 0 ? WIDEST[0] : WIDEST[1]) * Math.max(1, size / 20)),
    padX: stands ? Math.max(padX, LEAST_PADDING[0]) : level === 1 && shape === 'bar' ? padX + 1 : padX,
    padY: stands ? Math.max(padY, LEAST_PADDING[1]) : level === 1 && shape === 'bar' ? padY + 1 : padY,
    fill: filled?.fill ?? null,
    fillEnd: filled?.end ?? null,
    ink: filled?.ink ?? null,
    letters: look.letters ? lettersOf(look.letters, shape, look.family ?? 'spruce', filled) : null,
    outline: look.outline ?? null,
    outlineWidth: look.outlineWidth ?? PLAIN_OUTLINE_WIDTH,
    excerpt: look.excerpt ?? false,
  }
}

/** A colour of letters as it can be read on the ground that a topic has, whatever hue its branch is given. */
function lettersOf(colour: Colour, shape: TopicShape, family: HueFamily, filled: ReadableFill | null) {
  if (filled) {
    const one = readableLetters(colour, filled.ink, tonesOfFill(filled.fill, filled.end))
    return { ground: [one, one] as const, leaf: [one, one] as const }
  }
  const hues = tonesOf(family)
  const on = (ink: Pair, grounds: readonly Pair[]): Pair => {
    const inScheme = (scheme: 0 | 1) =>
      readableLetters(
        colour,
        ink[scheme],
        grounds.map((ground) => ground[scheme]),
      )
    return [inScheme(0), inScheme(1)]
  }
  const leaf = on(PALETTE.ink, [PALETTE.paper, PALETTE.panel, ...hues.map(({ wash }) => wash)])
  if (shape === 'slab') return { ground: on(PALETTE['on-root-block'], [PALETTE['root-block']]), leaf }
  if (shape === 'block') return { ground: on(PALETTE.paper, [PALETTE.ink, ...hues.map(({ text }) => text)]), leaf }
  return { ground: leaf, leaf }
}

/** Values that are set, in one order, so that equal looks have equal keys. */
const keyOf = (look: Look): string => JSON.stringify(Object.entries(look).sort(([a], [b]) => (a < b ? -1 : 1)))

/** Most styles, and most combinations of looks, that are kept: far more than a collection has, unless colours are tried out for days. */
const MOST_KEPT = 20_000
const knownStyles = new Kept<Style>(MOST_KEPT)
const styleOf = (look: Look, level: number): Style =>
  knownStyles.get(`${levelIndex(level)} ${keyOf(look)}`, () => settle(look, level))

/**
 * What a topic inherits: looks for each level, with what the branches above it have set laid over them. Equal ones are
 * the same object, so `id` can stand for all of it in keys.
 */
export class Inherited {
  private static readonly known = new Kept<Inherited>(MOST_KEPT)
  private static made = 0
  private readonly styles: (Style | undefined)[] = []
  private readonly narrower = new Kept<Inherited>(MOST_KEPT)

  private constructor(
    readonly id: number,
    private readonly levels: readonly Look[],
    private readonly branch: Look,
  ) {}

  static of(levels: readonly Look[], branch: Look): Inherited {
    const key = `${levels.map(keyOf).join()} ${keyOf(branch)}`
    return Inherited.known.get(key, () => new Inherited(Inherited.made++, levels, branch))
  }

  /** What is inherited below a topic that gives a look to its branch. */
  below(branchLook: Look | null): Inherited {
    if (!branchLook) return this
    return this.narrower.get(keyOf(branchLook), () => Inherited.of(this.levels, { ...this.branch, ...branchLook }))
  }

  /** The look at a level before it is settled. */
  lookAt(level: number, own: Look | null): Look {
    return { ...this.levels[levelIndex(level)], ...this.branch, ...own }
  }

  /** How a topic on a level is drawn that has, or has not, a look of its own. */
  style(level: number, own: Look | null): Style {
    const index = levelIndex(level)
    if (own) return styleOf(this.lookAt(level, own), index)
    return (this.styles[index] ??= styleOf(this.lookAt(level, null), index))
  }
}

/** The looks that hold for a map, widest first: its own and that of its collection. */
export function mapLooks(records: Records, map: string): readonly MapLook[] {
  const own = records.get('map', map)?.look
  const around = records.collection()?.look
  return [around ?? PLAIN_MAP_LOOK, own ?? PLAIN_MAP_LOOK]
}

export function wholeLookOf(records: Records, map: string): WholeLookParts {
  const [around, own] = mapLooks(records, map)
  return WHOLE_LOOKS[own?.whole ?? around?.whole ?? 'laid']
}

/** What the topics of a map inherit from the whole look, the collection and the map. */
export function inheritedOn(records: Records, map: string): Inherited {
  const whole = wholeLookOf(records, map)
  const looks = mapLooks(records, map)
  const levels = Array.from({ length: LEVELS }, (_, level) =>
    Object.assign({}, whole.every, whole.levels[level], ...looks.flatMap((look) => [look.every, look.levels[level]])),
  )
  return Inherited.of(levels, {})
}

/** Whether drawings on a tone are those for the dark or for the light. */
const schemeOn = (tone: string) => (contrast(tone, '#e8e6de') > contrast(tone, '#1d2a33') ? 'dark' : 'light')

/** What lies behind a map, and whether it is light or dark whatever the application is. */
export function backdropOf(records: Records, map: string): Background & { scheme: WholeLookParts['scheme'] } {
  const whole = wholeLookOf(records, map)
  const [around, own] = mapLooks(records, map)
  const background = own?.background ?? around?.background ?? whole.background
  return { scheme: background.tone ? schemeOn(background.tone) : whole.scheme, ...background }
}
