import type { Icons } from '../core/badges/badges'
import type { MapTeller } from '../core/document/map-document'
import type { LayoutContext } from '../core/layout/boxes'
import type { MapRecord } from '../core/records/map'
import type { Records } from '../core/records/records'
import { type Addresses, relative } from './addresses'
import { html } from './html'
import { mapPicture } from './map-picture'
import { MapText } from './map-text'
import type { FollowAddress } from './note-html'
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
  teller: MapTeller,
  context: LayoutContext & { icons: Icons },
): string {
  const path = addresses.map(map.id)!
  const follow: FollowAddress = (address, asPicture) => {
    const target = teller.noteTarget(address)
    if (!target || (asPicture && (target.kind !== 'file' || !target.file.picture))) return undefined
    return target.kind === 'file'
      ? relative(path, addresses.file(target.file)) + (target.page === null ? '' : `#page=${target.page}`)
      : relative(path, addresses.target(target)) + (target.kind === 'topic' ? toWords(target.passage) : '')
  }
  const text = new MapText(teller.document(map), path, addresses, follow)
  return writePage({
    path,
    title: map.title,
    siteTitle,
    breadcrumbs: trailTo(records, map).flatMap(({ id, title }) => {
      const address = addresses.map(id)
      return address ? { title, address } : []
    }),
    body: html`<main>${mapPicture(records, map.id, path, addresses, { ...context, gathered: teller.shownInLists })}${text.write()}${text.enclosures()}${text.arriving()}</main>`,
  })
}

/** What leads on to words below an anchor, as browsers read it (Text Fragments, WICG); those that do not, stay at the anchor. */
const toWords = (passage: string | null): string =>
  passage === null ? '' : `:~:text=${encodeURIComponent(passage).replaceAll('-', '%2D')}`
