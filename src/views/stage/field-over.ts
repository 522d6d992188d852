import type { CSSProperties } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { READABLE_PX } from '../../core/layout/view'
import { BASELINE, textInsets } from '../../core/scene/topic-drawing'

/** The style sheet's names of the fonts. */
const FONT_OF: Record<string, string> = { plain: 'interface', reading: 'reading', hand: 'hand' }

const LEAST_WIDTH = 60
/** Of the pixel by which the browser may write higher than asked for, since it rounds down: what keeps letters nearest on average. */
const PIXEL_PART = 0.3
/** Room for the next letter. */
const MORE = 8

let measuring: CanvasRenderingContext2D | null = null

/** How far below the top of its line the browser writes a font, in px. */
function baselineIn(lineHeight: number, font: string): number {
  measuring ??= document.createElement('canvas').getContext('2d')
  if (!measuring) return lineHeight * BASELINE
  measuring.font = font
  const { fontBoundingBoxAscent: ascent, fontBoundingBoxDescent: descent } = measuring.measureText('x')
  return (lineHeight - ascent - descent) / 2 + ascent
}

/**
 * The style of a field in which the text of a topic is written where it stands on the map, in the same letters, as long as
 * these can be read there.
 */
export function fieldOver(
  box: TopicBox,
  at: { k: number; applyX(x: number): number; applyY(y: number): number },
): CSSProperties {
  const { k } = at
  const { style, growsLeft } = box
  const { left, right, top } = textInsets(box)
  const width = Math.max(LEAST_WIDTH, box.width * k + MORE)
  const written = Math.max(k, Math.min(1, READABLE_PX / style.size))
  const lineHeight = style.lineHeight * written
  const family = FONT_OF[style.face.split('-')[0]!]!
  const weight = style.face.includes('-bold') ? 600 : 400
  const families = getComputedStyle(document.documentElement).getPropertyValue(`--${family}-font`)
  const baseline = baselineIn(lineHeight, `${weight} ${style.size * written}px ${families}`)
  return {
    // What grows to the left is written from the right, where it begins.
    left: growsLeft ? at.applyX(box.x + box.width) - width : at.applyX(box.x),
    top: at.applyY(box.y),
    minWidth: width,
    maxWidth: (style.maxWidth + 40) * k,
    fontSize: style.size * written,
    fontFamily: `var(--${family}-font)`,
    fontWeight: weight,
    fontStyle: style.italic ? 'italic' : 'normal',
    lineHeight: `${lineHeight}px`,
    textAlign: growsLeft ? 'right' : undefined,
    // The letters stand where they are drawn, whatever the browser makes of the line around them; it rounds down to pixels.
    paddingTop: Math.max(0, (top + style.lineHeight * BASELINE) * k - baseline + PIXEL_PART),
    paddingRight: right * k,
    paddingBottom: style.padY * k,
    paddingLeft: left * k,
  }
}
