import { Kept } from '../kept'
import type { Style } from '../look/styles'
import type { TopicPicture } from '../records/topic'
import { type Fonts, type Line, wrapEvenly, wrapText } from '../text/measure'

/** Text broken into lines, with the space it takes in px. */
export interface SetText {
  lines: readonly Line[]
  width: number
  height: number
}

const MIN_WIDTH = 24
/** Texts that are kept measured, so that a change of one topic measures one topic. */
const MOST_KEPT = 200_000
const keptIn = new WeakMap<Fonts, Kept<SetText>>()

/**
 * Breaks and measures a topic's text as its style sets it: in lines of at most `given` px where a width was given, else in
 * as few and as even ones as can be.
 * Texts measured before are remembered.
 */
export function setTopicText(fonts: Fonts, text: string, style: Style, given: number | null): SetText {
  const { face, size, maxWidth, lineHeight } = style
  let kept = keptIn.get(fonts)
  if (!kept) keptIn.set(fonts, (kept = new Kept(MOST_KEPT)))
  const key = `${face} ${size} ${lineHeight} ${given ?? `-${maxWidth}`} ${text}`
  return kept.get(key, () => {
    const lines = given ? wrapText(fonts, text, given, size, face) : wrapEvenly(fonts, text, maxWidth, size, face)
    return setLines(lines, lineHeight, given ?? MIN_WIDTH)
  })
}

function setLines(lines: readonly Line[], lineHeight: number, least: number): SetText {
  let width = least
  for (const line of lines) width = Math.max(width, line.width)
  return { lines, width, height: lines.length * lineHeight }
}

/** The beginning of a note under a topic: how it is set, in px. */
export const EXCERPT = { size: 13, lineHeight: 17, gap: 4, width: 210, lines: 3, letters: 160 } as const

export function setExcerpt(fonts: Fonts, text: string, topicWidth: number): SetText {
  const most = Math.max(EXCERPT.width, topicWidth)
  const set = setLines(wrapText(fonts, text, most, EXCERPT.size, 'plain'), EXCERPT.lineHeight, 0)
  if (set.lines.length <= EXCERPT.lines) return set
  const lines = set.lines.slice(0, EXCERPT.lines)
  const last = lines[EXCERPT.lines - 1]!
  lines[EXCERPT.lines - 1] = { ...last, text: `${last.text.replace(/[\s.,;:…]+$/, '')}…`, exact: false }
  return { lines, width: set.width, height: EXCERPT.lines * EXCERPT.lineHeight }
}

/** Size and space of badges, pictures and tags, in px. */
export const BADGE = { size: 18, step: 21 } as const
export const PICTURE_GAP = 6
export const TAGS = { size: 12, height: 17, padX: 6, gap: 4, above: 4, width: 230 } as const

/** A tag as it stands under a topic's text; x and y from the row's corner, in px. */
export interface SetTag {
  name: string
  tone: number | null
  x: number
  y: number
  width: number
}

/** Sets tags one after the other, in rows as wide as the topic's text or as `TAGS.width`. */
export function setTags(
  tags: readonly { name: string; tone: number | null }[],
  topicWidth: number,
  measure: (text: string) => number,
): { tags: SetTag[]; width: number; height: number } {
  const most = Math.max(TAGS.width, topicWidth)
  const set: SetTag[] = []
  let [x, y, widest] = [0, 0, 0]
  for (const { name, tone } of tags) {
    const width = Math.ceil(measure(name)) + 2 * TAGS.padX
    if (x > 0 && x + width > most) {
      x = 0
      y += TAGS.height + TAGS.gap
    }
    set.push({ name, tone, x, y, width })
    widest = Math.max(widest, x + width)
    x += width + TAGS.gap
  }
  return { tags: set, width: widest, height: tags.length > 0 ? y + TAGS.height : 0 }
}

/** What stands in a topic, before it has a place. */
export interface Contents {
  style: Style
  text: SetText
  picture: TopicPicture | null
  badges: readonly string[]
  excerpt: SetText | null
  tags: { tags: readonly SetTag[]; width: number; height: number }
  /** Room for the signs at the end of the text, and for the turned-down corner. */
  signsWidth: number
  cornerWidth: number
}

/** How large a topic is with all that stands in it. */
export function sizeOf(contents: Contents): { width: number; height: number } {
  const { style, text, picture, badges, excerpt, tags, signsWidth, cornerWidth } = contents
  let width = badges.length * BADGE.step + text.width + signsWidth
  let height = Math.max(text.height, badges.length > 0 ? BADGE.size : 0)
  if (picture) {
    width = Math.max(width, picture.width)
    height += picture.height + PICTURE_GAP
  }
  if (excerpt) {
    width = Math.max(width, excerpt.width)
    height += excerpt.height + EXCERPT.gap
  }
  if (tags.height > 0) {
    width = Math.max(width, tags.width)
    height += tags.height + TAGS.above
  }
  return { width: width + 2 * style.padX + cornerWidth, height: height + 2 * style.padY }
}
