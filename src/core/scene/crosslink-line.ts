import { type Bounds, boundsOf, type MapLayout, TopicBox } from '../layout/boxes'
import { isAtHome } from '../layout/occurrence'
import type { CrosslinkRecord, LinkEnd } from '../records/crosslink'
import { type Fonts, measureLine } from '../text/measure'
import { type Ground, MOST_TILES, type Place } from '../ways/ground'
import type { Patience, Point } from '../ways/way'
import { bentLine, placeOfBend } from './bent-line'
import { type Drawing, drawing, px } from './drawing'
import { straightParts } from './path'
import { distance, roundedLine, towards } from './rounded-line'

export interface CrosslinkLine {
  /** The link's id, or a path where its topic is shown elsewhere. */
  key: string
  link: CrosslinkRecord
  /** What it leads from and to on the map. */
  ends: readonly [Bounds, Bounds]
  /** Its ends, and what lies between as straight pieces. */
  points: readonly Point[]
  bounds: Bounds
  drawing: Drawing
}

/** A line as it was found, with what it depends on. */
interface Found {
  link: CrosslinkRecord
  from: Bounds
  to: Bounds
  /** Where it was last found, or found to be still clear. */
  ground: Ground
  course: Course
  line: CrosslinkLine
}

/** Where a line runs. */
interface Course {
  path: string
  /** Its ends, and what lies between as straight pieces: the last one tells the direction of its head. */
  points: readonly Point[]
  /** Where it turns around corners; nowhere on a curve. */
  turns: readonly string[]
  /** Whether it was still to be found out how it runs best when patience ended. */
  isSettled: boolean
}

const ARROW = 7
const LABEL_SIZE = 12

/**
 * Cross-links as lines from the edge of a box that shows their topic to that of another, or to the frame of an enclosure,
 * with a small head at the far end: a curve where nothing stands in its way, else around what does (`core/ways`). Lines
 * stay as they were as long as their ends stand still and nothing comes in their way.
 */
export class CrosslinkLines {
  private before = new Map<string, Found>()
  private found = new Map<string, Found>()

  constructor(private readonly fonts: Fonts) {}

  /**
   * Those of these links that can be shown on a map, each from every box that shows its topic. Where patience ends before
   * all ways are found, the others run as they did, or straight to their ends, until they are asked for again.
   */
  drawn(
    links: readonly { link: CrosslinkRecord; box: TopicBox }[],
    layout: MapLayout,
    ground: Ground,
    patience: Patience,
  ): { lines: CrosslinkLine[]; areSettled: boolean } {
    this.before = this.found
    this.found = new Map()
    const lines = links.flatMap(({ link, box }) => this.line(link, box, layout, ground, patience) ?? [])
    return { lines, areSettled: [...this.found.values()].every(({ course }) => course.isSettled) }
  }

  /** One of them; null where its end is not shown. Where that is shown more than once, the nearest is meant. */
  line(
    link: CrosslinkRecord,
    from: TopicBox,
    layout: MapLayout,
    ground: Ground,
    patience: Patience,
  ): CrosslinkLine | null {
    const to = nearest(from, boxesAtEnd(link.to, layout))
    if (!to) return null
    const key = keyOfLine(link, from)
    const known = this.found.get(key) ?? this.before.get(key)
    if (known?.ground === ground && known.link === link) return known.line
    // Bent otherwise, it runs elsewhere.
    const before = known?.link.bend === link.bend ? known : undefined
    const course = bentCourse(link, from, to, ground, before, patience) ?? courseOf(from, to, ground, before, patience)
    const stays = course === known?.course && link === known.link
    const line = stays
      ? known.line
      : { key, link, ends: [from, to] as const, points: course.points, ...drawnLine(link, course, ground, this.fonts) }
    ground.takeLanes(course.turns)
    this.found.set(key, { link, from: rectangle(from), to: rectangle(to), ground, course, line })
    return line
  }
}

export const keyOfLine = (link: CrosslinkRecord, from: TopicBox): string =>
  isAtHome(from) ? link.id : `${from.key}>${link.id}`

const rectangle = ({ x, y, width, height }: Bounds): Bounds => ({ x, y, width, height })
const isSame = (a: Bounds, b: Bounds) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height

/**
 * As it was where nothing has come in its way; else a curve where nothing is in the way of that; else the way around; a
 * curve over everything where there is none.
 */
function courseOf(from: TopicBox, to: Bounds, ground: Ground, known: Found | undefined, patience: Patience): Course {
  const before = known && movedCourse(known, from, to, ground)
  if (before?.isSettled && ground.areClear(before.points)) return before
  const curve = curveBetween(from, to)
  if (ground.areClear(curve.points)) return curve
  // One line takes no more than this: what is not found in that is not sought again and again.
  const most = Math.min(patience.tiles, MOST_TILES)
  const own = { tiles: most }
  const way = ground.way(placeOf(from), placeOf(to), own)
  patience.tiles -= most - own.tiles
  if (way) return { path: roundedLine(way.points, ground), ...way, isSettled: true }
  return { ...(before ?? curve), isSettled: own.tiles > 0 || most === MOST_TILES }
}

/** By way of the place to which a person has bent it; null where none has, or where there is no way by there. */
function bentCourse(
  { bend }: CrosslinkRecord,
  from: TopicBox,
  to: Bounds,
  ground: Ground,
  known: Found | undefined,
  patience: Patience,
): Course | null {
  if (!bend) return null
  const isWhereItWas = known && isSame(known.from, from) && isSame(known.to, to)
  if (isWhereItWas && known.course.isSettled && ground.areClear(known.course.points)) return known.course
  const bent = bentLine(placeOf(from), placeOf(to), placeOfBend(bend, from, to), ground, patience)
  return bent && { ...bent, isSettled: true }
}

/** Where a line ran, for ends that have moved: what lies between them moves with them where both have moved alike. */
function movedCourse({ from, to, course }: Found, newFrom: Bounds, newTo: Bounds, ground: Ground): Course | undefined {
  if (isSame(from, newFrom) && isSame(to, newTo)) return course
  if (course.turns.length === 0) return undefined
  const points = course.points.map((point, i, all) => {
    const [end, newEnd] = i < all.length / 2 ? [from, newFrom] : [to, newTo]
    const isMiddle = i > 1 && i < all.length - 2
    const moves = !isMiddle || (newFrom.x - from.x === newTo.x - to.x && newFrom.y - from.y === newTo.y - to.y)
    // An end at the right edge stays at the right edge of a topic that has grown wider.
    const atRight = point.x >= end.x + end.width ? newEnd.width - end.width : 0
    return moves ? { x: point.x + newEnd.x - end.x + atRight, y: point.y + newEnd.y - end.y } : point
  })
  return { ...course, path: roundedLine(points, ground), points }
}

function curveBetween(from: Bounds, to: Bounds): Course {
  const [start, end] = nearestEdges(from, to)
  const bend = Math.min(120, 30 + Math.abs(end.y - start.y) / 3)
  const c1 = { x: start.x + start.out * bend, y: start.y }
  const c2 = { x: end.x + end.out * bend, y: end.y }
  const path = `M${px(start.x)} ${px(start.y)}C${px(c1.x)} ${px(c1.y)} ${px(c2.x)} ${px(c2.y)} ${px(end.x)} ${px(end.y)}`
  return { path, points: straightParts(path)[0]!, turns: [], isSettled: true }
}

/** A box with the sides at which its connectors arrive and leave. */
export function placeOf(box: Bounds): Place {
  const growsTo = (side: 'left' | 'right') => box instanceof TopicBox && box.below.some(({ growth }) => growth === side)
  const arrives = box instanceof TopicBox ? box.growth : null
  const busy = { left: arrives === 'right' || growsTo('left'), right: arrives === 'left' || growsTo('right') }
  return { ...rectangle(box), busy }
}

function drawnLine(link: CrosslinkRecord, { path, points }: Course, ground: Ground, fonts: Fonts) {
  const head = headAt(points.at(-1)!, points.at(-2)!) + (link.bothWays ? headAt(points[0]!, points[1]!) : '')
  const parts = [
    drawing('path', { d: path, class: 'crosslink-reach' }),
    drawing('path', { d: path, class: 'crosslink-line' }),
    drawing('path', { d: head, class: 'crosslink-head' }),
  ]
  const reach = points.map(({ x, y }) => ({ x: x - 4, y: y - 4, width: 8, height: 8 }))
  if (link.label !== '') {
    const width = measureLine(fonts, link.label, LABEL_SIZE, 'plain').width
    const at = labelPlace(points, width, ground)
    reach.push({ x: at.x - width / 2, y: at.y - LABEL_SIZE, width, height: LABEL_SIZE * 2 })
    parts.push(
      drawing('text', { x: px(at.x), y: px(at.y), class: 'crosslink-label', 'text-anchor': 'middle' }, [link.label]),
    )
  }
  return { bounds: boundsOf(reach), drawing: drawing('g', { class: 'crosslink', 'data-crosslink': link.id }, parts) }
}

/** The head of an arrow that arrives at a point from another one. */
function headAt(end: Point, from: Point): string {
  const back = towards(end, from, ARROW)
  const side = { x: ((end.y - back.y) * 4) / ARROW, y: ((back.x - end.x) * 4) / ARROW }
  return `M${px(back.x + side.x)} ${px(back.y + side.y)}L${px(end.x)} ${px(end.y)}L${px(back.x - side.x)} ${px(back.y - side.y)}`
}

/** Parts of a line's length at which there may be room for its label, the best first. */
const LABEL_AT = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8]

/** Where a label covers no topic, as near to the middle of the line as can be; at the middle where there is no such place. */
function labelPlace(points: readonly Point[], width: number, ground: Ground): Point {
  const places = LABEL_AT.map((part) => {
    const { x, y } = pointAt(points, part)
    return { x, y: y - 4 }
  })
  const isFree = ({ x, y }: Point) =>
    ground.isFree({ x: x - width / 2 - 2, y: y - LABEL_SIZE, width: width + 4, height: LABEL_SIZE * 1.3 })
  return places.find(isFree) ?? places[0]!
}

/** The point at a part of the length of a line. */
function pointAt(points: readonly Point[], part: number): Point {
  const lengths = points.map((point, i) => (i === 0 ? 0 : distance(points[i - 1]!, point)))
  let left = lengths.reduce((sum, length) => sum + length, 0) * part
  for (let i = 1; i < points.length; i++) {
    if (left <= lengths[i]!) return towards(points[i - 1]!, points[i]!, left)
    left -= lengths[i]!
  }
  return points.at(-1)!
}

/** What a link can be drawn to; nothing for what stands on no map, and where it is not shown. */
function boxesAtEnd({ kind, id }: LinkEnd, layout: MapLayout): readonly Bounds[] {
  switch (kind) {
    case 'topic':
      return layout.byKey.showing(id)
    case 'enclosure':
      return layout.enclosures.filter(({ enclosure }) => enclosure === id)
    case 'map':
    case 'note':
      return []
    default:
      return kind satisfies never
  }
}

function nearest(from: Bounds, boxes: readonly Bounds[]): Bounds | undefined {
  if (boxes.length < 2) return boxes[0]
  const middle = ({ x, y, width, height }: Bounds) => ({ x: x + width / 2, y: y + height / 2 })
  const here = middle(from)
  return boxes.reduce((best, box) => (distance(middle(box), here) < distance(middle(best), here) ? box : best))
}

/** The pair of upright edges that lie nearest to one another; `out` points away from the box. */
function nearestEdges(from: Bounds, to: Bounds): [Point & { out: number }, Point & { out: number }] {
  const edges = (box: Bounds) => [
    { x: box.x, y: box.y + box.height / 2, out: -1 },
    { x: box.x + box.width, y: box.y + box.height / 2, out: 1 },
  ]
  const pairs = edges(from).flatMap((a) => edges(to).map((b) => [a, b] as const))
  const gap = ([a, b]: (typeof pairs)[number]) => Math.abs(a.x - b.x)
  return [...pairs.reduce((best, pair) => (gap(pair) < gap(best) ? pair : best))]
}
