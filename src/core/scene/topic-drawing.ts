import type { TopicBox } from '../layout/boxes'
import { DOORWAY_WIDTH, SIGN_COUNT_WIDTH, SIGN_SIZE } from '../layout/map-layout'
import { typeSizeAt } from '../layout/topic-box'
import { type Drawing, drawing, px } from './drawing'
import { SIGN_PATHS, signName } from './signs'

const CORNER = 13
const BAR = 3
/** How far below the top of its line a letter stands, as a part of the line height. */
const BASELINE = 0.72

/** The topic as drawn in the look *Laid*, at the origin: whoever shows it moves it to its place. */
export function drawTopic(box: TopicBox): Drawing[] {
  const parts: Drawing[] = []
  if (!box.parent)
    parts.push(
      drawing('rect', {
        width: px(box.width),
        height: px(box.height),
        rx: 6,
        class: box.topic.place.x === null ? 'root-block' : 'loose-block',
      }),
    )
  else if (box.behind !== null) parts.push(...doorwayLeaf(box))
  if (box.parent) parts.push(bar(box))
  parts.push(...textLines(box), ...signRow(box))
  if (box.behind !== null) parts.push(doorwayNumber(box))
  if (box.hidden > 0) parts.push(foldSign(box))
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
  return drawing('rect', { ...at, class: `bar hue-${box.hue}` })
}

/** Where the text begins: after the signs and the corner on branches that grow to the left. */
function textStart(box: TopicBox): number {
  const { padX } = typeSizeAt(box.level)
  return box.growsLeft ? box.width - padX - box.text.width : padX
}

function textLines(box: TopicBox): Drawing[] {
  const type = typeSizeAt(box.level)
  const start = textStart(box)
  return box.text.lines.map((line, i) => {
    const x = box.growsLeft ? start + box.text.width - line.width : start
    const y = type.padY + i * type.lineHeight + type.lineHeight * BASELINE
    const fitted: Record<string, string | number> = line.exact
      ? {}
      : { textLength: px(line.width), lengthAdjust: 'spacingAndGlyphs' }
    return drawing('text', { x: px(x), y: px(y), class: `topic-text level-${Math.min(box.level, 2)}`, ...fitted }, [
      line.text,
    ])
  })
}

/** The sheet of a doorway with its turned-down corner: there is more beneath. */
function doorwayLeaf(box: TopicBox): Drawing[] {
  const { width, height } = box
  const sheet = box.growsLeft
    ? `M${CORNER} 0H${px(width)}V${px(height)}H0V${CORNER}Z`
    : `M0 0H${px(width - CORNER)}L${px(width)} ${CORNER}V${px(height)}H0Z`
  const fold = box.growsLeft ? `M${CORNER} 0V${CORNER}H0Z` : `M${px(width - CORNER)} 0V${CORNER}H${px(width)}Z`
  return [
    drawing('path', { d: sheet, class: `leaf hue-${box.hue}` }),
    drawing('path', { d: fold, class: `fold hue-${box.hue}` }),
  ]
}

function doorwayNumber(box: TopicBox): Drawing {
  const x = box.growsLeft ? DOORWAY_WIDTH / 2 - 2 : box.width - DOORWAY_WIDTH / 2 + 2
  return drawing('text', { x: px(x), y: px(box.height - 6), class: `behind hue-${box.hue}`, 'text-anchor': 'middle' }, [
    String(box.behind),
  ])
}

function signRow(box: TopicBox): Drawing[] {
  const row: Drawing[] = []
  const { padX, padY, lineHeight } = typeSizeAt(box.level)
  const y = padY + (lineHeight - 14) / 2
  let x = box.growsLeft
    ? (box.behind !== null ? DOORWAY_WIDTH : 0) + 4
    : textStart(box) + box.text.width + Math.min(padX, 8)
  for (const { sign, count } of box.signs) {
    const name = signName(sign, count)
    row.push(
      drawing(
        'g',
        {
          class: `sign level-${Math.min(box.level, 2)}-signs`,
          'data-sign': sign,
          transform: `translate(${px(x)} ${px(y)})`,
        },
        [
          drawing('title', {}, [name]),
          drawing('rect', { width: SIGN_SIZE, height: 14, class: 'sign-reach' }),
          drawing('path', { d: SIGN_PATHS[sign], transform: 'scale(0.58)', class: 'sign-outline' }),
          ...(count > 1 ? [drawing('text', { x: 15, y: 11, class: 'sign-count' }, [String(count)])] : []),
        ],
      ),
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
  return drawing('g', { class: `fold-sign hue-${box.hue}`, 'data-fold': box.topic.id }, [
    drawing('title', {}, [`${box.hidden} folded`]),
    drawing('rect', { x: x - 13, y: px(y - 9), width: 26, height: 18, rx: 9 }),
    drawing('text', { x, y: px(y + 4), 'text-anchor': 'middle' }, [String(box.hidden)]),
  ])
}
