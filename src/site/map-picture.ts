import type { Icons } from '../core/badges/badges'
import type { LayoutContext } from '../core/layout/boxes'
import { type Gathered, gatheredChildren } from '../core/layout/gathered'
import { ownChildren } from '../core/layout/occurrence'
import type { Records } from '../core/records/records'
import { backdrop } from '../core/scene/backdrop'
import { px } from '../core/scene/drawing'
import { sceneMarkup } from '../core/scene/markup'
import { buildScene } from '../core/scene/scene'
import { escapeMarkup } from '../core/text/escape-markup'
import { type Addresses, relative } from './addresses'
import { Html, html } from './html'

/**
 * The drawn map as inline SVG. Every topic is a link: a doorway to its map, any other to its place in the text below.
 */
export function mapPicture(
  records: Records,
  map: string,
  page: string,
  addresses: Addresses,
  context: LayoutContext & { icons: Icons; gathered: Gathered },
): Html {
  const shown = gatheredChildren(records, context.gathered, ownChildren(records))
  const scene = buildScene(records, map, context, shown)
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
  const drawn = sceneMarkup(scene, { icons: context.icons, pictureAddress }, (box, markup) => {
    const door = box.topic.opensMap && addresses.map(box.topic.opensMap)
    const href = relative(page, door ?? addresses.topic(box.topic) ?? page)
    const name = door ? `${box.topic.text}, opens a map` : box.topic.text
    return `<a href="${escapeMarkup(href)}" aria-label="${escapeMarkup(name || 'Untitled')}">${markup}</a>`
  })
  return html`<figure class="picture ${behind.name}" style="${style.filter(Boolean).join(';')}" aria-label="The map, drawn">
<svg class="scene" viewBox="${px(x)} ${px(y)} ${px(width)} ${px(height)}" style="--natural-width:${Math.ceil(width)}px;--natural-height:${Math.ceil(height)}px" role="group" aria-label="Map with ${scene.layout.boxes.length} topics"><g>${new Html(drawn)}</g></svg>
</figure>`
}
