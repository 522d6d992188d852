import { generateNKeysBetween } from 'fractional-indexing'
import { refuse } from '../changes/problem'
import { headingAddress, resolveAddress } from '../formats/address'
import { countItems, type OutlineItem, outlineItem } from '../formats/outline'
import { readText } from '../formats/read-text'
import { AttachmentId, type CollectionId, CrosslinkId, type FileId, type MapId, NoteId } from '../records/ids'
import type { Records } from '../records/records'
import type { TopicRecord } from '../records/topic'
import { isFollowable } from '../records/weblink'
import { titleOf } from '../text/title'
import { Draft, type Making, named, type Outcome } from './command'
import { createMap } from './maps'
import { MAX_PLANTED } from './paste-outline'
import { type Planted, plant, plantWeblinks } from './plant'

/** A text file of an import, known by its path inside the imported folder. */
export interface Page {
  path: string
  text: string
}

interface ImportedPage extends Page {
  map: MapId
  planted: Planted[]
}

/** What an import made, and what of its source could not be followed. */
export interface ImportOutcome extends Outcome {
  maps: MapId[]
  unread: { page: string; address: string; reason: string }[]
}

/**
 * Makes a map of every page. Links between the pages become doorways where a topic is nothing but a link to a page,
 * else cross-links; links to files of the same import become attachments; the rest web links. The first page that no
 * other opens is the home map where the collection has none yet.
 *
 * `files` holds the imported files by path. What cannot be resolved is listed in `unread`, never silently dropped.
 */
export function importPages(
  records: Records,
  args: { collection: CollectionId; pages: Page[]; files: ReadonlyMap<string, FileId> },
  making: Making,
): ImportOutcome {
  const draft = new Draft(records, making)
  const pages = args.pages.map((page) => importPage(draft, page))
  const links = new LinkResolver(draft, pages, args.files)
  for (const page of pages) links.resolvePage(page)
  links.giveHomeDoorways()
  const home = pages.find((page) => !links.homeDoorways.has(page.map)) ?? pages[0]
  if (!home) refuse('invalid', 'There is nothing to import.')
  if (records.get('collection', args.collection)?.homeMap === null)
    draft.update('collection', args.collection, { homeMap: home.map })
  const label = pages.length === 1 ? `Import ${named(home.planted[0]!.topic.text)}` : `Import ${pages.length} maps`
  return {
    ...draft.outcome(label, [home.planted[0]!.topic.id]),
    maps: pages.map((page) => page.map),
    unread: links.unread,
  }
}

const fileTitle = (path: string) =>
  path
    .split('/')
    .at(-1)!
    .replace(/\.[^.]*$/, '')

function importPage(draft: Draft, page: Page): ImportedPage {
  const { items } = readText(page.text)
  const count = countItems(items)
  if (count === 0) refuse('invalid', `${page.path} holds no text.`)
  if (count > MAX_PLANTED)
    refuse('invalid', `${page.path} would become ${count} topics; a map is made of at most ${MAX_PLANTED}.`)
  const top: OutlineItem = items.length === 1 ? items[0]! : { ...outlineItem(fileTitle(page.path)), children: items }
  const title = titleOf(top.text) || fileTitle(page.path)
  const { map, root } = createMap(draft, title, title, null)
  const rootTopic = { id: root, place: { map, parent: null } } as TopicRecord
  if (top.note.trim() !== '') {
    const note = draft.create('note', { id: draft.newId(NoteId), text: top.note.toWellFormed(), trashed: false })
    draft.update('topic', root, { note: note.id })
  }
  plantWeblinks(draft, rootTopic, top)
  const planted = plant(draft, rootTopic, top.children, true)
  return { ...page, map, planted: [{ item: top, topic: { ...rootTopic, text: title } }, ...planted] }
}

class LinkResolver {
  readonly unread: ImportOutcome['unread'] = []
  readonly homeDoorways = new Map<MapId, TopicRecord>()
  private readonly byPath: Map<string, ImportedPage>
  private readonly byAddress = new Map<string, TopicRecord>()
  private readonly linked = new Set<string>()

  constructor(
    private readonly draft: Draft,
    pages: ImportedPage[],
    private readonly files: ReadonlyMap<string, FileId>,
  ) {
    this.byPath = new Map(pages.map((page) => [page.path, page]))
    for (const page of pages)
      for (const { topic } of page.planted) {
        const address = `${page.path}#${headingAddress(topic.text)}`
        if (!this.byAddress.has(address)) this.byAddress.set(address, topic)
      }
  }

  resolvePage(page: ImportedPage): void {
    for (const { item, topic } of page.planted) {
      const files: FileId[] = []
      item.links.forEach((link, i) => {
        const doorway = i === 0 && link.title === item.text
        const file = this.resolve(page, topic, link.address, doorway)
        if (file) files.push(file)
      })
      const ranks = generateNKeysBetween(null, null, files.length)
      files.forEach((file, i) => {
        const id = this.draft.newId(AttachmentId)
        this.draft.create('attachment', { id, topic: topic.id, file, rank: ranks[i]!, trashed: false })
      })
    }
  }

  /** Follows one link; returns the file where it leads to one. */
  private resolve(page: ImportedPage, topic: TopicRecord, address: string, mayOpen: boolean): FileId | null {
    if (isFollowable(address)) return null
    const target = resolveAddress(page.path, address)
    const file = target && this.files.get(target.path)
    const other = target && this.byPath.get(target.path)
    if (file) return file
    if (!other) this.unread.push({ page: page.path, address, reason: 'There is no such page or file in the import.' })
    else if (target.fragment === '' && mayOpen && other !== page && topic.place.parent !== null)
      this.open(topic, other.map)
    else if (target.fragment === '') this.link(topic, null, other.map)
    else {
      const end = this.byAddress.get(`${target.path}#${target.fragment}`)
      if (end) this.link(topic, end, null)
      else this.unread.push({ page: page.path, address, reason: 'There is no such heading or item on the page.' })
    }
    return null
  }

  private open(topic: TopicRecord, map: MapId): void {
    this.draft.update('topic', topic.id, { opensMap: map })
    if (!this.homeDoorways.has(map)) this.homeDoorways.set(map, topic)
  }

  private link(from: TopicRecord, to: TopicRecord | null, map: MapId | null): void {
    const key = `${from.id} ${to?.id ?? map}`
    if (from.id === to?.id || this.linked.has(key) || (to && this.linked.has(`${to.id} ${from.id}`))) return
    this.linked.add(key)
    const drawn = to && to.place.map === from.place.map ? 'line' : 'quiet'
    const id = this.draft.newId(CrosslinkId)
    this.draft.create('crosslink', {
      id,
      from: from.id,
      toTopic: to?.id ?? null,
      toMap: map,
      toEnclosure: null,
      label: '',
      drawn,
      trashed: false,
    })
  }

  /**
   * A doorway becomes the home doorway of its map unless that would close a loop: of pages that open one another, the
   * first one is the one that stands above.
   */
  giveHomeDoorways(): void {
    for (const { map } of this.byPath.values()) {
      const doorway = this.homeDoorways.get(map)
      const seen = new Set<MapId>([map])
      for (let above: TopicRecord | undefined = doorway; above; above = this.homeDoorways.get(above.place.map)) {
        if (seen.has(above.place.map)) {
          this.homeDoorways.delete(map)
          break
        }
        seen.add(above.place.map)
      }
    }
    for (const [map, doorway] of this.homeDoorways) this.draft.update('map', map, { homeDoorway: doorway.id })
  }
}
