import type { EnclosureBox } from '../layout/boxes'
import { ENCLOSURE_TITLE } from '../layout/map-layout'
import { toneClass } from '../look/families'
import type { EnclosureRecord } from '../records/enclosure'
import { type Drawing, drawing, px } from './drawing'

/** The frame around a branch or several topics, with its title in the upper left corner. */
export function drawEnclosure(box: EnclosureBox, enclosure: EnclosureRecord): Drawing {
  const hue = enclosure.tone ?? box.hue
  const parts = [
    drawing('rect', {
      x: px(box.x),
      y: px(box.y),
      width: px(box.width),
      height: px(box.height),
      rx: 6,
      class: 'enclosure-frame',
    }),
  ]
  if (enclosure.title !== '')
    parts.push(
      drawing('text', { x: px(box.x + 8), y: px(box.y + ENCLOSURE_TITLE.height - 5), class: 'enclosure-title' }, [
        enclosure.title,
      ]),
    )
  return drawing('g', { class: `enclosure ${toneClass(box.family, hue)}`, 'data-enclosure': enclosure.id }, parts)
}
