import type { Style } from '../look/styles'
import type { TaskState } from '../records/dates'
import type { HueFamily } from '../records/look'
import type { TopicRecord } from '../records/topic'
import type { Fonts } from '../text/measure'
import type { Growth } from './block'
import type { Setting } from './kinds/set-children'
import type { Contents, SetText } from './topic-box'

/** How many topics a map holds, for maps whose topics are not among the records. */
export type CountTopics = (map: string) => number

/** What a map is laid out with besides its records; with an equal one, equal records give equal boxes on every machine. */
export interface LayoutContext {
  fonts: Fonts
  countTopics: CountTopics
}

/** Small signs at the end of a topic that tell what it carries, in the order in which they are drawn. */
export type Sign = 'note' | 'file' | 'web' | 'link' | 'comment' | 'gathers' | TaskState
export interface SignCount {
  sign: Sign
  count: number
}

/** What a topic shows wherever it stands. Lengths in px; the text is set with the number before it. */
export interface Face extends Contents {
  topic: TopicRecord
  /** Of the occurrence that it is; the topic's id in its own place. */
  key: string
  /** Whether it keeps a point that a person gave it. */
  byHand: boolean
  /** Whether a list found it, and it hangs elsewhere. */
  gathered: boolean
  width: number
  height: number
  level: number
  number: string | null
  signs: readonly SignCount[]
  /** Topics hidden below a folded topic. */
  hidden: number
  /** How it grows from its parent; null at the root and at heads of loose branches. */
  growth: Growth | null
  /** How its own children are set. */
  setting: Setting
}

const NONE: readonly TopicBox[] = []

/** A topic with its place on the map. Lengths in px; x and y are the upper left corner, the root's middle is 0, 0. */
export class TopicBox {
  /** Where it stands among the boxes of the latest layout. */
  index = -1
  private hanging: TopicBox[] | null = null

  constructor(
    readonly face: Face,
    public x: number,
    public y: number,
    /** Which of the eight branch hues; -1 at the root and at heads of loose branches. */
    readonly hue: number,
    /** Topics behind a doorway; null where the topic is none. */
    readonly behind: number | null,
    public parent: TopicBox | null,
  ) {}

  /** The boxes of its children in the latest layout, in order. The same array as long as nothing below it changes. */
  get below(): readonly TopicBox[] {
    return this.hanging ?? NONE
  }

  /** Forgets what hangs below it, before that hangs on it anew. */
  clearBelow(): void {
    this.hanging = null
  }

  hang(child: TopicBox): void {
    if (this.hanging) this.hanging.push(child)
    else this.hanging = [child]
  }

  get topic(): TopicRecord {
    return this.face.topic
  }
  /** The key of its occurrence: that of its topic, where the topic is in its own place. */
  get key(): string {
    return this.face.key
  }
  get byHand(): boolean {
    return this.face.byHand
  }
  get width(): number {
    return this.face.width
  }
  get height(): number {
    return this.face.height
  }
  get level(): number {
    return this.face.level
  }
  get style(): Style {
    return this.face.style
  }
  get text(): SetText {
    return this.face.text
  }
  get number(): string | null {
    return this.face.number
  }
  get signs(): readonly SignCount[] {
    return this.face.signs
  }
  get hidden(): number {
    return this.face.hidden
  }
  get growth(): Growth | null {
    return this.face.growth
  }
  get setting(): Setting {
    return this.face.setting
  }
  get growsLeft(): boolean {
    return this.face.growth === 'left' || this.face.growth === 'indented-left'
  }
}

export interface Bounds {
  x: number
  y: number
  width: number
  height: number
}

/** The frame of an enclosure on the map. */
export interface EnclosureBox extends Bounds {
  enclosure: string
  /** The enclosure's id, or a path where its topics are shown elsewhere, or where it has several frames. */
  key: string
  /** Whether the title stands in it: of several frames of one enclosure in the first. */
  isTitled: boolean
  family: HueFamily
  hue: number
}

/** Boxes by their keys. A topic's id is the key of its box in its own place. */
export interface BoxLookup {
  get(key: string): TopicBox | undefined
  /** All boxes that show a topic: the one in its own place first. */
  showing(topic: string): readonly TopicBox[]
  /** The first of these. */
  of(topic: string): TopicBox | undefined
}

export interface MapLayout {
  /** In reading order: a parent before its children. */
  boxes: readonly TopicBox[]
  byKey: BoxLookup
  enclosures: readonly EnclosureBox[]
  bounds: Bounds
}

/** The smallest rectangle around boxes; a point at 0, 0 where there are none. */
export function boundsOf(boxes: readonly { x: number; y: number; width: number; height: number }[]): Bounds {
  if (boxes.length === 0) return { x: 0, y: 0, width: 0, height: 0 }
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const box of boxes) {
    left = Math.min(left, box.x)
    top = Math.min(top, box.y)
    right = Math.max(right, box.x + box.width)
    bottom = Math.max(bottom, box.y + box.height)
  }
  return { x: left, y: top, width: right - left, height: bottom - top }
}
