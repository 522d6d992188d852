import { badgeName, type Icons } from '../badges/badges'
import { isOverdue } from '../dates/agenda'
import { type Bounds, boundsOf, type TopicBox } from '../layout/boxes'
import { DOORWAY_WIDTH, SIGN_COUNT_WIDTH, SIGN_SIZE } from '../layout/map-layout'
import { BADGE, EXCERPT, PICTURE_GAP, TAGS } from '../layout/topic-box'
import { NO_HUE, toneClass } from '../look/families'
import { asLightDark } from '../look/palette'
import type { LookFont } from '../records/look'
import { isRightToLeft } from '../text/direction'
import type { FaceName } from '../text/measure'
import { type Drawing, drawing, px } from './drawing'
import { placedPath } from './path'
import { isTask, SIGN_PATHS, signName } from './signs'
import { sketched } from './sketch'

const TURNED_CORNER = 13
const SIDE_BAR = 3
/** Corners of a pill of several lines would else cut into its text. */
const ROUNDEST = 20
/** How far below the top of its line a letter stands, as a part of the line height. */
export const BASELINE = 0.72
const SIGN_HEIGHT = 14
const SIGN_SCALE = 0.58

/** Where the picture of a file can be had, at least this wide in px. */
export type PictureAddress = (file: string, width: number) => string | null

/** What a topic is drawn with besides its box. */
export interface DrawingContext {
  icons: Icons
  pictureAddress: PictureAddress
  /** The day on which it is seen, in ISO 8601: what should have been done by then is marked. Without it nothing is. */
  today?: string | null
}

/** The class by which a topic and its connectors have the tones of their hue. */
export const boxTone = (box: TopicBox): string => toneClass(box.style.family, box.hue) || NO_HUE

/**
 * The topic as its style says, at its place. In map units throughout, without transforms: browsers composite each
 * element with a transform by itself, and a map has thousands.
 */
export function drawTopic(box: TopicBox, { icons, pictureAddress, today }: DrawingContext): Drawing[] {
  const parts = [...ground(box), ...pictureOf(box, pictureAddress)]
  const row = rowTop(box)
  parts.push(
    ...badgeRow(box, row, icons),
    ...textLines(box, row),
    ...signRow(box, row, isLate(box, today)),
    ...excerptLines(box),
    ...tagRow(box),
  )
  if (box.behind !== null) parts.push(doorwayNumber(box))
  if (box.hidden > 0) parts.push(foldSign(box))
  return parts
}

type Attributes = Record<string, string | number>

/** Fill and outline that were picked, as attributes, with the definition of a fill of two tones. */
function picked(box: TopicBox): { attributes: Attributes; defs: Drawing[] } {
  const { fill, fillEnd, outline, outlineWidth } = box.style
  const attributes: Attributes = {}
  const defs: Drawing[] = []
  if (fill && fillEnd) {
    const id = `fill-${box.key.replaceAll(/[>/]/g, '-')}`
    const stop = (offset: number, colour: string) => drawing('stop', { offset, 'stop-color': colour })
    defs.push(drawing('defs', {}, [drawing('linearGradient', { id }, [stop(0, fill), stop(1, fillEnd)])]))
    attributes.fill = `url(#${id})`
  } else if (fill) attributes.fill = fill
  if (outline) Object.assign(attributes, { stroke: outline, 'stroke-width': outlineWidth })
  return { attributes, defs }
}

/** What lies behind the text: the shape, the sheet of a doorway, and the bar at the side from which the topic grows. */
function ground(box: TopicBox): Drawing[] {
  const { x, y, width, height, style } = box
  const { shape } = style
  const { attributes, defs } = picked(box)
  const tone = boxTone(box)
  const parts = [...defs]
  const stands = style.fill !== null || style.outline !== null
  if (onLeaf(box)) parts.push(...doorwayLeaf(box, attributes))
  else if (shape === 'sketch') {
    const path = sketched(
      `M${px(x + 2)} ${px(y + 2)}H${px(x + width - 2)}V${px(y + height - 2)}H${px(x + 2)}Z`,
      box.key,
    )
    parts.push(drawing('path', { d: path, class: `ground ground-sketch ${tone}`, ...attributes }))
  } else if (stands || !(shape === 'bar' || shape === 'rule' || shape === 'bare')) {
    const size = {
      x: px(x),
      y: px(y),
      width: px(width),
      height: px(height),
      rx: shape === 'pill' ? px(Math.min(height / 2, ROUNDEST)) : stands ? 5 : 6,
    }
    const own = style.fill ? '' : ` ground-${shape}`
    parts.push(drawing('rect', { ...size, class: `ground${own} ${tone}`, ...attributes }))
  }
  if (box.face.gathered) {
    const around = { x: px(x), y: px(y + 1), width: px(width), height: px(height - 2), rx: 6 }
    parts.push(drawing('rect', { ...around, class: `ground ground-gathered ${tone}` }))
  }
  if (shape === 'bar' && !box.face.gathered) parts.push(bar(box))
  if (shape === 'rule')
    parts.push(drawing('rect', { x: px(x), y: px(y + height - 2), width: px(width), height: 2, class: `bar ${tone}` }))
  return parts
}

/** The bar in the hue of the branch, at the side from which the topic grows. */
function bar(box: TopicBox): Drawing {
  const { x, y, width, height, growth } = box
  const upright = { y: px(y + 1), width: SIDE_BAR, height: px(height - 2) }
  const level = { x: px(x + 1), width: px(width - 2), height: SIDE_BAR }
  const at =
    growth === 'down'
      ? { ...level, y: px(y) }
      : growth === 'up'
        ? { ...level, y: px(y + height - SIDE_BAR) }
        : { ...upright, x: px(box.growsLeft ? x + width - SIDE_BAR : x) }
  return drawing('rect', { ...at, class: `bar ${boxTone(box)}` })
}

const pictureHeight = ({ face }: TopicBox) => (face.picture ? face.picture.height + PICTURE_GAP : 0)
/** The upper edge of the row with badges, text and signs. */
const rowTop = (box: TopicBox) => box.y + box.style.padY + pictureHeight(box)

/** Where something of a width stands in a topic: at the side from which it grows. */
const leftEdge = (box: TopicBox, width: number): number =>
  box.growsLeft ? box.x + box.width - box.style.padX - width : box.x + box.style.padX

function pictureOf(box: TopicBox, pictureAddress: PictureAddress): Drawing[] {
  const { picture } = box.face
  if (!picture) return []
  const { padY } = box.style
  const size = { width: px(picture.width), height: px(picture.height) }
  const at = { x: px(leftEdge(box, picture.width)), y: px(box.y + padY) }
  const href = pictureAddress(picture.file, picture.width * 2)
  return [
    href
      ? drawing('image', { ...at, ...size, href, class: 'topic-picture', preserveAspectRatio: 'xMidYMid meet' })
      : drawing('rect', { ...at, ...size, class: 'picture-missing' }),
  ]
}

/** Where the text begins: after the badges, and after the signs and the corner on branches that grow to the left. */
function textStart(box: TopicBox): number {
  const start = leftEdge(box, box.text.width)
  return box.growsLeft ? start : start + box.face.badges.length * BADGE.step
}

/** How far the text of a topic is from the edges of its box: who writes in it finds it where it was drawn. */
export function textInsets(box: TopicBox): { left: number; right: number; top: number } {
  const left = textStart(box) - box.x
  return { left, right: box.width - left - box.text.width, top: rowTop(box) - box.y }
}

const FONTS: readonly LookFont[] = ['plain', 'reading', 'hand']

/** The classes that set a text in a cut of a font. */
function faceClasses(face: FaceName): string {
  const font = FONTS.find((name) => face.startsWith(name)) ?? 'plain'
  return `font-${font}${face.includes('-bold') ? ' bold' : ''}`
}

/** Whether a topic stands on the sheet of a doorway. */
const onLeaf = (box: TopicBox): boolean => box.behind !== null && box.parent !== null

/** The class and the ink of what is written on the ground of its topic, as fill and as stroke. */
function inkOf(box: TopicBox): { name: string; fill: Attributes; stroke: Attributes } {
  const { shape, ink } = box.style
  if (ink) return { name: '', fill: { fill: ink }, stroke: { stroke: ink } }
  return { name: !onLeaf(box) && (shape === 'slab' || shape === 'block') ? ` on-${shape}` : '', fill: {}, stroke: {} }
}

/** The ink of the text itself: what was picked for its letters, else that of all that is written there. */
function lettersOf(box: TopicBox): ReturnType<typeof inkOf> {
  const { letters } = box.style
  const ink = inkOf(box)
  if (!letters) return ink
  return { ...ink, fill: { fill: asLightDark(onLeaf(box) ? letters.leaf : letters.ground) } }
}

function textLines(box: TopicBox, top: number): Drawing[] {
  const { face, italic, size, lineHeight } = box.style
  const start = textStart(box)
  const ink = lettersOf(box)
  const name = `topic-text ${faceClasses(face)}${italic ? ' italic' : ''}${ink.name}`
  const backward = isRightToLeft(box.topic.text)
  const direction: Attributes = backward ? { direction: 'rtl' } : {}
  return box.text.lines.map((line, i) => {
    // Where text begins on the right, that is where a line is anchored.
    const x = backward ? start + box.text.width : box.growsLeft ? start + box.text.width - line.width : start
    const y = top + i * lineHeight + lineHeight * BASELINE
    const fitted: Attributes = line.exact ? {} : { textLength: px(line.width), lengthAdjust: 'spacingAndGlyphs' }
    return drawing(
      'text',
      { x: px(x), y: px(y), 'font-size': size, class: name, ...direction, ...ink.fill, ...fitted },
      [line.text],
    )
  })
}

function badgeRow(box: TopicBox, top: number, icons: Icons): Drawing[] {
  const { badges } = box.face
  const y = top + (box.style.lineHeight - BADGE.size) / 2
  const start = textStart(box) - badges.length * BADGE.step
  const ink = inkOf(box)
  return badges.map((badge, i) => {
    const x = start + i * BADGE.step
    const path = icons.path(badge)
    const drawn = path
      ? drawing('path', {
          d: placedPath(path, BADGE.size / 24, x, y),
          class: `badge-outline ${boxTone(box)}${ink.name}`,
          ...ink.stroke,
        })
      : drawing('text', { x: px(x + BADGE.size / 2), y: px(y + 14.5), class: 'badge-emoji', 'text-anchor': 'middle' }, [
          badge.startsWith('icon:') ? '?' : badge,
        ])
    return drawing('g', { class: 'badge', 'data-badge': i }, [
      drawing('title', {}, [badgeName(badge)]),
      drawing('rect', { x: px(x), y: px(y), width: BADGE.size, height: BADGE.size, class: 'sign-reach' }),
      drawn,
    ])
  })
}

function excerptLines(box: TopicBox): Drawing[] {
  const { excerpt } = box.face
  if (!excerpt) return []
  const top = rowTop(box) + rowHeight(box) + EXCERPT.gap
  const ink = inkOf(box)
  return excerpt.lines.map((line, i) => {
    const x = leftEdge(box, excerpt.width)
    const y = top + i * EXCERPT.lineHeight + EXCERPT.lineHeight * BASELINE
    return drawing('text', { x: px(x), y: px(y), class: `excerpt${ink.name}`, ...ink.fill }, [line.text])
  })
}

const rowHeight = ({ text, face }: TopicBox) => Math.max(text.height, face.badges.length > 0 ? BADGE.size : 0)

function tagRow(box: TopicBox): Drawing[] {
  const { tags, width, height } = box.face.tags
  const top = box.y + box.height - box.style.padY - height
  const left = leftEdge(box, width)
  return tags.map((tag) =>
    drawing(
      'g',
      {
        class: `tag ${tag.tone === null ? '' : toneClass('spruce', tag.tone)}`,
      },
      [
        drawing('rect', {
          x: px(left + tag.x),
          y: px(top + tag.y),
          width: px(tag.width),
          height: TAGS.height,
          rx: 3,
        }),
        drawing('text', { x: px(left + tag.x + TAGS.padX), y: px(top + tag.y + 12.5) }, [tag.name]),
      ],
    ),
  )
}

/** The sheet of a doorway with its turned-down corner: there is more beneath. */
function doorwayLeaf(box: TopicBox, attributes: Attributes): Drawing[] {
  const tone = boxTone(box)
  const [left, top, right, bottom] = [px(box.x), px(box.y), px(box.x + box.width), px(box.y + box.height)]
  const turn = px(box.y + TURNED_CORNER)
  const inner = px(box.growsLeft ? box.x + TURNED_CORNER : box.x + box.width - TURNED_CORNER)
  const sheet = box.growsLeft
    ? `M${inner} ${top}H${right}V${bottom}H${left}V${turn}Z`
    : `M${left} ${top}H${inner}L${right} ${turn}V${bottom}H${left}Z`
  const fold = `M${inner} ${top}V${turn}H${box.growsLeft ? left : right}Z`
  return [
    drawing('path', { d: sheet, class: `leaf ${tone}${box.style.fill ? ' picked' : ''}`, ...attributes }),
    drawing('path', { d: fold, class: `fold ${tone}` }),
  ]
}

function doorwayNumber(box: TopicBox): Drawing {
  const x = box.growsLeft ? box.x + DOORWAY_WIDTH / 2 - 2 : box.x + box.width - DOORWAY_WIDTH / 2 + 2
  const { name, fill } = inkOf(box)
  return drawing(
    'text',
    {
      x: px(x),
      y: px(box.y + box.height - 6),
      class: `behind ${boxTone(box)}${box.parent ? '' : name}`,
      'text-anchor': 'middle',
      ...fill,
    },
    [String(box.behind)],
  )
}

/** Whether its task should have been done by now. */
export const isLate = ({ topic: { dates, task } }: TopicBox, today: string | null | undefined): boolean =>
  Boolean(today && dates && isOverdue({ dates, task }, today))

function signRow(box: TopicBox, top: number, late: boolean): Drawing[] {
  const row: Drawing[] = []
  const { padX, lineHeight } = box.style
  const ink = inkOf(box)
  const y = top + (lineHeight - SIGN_HEIGHT) / 2
  let x = box.growsLeft
    ? box.x + (box.behind !== null ? DOORWAY_WIDTH : 0) + 4
    : textStart(box) + box.text.width + Math.min(padX, 8)
  for (const { sign, count } of box.signs) {
    row.push(
      drawing('g', { class: `sign${ink.name}${late && isTask(sign) ? ' late' : ''}`, 'data-sign': sign }, [
        drawing('title', {}, [signName(sign, count, late)]),
        drawing('rect', { x: px(x), y: px(y), width: SIGN_SIZE, height: SIGN_HEIGHT, class: 'sign-reach' }),
        drawing('path', { d: placedPath(SIGN_PATHS[sign], SIGN_SCALE, x, y), class: 'sign-outline', ...ink.stroke }),
        ...(count > 1
          ? [drawing('text', { x: px(x + 15), y: px(y + 11), class: 'sign-count', ...ink.fill }, [String(count)])]
          : []),
      ]),
    )
    x += SIGN_SIZE + (count > 1 ? SIGN_COUNT_WIDTH : 0)
  }
  return row
}

function foldPoint({ growth, growsLeft, x, y, width, height }: TopicBox): { x: number; y: number } {
  if (growth === 'down') return { x: x + width / 2, y: y + height + 14 }
  if (growth === 'up') return { x: x + width / 2, y: y - 14 }
  return { x: growsLeft ? x - 16 : x + width + 16, y: y + height / 2 }
}

const FOLD_SIGN = { width: 26, height: 18 }

/** A topic with the number beside it of what it hides. */
export function withFoldSign(box: TopicBox): Bounds {
  if (box.hidden === 0) return box
  const { x, y } = foldPoint(box)
  const { width, height } = FOLD_SIGN
  return boundsOf([box, { x: x - width / 2, y: y - height / 2, width, height }])
}

/** How much is folded away, at the side where it would appear. */
function foldSign(box: TopicBox): Drawing {
  const { x, y } = foldPoint(box)
  return drawing('g', { class: `fold-sign ${boxTone(box)}`, 'data-fold': box.topic.id }, [
    drawing('title', {}, [`${box.hidden} folded`]),
    drawing('rect', { x: px(x - 13), y: px(y - 9), ...FOLD_SIGN, rx: 9 }),
    drawing('text', { x: px(x), y: px(y + 4), 'text-anchor': 'middle' }, [String(box.hidden)]),
  ])
}
