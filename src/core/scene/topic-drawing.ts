import { badgeName, iconPath } from '../badges/badges'
import type { TopicBox } from '../layout/boxes'
import { DOORWAY_WIDTH, SIGN_COUNT_WIDTH, SIGN_SIZE } from '../layout/map-layout'
import { BADGE, EXCERPT, PICTURE_GAP, TAGS } from '../layout/topic-box'
import { toneClass } from '../look/families'
import type { LookFont } from '../records/look'
import type { FaceName } from '../text/measure'
import { type Drawing, drawing, px } from './drawing'
import { SIGN_PATHS, signName } from './signs'
import { sketched } from './sketch'

const CORNER = 13
const BAR = 3
/** How far below the top of its line a letter stands, as a part of the line height. */
const BASELINE = 0.72
const SIGN_HEIGHT = 14

/** Where the picture of a file can be had, at least this wide in px. */
export type PictureAddress = (file: string, width: number) => string | null

/** The class by which a topic and its connectors have the tones of their hue. */
export const boxTone = (box: TopicBox): string => toneClass(box.style.family, box.hue) || 'root-tone'

/** The topic as its style says, at the origin: whoever shows it moves it to its place. */
export function drawTopic(box: TopicBox, pictureAddress: PictureAddress = () => null): Drawing[] {
  const parts = [...ground(box), ...pictureOf(box, pictureAddress)]
  const row = rowTop(box)
  parts.push(...badgeRow(box, row), ...textLines(box, row), ...signRow(box, row), ...excerptLines(box), ...tagRow(box))
  if (box.behind !== null) parts.push(doorwayNumber(box))
  if (box.hidden > 0) parts.push(foldSign(box))
  return parts
}

type Attributes = Record<string, string | number>

/** Fill and outline that were picked, as attributes, with the definition of a fill of two tones. */
function picked(box: TopicBox): { attributes: Attributes; defs: Drawing[] } {
  const { fill, fillEnd, outline } = box.style
  const attributes: Attributes = {}
  const defs: Drawing[] = []
  if (fill && fillEnd) {
    const id = `fill-${box.topic.id}`
    const stop = (offset: number, colour: string) => drawing('stop', { offset, 'stop-color': colour })
    defs.push(drawing('defs', {}, [drawing('linearGradient', { id }, [stop(0, fill), stop(1, fillEnd)])]))
    attributes.fill = `url(#${id})`
  } else if (fill) attributes.fill = fill
  if (outline) Object.assign(attributes, { stroke: outline, 'stroke-width': 1.6 })
  return { attributes, defs }
}

/** What lies behind the text: the shape, the sheet of a doorway, and the bar at the side from which the topic grows. */
function ground(box: TopicBox): Drawing[] {
  const { width, height, style } = box
  const { shape } = style
  const { attributes, defs } = picked(box)
  const tone = boxTone(box)
  const parts = [...defs]
  const stands = style.fill !== null || style.outline !== null
  if (box.behind !== null && box.parent) parts.push(...doorwayLeaf(box, attributes))
  else if (shape === 'sketch') {
    const path = sketched(`M2 2H${px(width - 2)}V${px(height - 2)}H2Z`, box.topic.id)
    parts.push(drawing('path', { d: path, class: `ground ground-sketch ${tone}`, ...attributes }))
  } else if (stands || !(shape === 'bar' || shape === 'rule' || shape === 'bare')) {
    const size = { width: px(width), height: px(height), rx: shape === 'pill' ? px(height / 2) : stands ? 5 : 6 }
    const own = style.fill ? '' : ` ground-${shape}`
    parts.push(drawing('rect', { ...size, class: `ground${own} ${tone}`, ...attributes }))
  }
  if (shape === 'bar') parts.push(bar(box))
  if (shape === 'rule')
    parts.push(drawing('rect', { y: px(height - 2), width: px(width), height: 2, class: `bar ${tone}` }))
  return parts
}

/** The bar in the hue of the branch, at the side from which the topic grows. */
function bar(box: TopicBox): Drawing {
  const { width, height, growth } = box
  const upright = { y: 1, width: BAR, height: px(height - 2) }
  const level = { x: 1, width: px(width - 2), height: BAR }
  const at =
    growth === 'down'
      ? { ...level, y: 0 }
      : growth === 'up'
        ? { ...level, y: px(height - BAR) }
        : { ...upright, x: box.growsLeft ? px(width - BAR) : 0 }
  return drawing('rect', { ...at, class: `bar ${boxTone(box)}` })
}

const pictureHeight = ({ face }: TopicBox) => (face.picture ? face.picture.height + PICTURE_GAP : 0)
/** The upper edge of the row with badges, text and signs. */
const rowTop = (box: TopicBox) => box.style.padY + pictureHeight(box)

function pictureOf(box: TopicBox, pictureAddress: PictureAddress): Drawing[] {
  const { picture } = box.face
  if (!picture) return []
  const { padX, padY } = box.style
  const size = { width: px(picture.width), height: px(picture.height) }
  const at = { x: px(box.growsLeft ? box.width - padX - picture.width : padX), y: px(padY) }
  const href = pictureAddress(picture.file, picture.width * 2)
  return [
    href
      ? drawing('image', { ...at, ...size, href, class: 'topic-picture', preserveAspectRatio: 'xMidYMid meet' })
      : drawing('rect', { ...at, ...size, class: 'picture-missing' }),
  ]
}

/** Where the text begins: after the badges, and after the signs and the corner on branches that grow to the left. */
function textStart(box: TopicBox): number {
  const { padX } = box.style
  return box.growsLeft ? box.width - padX - box.text.width : padX + box.face.badges.length * BADGE.step
}

const FONTS: readonly LookFont[] = ['plain', 'reading', 'hand']

/** The classes that set a text in a cut of a font. */
function faceClasses(face: FaceName): string {
  const font = FONTS.find((name) => face.startsWith(name)) ?? 'plain'
  return `font-${font}${face.includes('-bold') ? ' bold' : ''}`
}

/** The class and the ink of what is written on the ground of its topic, as fill and as stroke. */
function inkOf(box: TopicBox): { name: string; fill: Attributes; stroke: Attributes } {
  const { shape, ink } = box.style
  if (ink) return { name: '', fill: { fill: ink }, stroke: { stroke: ink } }
  const onLeaf = box.behind !== null && box.parent !== null
  return { name: !onLeaf && (shape === 'slab' || shape === 'block') ? ` on-${shape}` : '', fill: {}, stroke: {} }
}

function textLines(box: TopicBox, top: number): Drawing[] {
  const { face, italic, size, lineHeight } = box.style
  const start = textStart(box)
  const ink = inkOf(box)
  const name = `topic-text ${faceClasses(face)}${italic ? ' italic' : ''}${ink.name}`
  return box.text.lines.map((line, i) => {
    const x = box.growsLeft ? start + box.text.width - line.width : start
    const y = top + i * lineHeight + lineHeight * BASELINE
    const fitted: Attributes = line.exact ? {} : { textLength: px(line.width), lengthAdjust: 'spacingAndGlyphs' }
    return drawing('text', { x: px(x), y: px(y), 'font-size': size, class: name, ...ink.fill, ...fitted }, [line.text])
  })
}

function badgeRow(box: TopicBox, top: number): Drawing[] {
  const { badges } = box.face
  const y = px(top + (box.style.lineHeight - BADGE.size) / 2)
  const start = textStart(box) - badges.length * BADGE.step
  const ink = inkOf(box)
  return badges.map((badge, i) => {
    const path = iconPath(badge)
    const drawn = path
      ? drawing('path', {
          d: path,
          transform: `scale(${BADGE.size / 24})`,
          class: `badge-outline ${boxTone(box)}${ink.name}`,
          ...ink.stroke,
        })
      : drawing('text', { x: BADGE.size / 2, y: 14.5, class: 'badge-emoji', 'text-anchor': 'middle' }, [
          badge.startsWith('icon:') ? '?' : badge,
        ])
    return drawing(
      'g',
      { class: 'badge', 'data-badge': i, transform: `translate(${px(start + i * BADGE.step)} ${y})` },
      [
        drawing('title', {}, [badgeName(badge)]),
        drawing('rect', { width: BADGE.size, height: BADGE.size, class: 'sign-reach' }),
        drawn,
      ],
    )
  })
}

function excerptLines(box: TopicBox): Drawing[] {
  const { excerpt, picture } = box.face
  if (!excerpt) return []
  const { padX, padY } = box.style
  const top = padY + (picture ? picture.height + PICTURE_GAP : 0) + rowHeight(box) + EXCERPT.gap
  const ink = inkOf(box)
  return excerpt.lines.map((line, i) => {
    const x = box.growsLeft ? box.width - padX - excerpt.width : padX
    const y = top + i * EXCERPT.lineHeight + EXCERPT.lineHeight * BASELINE
    return drawing('text', { x: px(x), y: px(y), class: `excerpt${ink.name}`, ...ink.fill }, [line.text])
  })
}

const rowHeight = ({ text, face }: TopicBox) => Math.max(text.height, face.badges.length > 0 ? BADGE.size : 0)

function tagRow(box: TopicBox): Drawing[] {
  const { tags, width, height } = box.face.tags
  const { padX, padY } = box.style
  const top = box.height - padY - height
  const left = box.growsLeft ? box.width - padX - width : padX
  return tags.map((tag) =>
    drawing(
      'g',
      {
        class: `tag ${tag.tone === null ? '' : toneClass('spruce', tag.tone)}`,
        transform: `translate(${px(left + tag.x)} ${px(top + tag.y)})`,
      },
      [
        drawing('rect', { width: px(tag.width), height: TAGS.height, rx: 3 }),
        drawing('text', { x: TAGS.padX, y: 12.5 }, [tag.name]),
      ],
    ),
  )
}

/** The sheet of a doorway with its turned-down corner: there is more beneath. */
function doorwayLeaf(box: TopicBox, attributes: Attributes): Drawing[] {
  const { width, height } = box
  const tone = boxTone(box)
  const sheet = box.growsLeft
    ? `M${CORNER} 0H${px(width)}V${px(height)}H0V${CORNER}Z`
    : `M0 0H${px(width - CORNER)}L${px(width)} ${CORNER}V${px(height)}H0Z`
  const fold = box.growsLeft ? `M${CORNER} 0V${CORNER}H0Z` : `M${px(width - CORNER)} 0V${CORNER}H${px(width)}Z`
  return [
    drawing('path', { d: sheet, class: `leaf ${tone}${box.style.fill ? ' picked' : ''}`, ...attributes }),
    drawing('path', { d: fold, class: `fold ${tone}` }),
  ]
}

function doorwayNumber(box: TopicBox): Drawing {
  const x = box.growsLeft ? DOORWAY_WIDTH / 2 - 2 : box.width - DOORWAY_WIDTH / 2 + 2
  const { name, fill } = inkOf(box)
  return drawing(
    'text',
    {
      x: px(x),
      y: px(box.height - 6),
      class: `behind ${boxTone(box)}${box.parent ? '' : name}`,
      'text-anchor': 'middle',
      ...fill,
    },
    [String(box.behind)],
  )
}

function signRow(box: TopicBox, top: number): Drawing[] {
  const row: Drawing[] = []
  const { padX, lineHeight } = box.style
  const ink = inkOf(box)
  const y = top + (lineHeight - SIGN_HEIGHT) / 2
  let x = box.growsLeft
    ? (box.behind !== null ? DOORWAY_WIDTH : 0) + 4
    : textStart(box) + box.text.width + Math.min(padX, 8)
  for (const { sign, count } of box.signs) {
    row.push(
      drawing('g', { class: `sign${ink.name}`, 'data-sign': sign, transform: `translate(${px(x)} ${px(y)})` }, [
        drawing('title', {}, [signName(sign, count)]),
        drawing('rect', { width: SIGN_SIZE, height: SIGN_HEIGHT, class: 'sign-reach' }),
        drawing('path', { d: SIGN_PATHS[sign], transform: 'scale(0.58)', class: 'sign-outline', ...ink.stroke }),
        ...(count > 1 ? [drawing('text', { x: 15, y: 11, class: 'sign-count', ...ink.fill }, [String(count)])] : []),
      ]),
    )
    x += SIGN_SIZE + (count > 1 ? SIGN_COUNT_WIDTH : 0)
  }
  return row
}

function foldPoint({ growth, growsLeft, width, height }: TopicBox): { x: number; y: number } {
  if (growth === 'down') return { x: px(width / 2), y: height + 14 }
  if (growth === 'up') return { x: px(width / 2), y: -14 }
  return { x: growsLeft ? -16 : width + 16, y: height / 2 }
}

/** How much is folded away, at the side where it would appear. */
function foldSign(box: TopicBox): Drawing {
  const { x, y } = foldPoint(box)
  return drawing('g', { class: `fold-sign ${boxTone(box)}`, 'data-fold': box.topic.id }, [
    drawing('title', {}, [`${box.hidden} folded`]),
    drawing('rect', { x: x - 13, y: px(y - 9), width: 26, height: 18, rx: 9 }),
    drawing('text', { x, y: px(y + 4), 'text-anchor': 'middle' }, [String(box.hidden)]),
  ])
}
