import type { CSSProperties } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import { textInsets } from '../../core/scene/topic-drawing'

/** The style sheet's names of the fonts. */
const FONT_OF: Record<string, string> = { plain: 'interface', reading: 'reading', hand: 'hand' }

/** Letters are written no smaller than this part of their size on the map. */
const LEAST = 0.7
const LEAST_WIDTH = 60
/** Room for the next letter. */
const MORE = 8

/** The style of a field in which the text of a topic is written where it stands on the map, in the same letters. */
export function fieldOver(
  box: TopicBox,
  at: { k: number; applyX(x: number): number; applyY(y: number): number },
): CSSProperties {
  const { k } = at
  const { style, growsLeft } = box
  const { left, right, top } = textInsets(box)
  const width = Math.max(LEAST_WIDTH, box.width * k + MORE)
  return {
    // What grows to the left is written from the right, where it begins.
    left: growsLeft ? at.applyX(box.x + box.width) - width : at.applyX(box.x),
    top: at.applyY(box.y),
    minWidth: width,
    maxWidth: (style.maxWidth + 40) * k,
    fontSize: style.size * Math.max(k, LEAST),
    fontFamily: `var(--${FONT_OF[style.face.split('-')[0]!]}-font)`,
    fontWeight: style.face.includes('-bold') ? 600 : 400,
    fontStyle: style.italic ? 'italic' : 'normal',
    lineHeight: `${style.lineHeight * Math.max(k, LEAST)}px`,
    textAlign: growsLeft ? 'right' : undefined,
    padding: `${top * k}px ${right * k}px ${style.padY * k}px ${left * k}px`,
  }
}
