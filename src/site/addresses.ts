import type { MapTarget, TopicTarget } from '../core/document/map-document'
import { headingAddress } from '../core/formats/address'
import type { FileRecord } from '../core/records/file'
import { shortFileName } from '../core/records/file-name'
import type { MapRecord } from '../core/records/map'
import type { Records } from '../core/records/records'
import type { TopicRecord } from '../core/records/topic'

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** Where everything lies in the site, as paths from its top. The same records give the same addresses. */
export class Addresses {
  private readonly maps = new Map<string, string>()

  constructor(
    /** The maps that are published, oldest first. */
    readonly published: readonly MapRecord[],
  ) {
    const taken = new Set<string>()
    for (const map of published) {
      const name = shortFileName(headingAddress(map.title), MOST_NAME_BYTES).replace(/-$/, '') || 'map'
      let address = name
      for (let n = 2; taken.has(address); n++) address = `${name}-${n}`
      taken.add(address)
      this.maps.set(map.id, `maps/${address}.html`)
    }
  }

  /** Undefined for a map that is not in the site. */
  map(id: string): string | undefined {
    return this.maps.get(id)
  }

  /** The place of a topic in the text of its map's page. */
  topic(topic: TopicRecord): string | undefined {
    const map = this.map(topic.place.map)
    return map && `${map}#${anchorOf(topic)}`
  }

  file(file: FileRecord): string {
    return `files/${file.sha256.slice(0, 12)}/${encodeURIComponent(safeFileName(file.name))}`
  }

  /** What is told in the site has an address. */
  target(target: TopicTarget | MapTarget): string {
    const map = this.map(target.kind === 'map' ? target.id : target.map.id)
    if (map === undefined) throw new RangeError('What is not in the site has no address.')
    return target.kind === 'map' ? map : `${map}#${anchorOf(target)}`
  }
}

/** Most bytes of a file's name in the site's folder and in a zip. */
const MOST_NAME_BYTES = 160

/** File names that every system can unpack; the ending is kept. */
function safeFileName(name: string): string {
  const safe = name
    .replace(/[^\p{L}\p{N}\p{M}._-]+/gu, '-')
    .replace(/^-*(?=\.)/, 'file')
    .replace(/^-+/, '')
  return shortFileName(safe || 'file', MOST_NAME_BYTES)
}

/** The last twelve digits of a topic's id are random enough for one page. */
export const anchorOf = ({ id }: { id: string }): string => `t-${id.slice(-12)}`

/** The maps of a site: all that are not in the trash, or of these `only` some. */
export const publishedMaps = (records: Records, only: ReadonlySet<string> | null = null): MapRecord[] =>
  [...records.all('map')].filter(({ id, trashed }) => !trashed && (only?.has(id) ?? true)).sort(byId)

/** The address of `to` as seen from the page `from`; both are paths from the top of the site. */
export function relative(from: string, to: string): string {
  const up = from.split('/').length - 1
  const [path, fragment] = to.split('#', 2)
  if (path === from && fragment !== undefined) return `#${fragment}`
  return '../'.repeat(up) + to
}
