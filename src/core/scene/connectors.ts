import { type Growth, SPACING } from '../layout/block'
import type { Bounds, MapLayout, TopicBox } from '../layout/boxes'
import { isFlanked, settingBelow } from '../layout/kinds/set-children'
import { ROUTE_SPACE } from '../layout/map-layout'
import type { ConnectorForm } from '../records/look'
import { isRoot } from '../records/place'
import { type Calendar, ENGLISH } from '../text/days'
import type { Ground } from '../ways/ground'
import { placeOf } from './crosslink-line'
import { type Drawing, drawing, px } from './drawing'
import { straightParts } from './path'
import { roundedLine } from './rounded-line'
import { sketched } from './sketch'
import { drawScale, stemX } from './time-scale'
import { boxTone } from './topic-drawing'

/** What hangs together below one topic: drawn as one piece, when it is asked for, and in view when `bounds` is. */
export class Connector {
  private drawn: Drawing | null = null
  private readonly children: TopicBox[] = []
  readonly bounds: Bounds

  constructor(
    readonly parent: TopicBox,
    /** How its topics grow. */
    readonly growth: Growth | null,
    private readonly surroundings: Surroundings,
  ) {
    const { x, y, width, height } = parent
    this.bounds = { x, y, width, height }
  }

  /** The same for the same group of topics, whatever else changes. */
  get key(): string {
    return this.children[0]!.key
  }

  add(child: TopicBox): void {
    const { bounds } = this
    const right = Math.max(bounds.x + bounds.width, child.x + child.width)
    const bottom = Math.max(bounds.y + bounds.height, child.y + child.height)
    bounds.x = Math.min(bounds.x, child.x)
    bounds.y = Math.min(bounds.y, child.y)
    bounds.width = right - bounds.x
    bounds.height = bottom - bounds.y
    this.children.push(child)
  }

  /** The topics that hang on it, in order. */
  get hanging(): readonly TopicBox[] {
    return this.children
  }

  /** The line from the parent to one of its children, for showing that it is meant. */
  lineTo(child: TopicBox): string {
    const { trunk, ticks } = linesFor(this.parent, this.children, this.surroundings)
    return trunk + (ticks.find((tick) => tick.child === child)?.path ?? '')
  }

  get drawing(): Drawing {
    this.drawn ??= inHues(this.parent, linesFor(this.parent, this.children, this.surroundings))
    return this.drawn
  }
}

interface Point {
  x: number
  y: number
}

/** What belongs to all children of a group, and what to each of them. */
interface Lines {
  trunk: string
  ticks: readonly { child: TopicBox; path: string }[]
  labels?: readonly Drawing[]
}

const middleX = (box: TopicBox) => box.x + box.width / 2
const middleY = (box: TopicBox) => box.y + box.height / 2

/** What connectors are drawn in. */
interface Surroundings {
  /** Set where lines can come upon topics that they do not join. */
  ground: Ground | null
  calendar: Calendar
}

/** One connector for what hangs together below a topic, in the form that the topic's style says. */
export function drawConnectors(
  layout: MapLayout,
  { ground, calendar = ENGLISH }: Partial<Surroundings> = {},
): Connector[] {
  const connectors: Connector[] = []
  const around = { ground: ground && layout.boxes.some(isOutOfLine) ? ground : null, calendar }
  for (const box of layout.boxes)
    if (box.below.length > 0) for (const connector of connectorsBelow(box, around)) connectors.push(connector)
  return connectors
}

/** Whether a topic stands, or sets its children, otherwise than the branch around it: lines of all others are clear by themselves. */
const isOutOfLine = ({ topic, byHand, parent, below, setting, growth }: TopicBox): boolean =>
  parent && growth ? byHand || (below.length > 0 && setting !== settingBelow(parent.setting, growth)) : !isRoot(topic)

const before = new WeakMap<
  TopicBox,
  { below: readonly TopicBox[]; connectors: readonly Connector[]; around: Surroundings }
>()

/** Connectors below a topic: those from before where the boxes are still the same, so that they are not drawn again. */
function connectorsBelow(parent: TopicBox, around: Surroundings): readonly Connector[] {
  const { below } = parent
  const known = before.get(parent)
  const stands = known?.around.ground === around.ground && known?.around.calendar === around.calendar
  if (stands && known?.below === below) return known.connectors
  const same =
    stands &&
    known?.below.length === below.length &&
    // What comes over the top of a branch depends on all of the branch.
    below.every((child, i) => child === known.below[i] && !isFlanked(child.setting, child.growth))
  const connectors = same ? known.connectors : grouped(parent, around)
  before.set(parent, { below, connectors, around })
  return connectors
}

/** How far beside its parent a topic placed by hand stands at least to be reached as from a trunk, in px. */
const BESIDE = 16

/**
 * Whether the line to a child goes straight there, whatever form lines have: it was placed by hand. Where all are, as in a free branch,
 * those beside their parent are reached as if they were arranged, so that a map that becomes free looks as before.
 */
function hasOwnLine(parent: TopicBox, child: TopicBox): boolean {
  if (!child.byHand) return false
  if (parent.setting === 'around' || parent.setting === 'time' || !parent.below.every(({ byHand }) => byHand))
    return true
  if (child.growth === 'right') return child.x < parent.x + parent.width + BESIDE
  if (child.growth === 'left') return child.x + child.width > parent.x - BESIDE
  return true
}

function grouped(parent: TopicBox, around: Surroundings): Connector[] {
  const connectors: Connector[] = []
  const byGrowth: Connector[] = []
  for (const child of parent.below) {
    const isAlone = hasOwnLine(parent, child)
    let group = !isAlone && byGrowth.find(({ growth }) => growth === child.growth)
    if (!group) {
      connectors.push((group = new Connector(parent, child.growth, around)))
      if (!isAlone) byGrowth.push(group)
    }
    group.add(child)
  }
  return connectors
}

/** The form in which each child has a line of its own; null where children share a trunk. */
function ownLine(form: ConnectorForm): 'curve' | 'straight' | null {
  switch (form) {
    case 'curve':
    case 'straight':
      return form
    case 'spine':
    case 'sketch':
      return null
  }
}

/** The lines of a group: those of its form as far as they pass through no other topic, else around what stands there. */
function linesFor(parent: TopicBox, children: readonly TopicBox[], { ground, calendar }: Surroundings): Lines {
  const lines = formedLines(parent, children, calendar)
  if (!ground) return lines
  const isClear = (path: string) => straightParts(path).every((part) => ground.areClear(part))
  const blocked = new Set(lines.ticks.flatMap(({ child, path }) => (isClear(path) ? [] : child)))
  const open = children.filter((child) => !blocked.has(child))
  const rest = open.length < children.length && open.length > 0 ? formedLines(parent, open, calendar) : lines
  const formed = open.length > 0 && isClear(rest.trunk) ? rest : { trunk: '', ticks: [] }
  const around = children.filter((child) => !formed.ticks.some((tick) => tick.child === child))
  return { ...formed, ticks: [...formed.ticks, ...around.map((child) => lineAround(parent, child, ground))] }
}

/** A line from a topic to one of its children through the free space; straight where there is no way. */
function lineAround(parent: TopicBox, child: TopicBox, ground: Ground) {
  const way = ground.way(placeOf(parent), placeOf(child))
  return { child, path: way ? roundedLine(way.points, ground) : straight(parent, child) }
}

function formedLines(parent: TopicBox, children: readonly TopicBox[], calendar: Calendar): Lines {
  const [first] = children
  if (hasOwnLine(parent, first!)) return { trunk: '', ticks: [{ child: first!, path: straight(parent, first!) }] }
  if (parent.setting === 'around') return spokes(parent, children)
  if (parent.setting === 'time') return axis(parent, children, calendar)
  const { growth } = first!
  const own = ownLine(parent.style.connector)
  if (own && (growth === 'right' || growth === 'left' || growth === 'down' || growth === 'up')) {
    const alone = children.filter((child) => !isFlanked(child.setting, child.growth))
    if (alone.length === children.length)
      return { trunk: '', ticks: children.map((child) => ({ child, path: freeLine(parent, child, own) })) }
  }
  switch (growth) {
    case 'right':
    case 'left':
      return spine(parent, children, growth === 'left')
    case 'down':
    case 'up':
      return beam(parent, children, growth === 'up')
    case null:
    case 'indented':
    case 'indented-left':
    case 'indented-up':
      return stem(parent, children, growth)
  }
}

/** Levels down to which connectors grow thinner. */
const THINNEST = 3

function inHues(parent: TopicBox, { trunk, ticks, labels = [] }: Lines): Drawing {
  const { connector, tapering } = parent.style
  const drawn = (path: string, seed: TopicBox) => (connector === 'sketch' ? sketched(path, seed.key) : path)
  const name = `connector${tapering ? ` taper-${Math.min(parent.level, THINNEST)}` : ''}`
  if (parent.hue >= 0) {
    const of = (some: readonly { path: string }[]) => some.map(({ path }) => path).join('')
    const gathered = ticks.filter(({ child }) => child.face.gathered)
    const own = gathered.length === 0 ? ticks : ticks.filter(({ child }) => !child.face.gathered)
    const path = drawing('path', { d: drawn(trunk + of(own), parent), class: `${name} ${boxTone(parent)}` })
    if (gathered.length === 0) return labels.length > 0 ? drawing('g', {}, [path, ...labels]) : path
    const dashed = drawing('path', {
      d: drawn(of(gathered), parent),
      class: `connector to-gathered ${boxTone(parent)}`,
    })
    return drawing('g', {}, [path, dashed, ...labels])
  }
  // One path for each hue: a root can have thousands of children.
  const byTone = new Map<string, string>()
  for (const { child, path } of ticks) {
    const tone = boxTone(child)
    byTone.set(tone, (byTone.get(tone) ?? '') + drawn(path, child))
  }
  const parts = [...byTone].map(([tone, d]) => drawing('path', { d, class: `${name} ${tone}` }))
  const common = trunk === '' ? [] : [drawing('path', { d: drawn(trunk, parent), class: `${name} root-spine` })]
  return drawing('g', {}, [...common, ...parts, ...labels])
}

/** A line of its own from the parent's edge to a child, straight or bent so that it leaves and arrives level or upright. */
function freeLine(parent: TopicBox, child: TopicBox, form: 'curve' | 'straight'): string {
  const { growth } = child
  const level = growth === 'right' || growth === 'left'
  const onward = growth === 'right' || growth === 'down'
  const from = level
    ? { x: onward ? parent.x + parent.width : parent.x, y: middleY(parent) }
    : { x: middleX(parent), y: onward ? parent.y + parent.height : parent.y }
  const to = level
    ? { x: onward ? child.x : child.x + child.width, y: middleY(child) }
    : { x: middleX(child), y: onward ? child.y : child.y + child.height }
  const start = `M${px(from.x)} ${px(from.y)}`
  if (form === 'straight') return `${start}L${px(to.x)} ${px(to.y)}`
  const bend = level ? (from.x + to.x) / 2 : (from.y + to.y) / 2
  return level
    ? `${start}C${px(bend)} ${px(from.y)} ${px(bend)} ${px(to.y)} ${px(to.x)} ${px(to.y)}`
    : `${start}C${px(from.x)} ${px(bend)} ${px(to.x)} ${px(bend)} ${px(to.x)} ${px(to.y)}`
}

/** The middle of the line from one coordinate to another, on whole pixels. */
const between = (from: number, to: number) => Math.round((from + to) / 2)

/** An upright spine between the parent and its children at one side. */
function spine(parent: TopicBox, children: readonly TopicBox[], left: boolean): Lines {
  const arrival = new Map(children.map((child) => [child, arrivalY(child)]))
  const from = left ? parent.x : parent.x + parent.width
  const near = (child: TopicBox) => (left ? child.x + child.width : child.x)
  const nearest = children.reduce(
    (at, child) => (left ? Math.max(at, near(child)) : Math.min(at, near(child))),
    near(children[0]!),
  )
  const x = between(from, nearest)
  const ends = [middleY(parent), ...arrival.values()]
  return {
    trunk: `M${px(from)} ${px(middleY(parent))}H${px(x)}M${px(x)} ${px(Math.min(...ends))}V${px(Math.max(...ends))}`,
    ticks: children.map((child) => ({
      child,
      path: `M${px(x)} ${px(arrival.get(child)!)}${arriveAcross(child, near(child))}`,
    })),
  }
}

/** Height at which the tick leaves the spine: that of the head, or above all that stands beside it. */
function arrivalY(child: TopicBox): number {
  if (!isFlanked(child.setting, child.growth)) return middleY(child)
  let top = child.y
  const waiting = [child]
  for (let box = waiting.pop(); box; box = waiting.pop()) {
    top = Math.min(top, box.y)
    waiting.push(...box.below)
  }
  return top - ROUTE_SPACE / 2
}

const arriveAcross = (child: TopicBox, near: number): string =>
  isFlanked(child.setting, child.growth) ? `H${px(middleX(child))}V${px(child.y)}` : `H${px(near)}`

/** A level beam beneath the parent, or above it, from which its children hang. */
function beam(parent: TopicBox, children: readonly TopicBox[], up: boolean): Lines {
  const from = up ? parent.y : parent.y + parent.height
  const near = (child: TopicBox) => (up ? child.y + child.height : child.y)
  const nearest = children.reduce(
    (at, child) => (up ? Math.max(at, near(child)) : Math.min(at, near(child))),
    near(children[0]!),
  )
  const y = between(from, nearest)
  const ends = [middleX(parent), ...children.map(middleX)]
  return {
    trunk: `M${px(middleX(parent))} ${px(from)}V${px(y)}M${px(Math.min(...ends))} ${px(y)}H${px(Math.max(...ends))}`,
    ticks: children.map((child) => ({ child, path: `M${px(middleX(child))} ${px(y)}V${px(near(child))}` })),
  }
}

/** A stem that runs from the parent beside its indented children, down or up. */
function stem(parent: TopicBox, children: readonly TopicBox[], growth: Growth | null): Lines {
  const mirrored = growth === 'indented-left'
  const x = mirrored ? parent.x + parent.width - SPACING.indent / 2 : parent.x + SPACING.indent / 2
  const up = growth === 'indented-up'
  const farthest = children.map(middleY).reduce((far, y) => (up ? Math.min(far, y) : Math.max(far, y)))
  return {
    trunk: `M${px(x)} ${px(up ? parent.y : parent.y + parent.height)}V${px(farthest)}`,
    ticks: children.map((child) => ({
      child,
      path: `M${px(x)} ${px(middleY(child))}H${px(mirrored ? child.x + child.width : child.x)}`,
    })),
  }
}

/** Spokes from the middle of the parent's edge to each child around it. */
function spokes(parent: TopicBox, children: readonly TopicBox[]): Lines {
  return {
    trunk: '',
    ticks: children.map((child) => {
      const left = child.growth === 'left'
      const to = { x: left ? child.x + child.width : child.x, y: middleY(child) }
      const from = edgeTowards(parent, to)
      const bend = (from.x + to.x) / 2
      return {
        child,
        path: `M${px(from.x)} ${px(from.y)}C${px(bend)} ${px(from.y)} ${px(bend)} ${px(to.y)} ${px(to.x)} ${px(to.y)}`,
      }
    }),
  }
}

/** Where the line from the middle of a box to a point leaves the box. */
function edgeTowards(box: TopicBox, to: Point): Point {
  const dx = to.x - middleX(box)
  const dy = to.y - middleY(box)
  const part = Math.min(box.width / 2 / Math.max(Math.abs(dx), 1e-6), box.height / 2 / Math.max(Math.abs(dy), 1e-6), 1)
  return { x: middleX(box) + dx * part, y: middleY(box) + dy * part }
}

const straight = (parent: TopicBox, child: TopicBox): string => {
  const from = edgeTowards(parent, { x: middleX(child), y: middleY(child) })
  const to = edgeTowards(child, { x: middleX(parent), y: middleY(parent) })
  return `M${px(from.x)} ${px(from.y)}L${px(to.x)} ${px(to.y)}`
}

/** A scale of days with a stem to each child that has one; those without a day hang on a spine at its end. */
function axis(parent: TopicBox, children: readonly TopicBox[], calendar: Calendar): Lines {
  const dated = children.filter(({ topic }) => topic.dates)
  const undated = children.filter(({ topic }) => !topic.dates)
  const y = middleY(parent)
  const ends = [...dated.map(stemX), ...undated.map((child) => child.x - SPACING.level / 2)]
  const end = Math.max(parent.x + parent.width, ...ends)
  const lowest = Math.max(y, ...undated.map(middleY))
  const highest = Math.min(y, ...undated.map(middleY))
  const atEnd = undated.length > 0 ? `M${px(end)} ${px(highest)}V${px(lowest)}` : ''
  return {
    trunk: `M${px(parent.x + parent.width)} ${px(y)}H${px(end)}${atEnd}`,
    ticks: children.map((child) => ({
      child,
      path: child.topic.dates
        ? `M${px(stemX(child))} ${px(y)}V${px(middleY(child))}H${px(child.x)}`
        : `M${px(end)} ${px(middleY(child))}H${px(child.x)}`,
    })),
    labels: drawScale(dated, y, calendar),
  }
}
