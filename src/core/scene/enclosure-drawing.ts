import type { Bounds, EnclosureBox } from '../layout/boxes'
import { ENCLOSURE_TITLE, enclosureTitleWidth, titleSize } from '../layout/enclosure-title'
import { toneClass } from '../look/families'
import type { EnclosureRecord } from '../records/enclosure'
import type { Fonts } from '../text/measure'
import { noteBeginning } from '../text/note-beginning'
import { type Drawing, drawing, px } from './drawing'
import { placedPath } from './path'
import { SIGN_PATHS } from './signs'
import { sketched } from './sketch'

function frame({ x, y, width, height }: EnclosureBox, { id, look }: EnclosureRecord): Drawing {
  const { fill, line = 'thin', corners = 'round' } = look ?? {}
  const attributes = { class: `enclosure-frame frame-${line}${fill ? ' picked' : ''}`, ...(fill ? { fill } : {}) }
  if (corners === 'sketch') {
    const path = `M${px(x)} ${px(y)}H${px(x + width)}V${px(y + height)}H${px(x)}Z`
    return drawing('path', { d: sketched(path, id), ...attributes })
  }
  const size = { x: px(x), y: px(y), width: px(width), height: px(height) }
  return drawing('rect', { ...size, rx: corners === 'round' ? 6 : 0, ...attributes })
}

/** Where the title of an enclosure stands; nowhere without one. */
export function titleBounds(box: EnclosureBox, enclosure: EnclosureRecord, fonts: Fonts): Bounds[] {
  const { title, titleWidth } = titleSize(fonts, enclosure)
  return title === 0 || !box.isTitled ? [] : [{ x: box.x + 8, y: box.y + 4, width: titleWidth - 12, height: title - 4 }]
}

/** The frame around a branch or several topics, with its title and the sign of its note in the upper left corner. */
export function drawEnclosure(box: EnclosureBox, enclosure: EnclosureRecord, fonts: Fonts): Drawing {
  const hue = enclosure.tone ?? box.hue
  const title = `enclosure-title${enclosure.look?.fill ? ' on-picked' : ''}`
  const parts = [frame(box, enclosure)]
  if (enclosure.title !== '' && box.isTitled)
    parts.push(
      drawing('text', { x: px(box.x + 8), y: px(box.y + ENCLOSURE_TITLE.height - 5), class: title }, [enclosure.title]),
    )
  const beginning = noteBeginning(enclosure.note, 300)
  if (beginning !== '' && box.isTitled) {
    const x = box.x + 8 + (enclosure.title === '' ? 0 : enclosureTitleWidth(fonts, enclosure.title) + 6)
    parts.unshift(drawing('title', {}, [beginning]))
    parts.push(drawing('path', { d: placedPath(SIGN_PATHS.note, 0.58, x, box.y + 4), class: 'sign-outline' }))
  }
  return drawing('g', { class: `enclosure ${toneClass(box.family, hue)}`, 'data-enclosure': enclosure.id }, parts)
}
