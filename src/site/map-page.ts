import type { Icons } from '../core/badges/badges'
import type { LayoutContext } from '../core/layout/boxes'
import type { MapRecord } from '../core/records/map'
import type { Records } from '../core/records/records'
import { mapNumbers } from '../core/tree/map-numbers'
import { isInTrash } from '../core/tree/walk'
import { type Addresses, relative } from './addresses'
import { html } from './html'
import { mapPicture } from './map-picture'
import { MapText } from './map-text'
import { writePage } from './page'

/** The maps on the way to this one by home doorways, outermost first. */
function trailTo(records: Records, map: MapRecord): MapRecord[] {
  const trail: MapRecord[] = []
  const seen = new Set<string>([map.id])
  let doorway = records.get('topic', map.homeDoorway)
  while (doorway) {
    const above = records.get('map', doorway.place.map)
    if (!above || above.trashed || seen.has(above.id)) break
    seen.add(above.id)
    trail.unshift(above)
    doorway = records.get('topic', above.homeDoorway)
  }
  return trail
}

/** A map's page: the drawn map, and beneath it all of it as text, readable without script. */
export function mapPage(
  records: Records,
  map: MapRecord,
  siteTitle: string,
  addresses: Addresses,
  context: LayoutContext & { icons: Icons },
): string {
  const path = addresses.map(map.id)!
  const root = records.need('topic', records.root(map.id)?.id ?? null)
  const mapText = new MapText(records, path, addresses, mapNumbers(records, map.id))
  const text = mapText.write(root, records.looseBranches(map.id))
  const arriving = records
    .doorwaysTo(map.id)
    .filter((doorway) => !isInTrash(records, doorway) && addresses.map(doorway.place.map))
    .map(
      (doorway) =>
        html`<li><a href="${relative(path, addresses.topic(doorway)!)}">${doorway.text}</a> <span class="where">in ${records.need('map', doorway.place.map).title}</span></li>`,
    )
  const ways =
    arriving.length > 0
      ? html`<aside aria-label="Ways to this map"><h2>Ways to this map</h2><ul>${arriving}</ul></aside>`
      : null
  return writePage({
    path,
    title: map.title,
    siteTitle,
    breadcrumbs: trailTo(records, map).map((above) => ({ title: above.title, address: addresses.map(above.id)! })),
    body: html`<main>${mapPicture(records, map.id, path, addresses, context)}${text}${mapText.enclosures()}${ways}</main>`,
  })
}
