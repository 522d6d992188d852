import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { headingAddress, resolveAmong } from '../formats/address'
import { inReadingOrder, type OutlineItem } from '../formats/outline'
import { fileTitle, type Page, pageTree } from '../formats/page-file'
import { newAttachment } from '../records/attachment'
import type { LinkEnd } from '../records/crosslink'
import { AttachmentId, type CollectionId, CrosslinkId, type FileId, type MapId, PageId } from '../records/ids'
import { MAX_PAGE_PATH } from '../records/page'
import { isRoot } from '../records/place'
import { cutText, storable } from '../records/text'
import type { TopicRecord } from '../records/topic'
import { isFollowable } from '../records/weblink'
import { titleOf } from '../text/title'
import { command, type Done, type NewChange, named } from './command'
import { PLAIN_CROSSLINK } from './crosslinks'
import { createMap } from './maps'
import { MAX_PLANTED, type Planted, plant, plantOnRoot } from './plant'

export interface ImportedPage extends Page {
  /** Elements of HTML that were not read. */
  leftOut: string[]
  map: MapId
  /** Every item of the page with its topic. */
  planted: Planted[]
  /** Those of them whose links are still to be followed. */
  fresh: readonly Planted[]
}

/** What an import made, and what of its source could not be followed. */
interface Imported extends Done {
  maps: MapId[]
  unread: { page: string; address: string; reason: string }[]
}

/**
 * Makes a map of every page. Links between the pages become doorways where a topic is nothing but a link to a page,
 * else cross-links; links to files of the same import become attachments; the rest web links. Links inside notes lead
 * to what they led to on the page. The first page that no other opens is the home map where the collection has none
 * yet. `files` holds the imported files by path. What cannot be resolved is listed in `unread`, never silently
 * dropped. Texts that are no names stand in notes (`readDocument`). Refused where there is no page, a page holds no text, or
 * it would become more topics than one map is made of. O(text of the pages).
 */
export const importPages = command(
  (
    change,
    args: { collection: CollectionId; pages: readonly Page[]; files: ReadonlyMap<string, FileId> },
  ): Imported => {
    const pages = args.pages.map((page) => importPage(change, page))
    const links = new LinkResolver(change, pages, args.files)
    for (const page of pages) links.resolvePage(page)
    links.quieten()
    links.giveHomeDoorways()
    const home = pages.find((page) => !links.homeDoorways.has(page.map)) ?? pages[0]
    if (!home) refuse('invalid', 'There is nothing to import.')
    if (change.records.get('collection', args.collection)?.homeMap === null)
      change.update('collection', args.collection, { homeMap: home.map })
    const root = home.planted[0]!.topic
    return {
      label: pages.length === 1 ? `Import ${named(root.text)}` : `Import ${pages.length} maps`,
      select: [root.id],
      maps: pages.map((page) => page.map),
      unread: links.unread,
    }
  },
)

/** Reads a page as one tree. Refused where it holds no text, or more topics than one map is made of. */
export function readPageFile(page: Page): ReturnType<typeof pageTree> {
  const read = pageTree(page)
  const { count } = read
  if (count === 0) refuse('invalid', `${page.path} holds no text.`)
  if (count > MAX_PLANTED)
    refuse('invalid', `${page.path} would become ${count} topics; a map is made of at most ${MAX_PLANTED}.`)
  return read
}

const titleAtTop = (page: Page, top: OutlineItem): string => titleOf(top.text) || fileTitle(page.path)

/** What the map of a page is called. O(text). */
export const titleOfPage = (page: Page): string => titleAtTop(page, pageTree(page).top)

/** Makes a map of a page, without following its links. */
export function importPage(change: NewChange, page: Page): ImportedPage {
  const { top, leftOut } = readPageFile(page)
  const title = titleAtTop(page, top)
  const { map, root } = createMap(change, title, title)
  const topic = plantOnRoot(change, root, top)
  const planted = [{ item: top, topic }, ...plant(change, topic, top.children)]
  const topics = new Map(planted.map(({ item, topic }) => [item, topic.id]))
  for (const item of foldedToRead(top)) change.update('topic', topics.get(item)!, { folded: true })
  change.create('page', {
    id: change.newId(PageId),
    map,
    path: cutText(storable(page.path), MAX_PAGE_PATH),
    text: storable(page.text),
    topics: inReadingOrder(top).map(({ item }) => topics.get(item)!),
    trashed: false,
  })
  return { ...page, leftOut, map, planted, fresh: planted }
}

/** A map opens with no more topics than this where it is larger: about what can be read in one view. */
const MOST_READ = 80

/** What is folded of a page so that its map can be read when it is opened: the deepest rows that do not fit, none where all do. Linear. */
function foldedToRead(top: OutlineItem): OutlineItem[] {
  let shown = 1
  let row: OutlineItem[] = [top]
  while (row.length > 0) {
    const next = row.flatMap(({ children }) => children)
    // The branches of the first level are always seen: they are what the map is about.
    if (row[0] !== top && shown + next.length > MOST_READ) return row.filter(({ children }) => children.length > 0)
    shown += next.length
    row = next
  }
  return []
}

/** Of some paths of files those to which pages lead. O(text of the pages). */
export function filesLedTo(pages: readonly Page[], paths: Iterable<string>): Set<string> {
  const there = new Set(paths)
  const found = new Set<string>()
  if (there.size === 0) return found
  for (const page of pages)
    for (const { item } of inReadingOrder(pageTree(page).top))
      for (const address of [...item.links.map((link) => link.address), ...item.noteLinks]) {
        const target = resolveAmong(page.path, address, (path) => there.has(path))
        if (target) found.add(target.path)
      }
  return found
}

/** What stands before the address of a link, or of its definition, in CommonMark; and what can stand after it. */
const BEFORE_ADDRESS = /\]\(<?|\]: <?/g
const AFTER_ADDRESS = /[)>\s]|$/g
/** Signs after which an address may end that are tried: some stand in addresses too. */
const MOST_ENDS = 8

/** A text in which links lead to other addresses. Only whole addresses count. Linear in the text. */
function withAddresses(text: string, others: ReadonlyMap<string, string>): string {
  let made = ''
  let done = 0
  for (const { index, 0: before } of text.matchAll(BEFORE_ADDRESS)) {
    const start = index + before.length
    AFTER_ADDRESS.lastIndex = start
    for (let tried = 0; tried < MOST_ENDS && start >= done; tried++) {
      const end = AFTER_ADDRESS.exec(text)!.index
      const other = others.get(text.slice(start, end))
      if (other !== undefined) {
        made += text.slice(done, start) + other
        done = end
      }
      if (end === text.length) break
      AFTER_ADDRESS.lastIndex = end + 1
    }
  }
  return made + text.slice(done)
}

/** Up to so many cross-links of a page to itself are drawn. */
const MOST_DRAWN = 12

/** A note in which addresses lead to the ends that `follow` tells, where it does. */
function leadingElsewhere(
  note: string,
  addresses: readonly string[],
  follow: (address: string) => LinkEnd | { file: FileId } | null,
): string {
  const others = new Map<string, string>()
  for (const address of new Set(addresses)) {
    const end = isFollowable(address) ? null : follow(address)
    if (end) others.set(address, 'file' in end ? `folvet:file/${end.file}` : `folvet:${end.kind}/${end.id}`)
  }
  return others.size > 0 ? withAddresses(note, others) : note
}

export class LinkResolver {
  private readonly notFollowed = new Map<string, Imported['unread'][number]>()
  readonly homeDoorways = new Map<MapId, TopicRecord>()
  private readonly byPath: Map<string, ImportedPage>
  private readonly byAddress = new Map<string, TopicRecord>()
  /** By the names that places have on the page itself. */
  private readonly byAnchor = new Map<string, TopicRecord>()
  private readonly linked = new Set<string>()
  /** Cross-links that are drawn, by the map on which they are. */
  private readonly drawn = new Map<MapId, CrosslinkId[]>()

  constructor(
    private readonly change: NewChange,
    pages: ImportedPage[],
    private readonly files: ReadonlyMap<string, FileId>,
  ) {
    this.byPath = new Map(pages.map((page) => [page.path, page]))
    for (const { path, planted } of pages) {
      for (const { item, topic } of planted)
        for (const name of item.anchors ?? []) this.claim(this.byAnchor, `${path}#${name}`, topic)
      // What is nothing but a link, as in a table of contents, has its words as an address only where nothing else has.
      const isPointer = ({ item }: Planted) => item.links[0]?.title === item.text
      for (const { topic } of [...planted.filter((one) => !isPointer(one)), ...planted.filter(isPointer)])
        this.claim(this.byAddress, `${path}#${headingAddress(topic.text)}`, topic)
    }
  }

  private claim(addresses: Map<string, TopicRecord>, address: string, topic: TopicRecord): void {
    if (!addresses.has(address)) addresses.set(address, topic)
  }

  /** What could not be followed, each address once a page. */
  get unread(): Imported['unread'] {
    return [...this.notFollowed.values()]
  }

  resolvePage(page: ImportedPage): void {
    for (const name of page.leftOut) this.listUnread(page, `<${name}>`, 'This says nothing in a map and was left out.')
    for (const { item, topic } of page.fresh) {
      const files = new Set<FileId>()
      const follow = (address: string, mayOpen: boolean): LinkEnd | { file: FileId } | null => {
        const end = this.resolve(page, address)
        if (end && 'file' in end) files.add(end.file)
        else if (end) this.link(page, topic, end, mayOpen)
        return end
      }
      item.links.forEach((link, i) => {
        follow(link.address, i === 0 && link.title === item.text)
      })
      this.followNote(topic, item.noteLinks, (address) => follow(address, false))
      const ranks = generateNKeysBetween(null, null, files.size)
      for (const file of files) {
        const id = this.change.newId(AttachmentId)
        this.change.create('attachment', newAttachment({ id, topic: topic.id, file, rank: ranks.shift()! }))
      }
    }
  }

  /** Links in a note lead to what they led to on the page: the address is written anew, the words stay. */
  private followNote(
    { note }: TopicRecord,
    addresses: readonly string[],
    follow: (address: string) => LinkEnd | { file: FileId } | null,
  ): void {
    const known = this.change.records.get('note', note)
    if (!known || addresses.length === 0) return
    const text = leadingElsewhere(known.text, addresses, follow)
    if (text !== known.text) this.change.update('note', known.id, { text })
  }

  /** A note of a page with its links as they lead once it is brought in. */
  noteAsBroughtIn(page: ImportedPage, note: string, addresses: readonly string[]): string {
    return leadingElsewhere(note, addresses, (address) => this.resolve(page, address))
  }

  /** What an address leads to inside the import; null for one that leads elsewhere, or nowhere, which is listed. */
  private resolve(page: ImportedPage, address: string): LinkEnd | { file: FileId } | null {
    if (isFollowable(address)) return null
    const target = resolveAmong(page.path, address, (path) => this.files.has(path) || this.byPath.has(path))
    const file = target && this.files.get(target.path)
    if (file) return { file }
    const other = target && this.byPath.get(target.path)
    if (!other) return this.cannotFollow(page, address, 'There is no such page or file in the import.')
    if (target.fragment === '') return { kind: 'map', id: other.map }
    const end =
      this.byAnchor.get(`${target.path}#${target.fragment}`) ??
      this.byAddress.get(`${target.path}#${headingAddress(target.fragment)}`)
    return end
      ? { kind: 'topic', id: end.id }
      : this.cannotFollow(page, address, 'There is no such heading or item on the page.')
  }

  private cannotFollow(page: ImportedPage, address: string, reason: string): null {
    this.listUnread(page, address, reason)
    return null
  }

  private listUnread(page: ImportedPage, address: string, reason: string): void {
    this.notFollowed.set(`${page.path} ${address}`, { page: page.path, address, reason })
  }

  private open(topic: TopicRecord, map: MapId): void {
    this.change.update('topic', topic.id, { opensMap: map })
    if (!this.homeDoorways.has(map) && this.change.map(map).homeDoorway === null) this.homeDoorways.set(map, topic)
  }

  /** Makes the topic a doorway where it is nothing but a link to another page, else ties both ends together once. */
  private link(page: ImportedPage, from: TopicRecord, to: LinkEnd, mayOpen: boolean): void {
    if (to.kind === 'map' && to.id === page.map) return
    if (to.kind === 'map' && mayOpen && !isRoot(from)) {
      this.open(from, to.id)
      return
    }
    if (to.id === from.id || this.linked.has(`${from.id} ${to.id}`) || this.linked.has(`${to.id} ${from.id}`)) return
    this.linked.add(`${from.id} ${to.id}`)
    const far = to.kind === 'topic' ? this.change.topic(to.id) : null
    const drawn = far?.place.map === from.place.map ? 'line' : 'quiet'
    const id = this.change.newId(CrosslinkId)
    this.change.create('crosslink', {
      id,
      from: from.id,
      to,
      drawn,
      ...PLAIN_CROSSLINK,
    })
    if (drawn === 'line') {
      const known = this.drawn.get(page.map)
      if (known) known.push(id)
      else this.drawn.set(page.map, [id])
    }
  }

  /** A page that leads from place to place all over is not read as a map under all these lines: its links are quiet. */
  quieten(): void {
    for (const links of this.drawn.values())
      if (links.length > MOST_DRAWN) for (const id of links) this.change.update('crosslink', id, { drawn: 'quiet' })
  }

  /**
   * A doorway becomes the home doorway of its map unless that would close a loop: of pages that open one another, the
   * first one is the one that stands above.
   */
  giveHomeDoorways(): void {
    for (const { map } of this.byPath.values()) {
      const doorway = this.homeDoorways.get(map)
      const seen = new Set<MapId>([map])
      for (let above = doorway; above; above = this.wayUp(above.place.map)) {
        if (seen.has(above.place.map)) {
          this.homeDoorways.delete(map)
          break
        }
        seen.add(above.place.map)
      }
    }
    for (const [map, doorway] of this.homeDoorways) this.change.update('map', map, { homeDoorway: doorway.id })
  }

  private wayUp(map: MapId): TopicRecord | undefined {
    const { records } = this.change
    return this.homeDoorways.get(map) ?? records.get('topic', records.get('map', map)?.homeDoorway ?? null)
  }
}
