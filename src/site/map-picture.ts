import type { Icons } from '../core/badges/badges'
import type { LayoutContext } from '../core/layout/boxes'
import type { Records } from '../core/records/records'
import { backdrop } from '../core/scene/backdrop'
import { px, toMarkup } from '../core/scene/drawing'
import { buildScene } from '../core/scene/scene'
import { drawTopic } from '../core/scene/topic-drawing'
import { escapeMarkup } from '../core/text/escape-markup'
import { type Addresses, anchorOf, relative } from './addresses'
import { Html, html } from './html'

/**
 * The drawn map as inline SVG. Every topic is a link: a doorway to its map, any other to its place in the text below.
 */
export function mapPicture(
  records: Records,
  map: string,
  page: string,
  addresses: Addresses,
  context: LayoutContext & { icons: Icons },
): Html {
  const scene = buildScene(records, map, context)
  const pictureAddress = (id: string) => {
    const file = records.get('file', id)
    return file ? relative(page, addresses.file(file)) : null
  }
  const behind = backdrop(records, map, pictureAddress)
  const style = [
    behind.scheme && `color-scheme:${behind.scheme}`,
    behind.tone && `background-color:${behind.tone}`,
    behind.picture && `--backdrop-picture:url(${behind.picture})`,
  ]
  const { x, y, width, height } = scene.bounds
  const enclosures = scene.enclosures.map(({ drawing }) => toMarkup(drawing)).join('')
  const connectors = scene.connectors.map((connector) => toMarkup(connector.drawing)).join('')
  const crosslinks = scene.crosslinks.map((line) => toMarkup(line.drawing)).join('')
  const topics = scene.layout.boxes.map((box) => {
    const door = box.topic.opensMap && addresses.map(box.topic.opensMap)
    const href = door ? relative(page, door) : `#${anchorOf(box.topic)}`
    const drawn = drawTopic(box, { icons: context.icons, pictureAddress }).map(toMarkup).join('')
    const name = door ? `${box.topic.text}, opens a map` : box.topic.text
    return `<a href="${escapeMarkup(href)}" aria-label="${escapeMarkup(name || 'Untitled')}">${drawn}</a>`
  })
  const drawing = new Html(`${enclosures}${connectors}${topics.join('')}${crosslinks}`)
  return html`<figure class="picture ${behind.name}" style="${style.filter(Boolean).join(';')}" aria-label="The map, drawn">
<svg class="scene" viewBox="${px(x)} ${px(y)} ${px(width)} ${px(height)}" style="--natural-width:${Math.ceil(width)}px;--natural-height:${Math.ceil(height)}px" role="group" aria-label="Map with ${scene.layout.boxes.length} topics"><g>${drawing}</g></svg>
</figure>`
}
