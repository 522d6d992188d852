import { refuse } from '../changes/problem'
import { inReadingOrder, type OutlineItem } from '../formats/outline'
import type { Page } from '../formats/page-file'
import { type CollectionId, type FileId, type MapId, NoteId, type TopicId } from '../records/ids'
import type { PageRecord } from '../records/page'
import type { Records } from '../records/records'
import { storable } from '../records/text'
import { isFollowable } from '../records/weblink'
import { mergeText } from '../text/merge-text'
import { titleOf } from '../text/title'
import { isInTrash } from '../tree/walk'
import { command, type Done, type NewChange } from './command'
import { type ImportedPage, importPage, LinkResolver, readPageFile } from './import-pages'
import { trashMaps } from './maps'
import { plantOnRoot, textsOf } from './plant'
import { followLines } from './rewrite-outline'
import { addWeblink, removeWeblink } from './weblinks'

/** What is different in a page since it was last brought in; texts of topics, in reading order. */
export interface PageDifferences {
  path: string
  /** The map that came of it; null for a page that is new. */
  map: MapId | null
  title: string
  state: 'new' | 'changed' | 'same'
  added: string[]
  removed: string[]
  moved: string[]
  reworded: { from: string; to: string }[]
  /** Topics whose notes are others. */
  noted: string[]
  /** What was changed both at the source and here: words stay as they are here, notes have both. */
  both: string[]
}

interface BroughtAgain extends Done {
  /** What came of the pages, in their order. */
  maps: MapId[]
  differences: PageDifferences[]
  unread: { page: string; address: string; reason: string }[]
}

/** The page from which a map came, for each path the one that was brought in last, as far as its map is not in the trash. */
export function knownPages(records: Records): Map<string, PageRecord> {
  const known = new Map<string, PageRecord>()
  for (const page of records.all('page')) {
    const map = records.get('map', page.map)
    const other = known.get(page.path)
    if (!page.trashed && map && !map.trashed && (!other || other.id < page.id)) known.set(page.path, page)
  }
  return known
}

/**
 * Brings pages in again: what was done to a page at its source since it was last brought in is done to the map that came of it. What was
 * done here stays, also where both did something; topics stay the same ones, with all that hangs on them. A page that is not known
 * becomes a map. Maps of `gone`, whose pages are not there any more, go into the trash. `differences` tells what was done, page by page.
 * Refused as `importPages`. `records` hold the whole collection. O(text of all known pages), else as `rewriteOutline`.
 */
export const bringAgain = command(
  (
    change,
    args: {
      collection: CollectionId
      pages: readonly Page[]
      files: ReadonlyMap<string, FileId>
      gone: readonly MapId[]
    },
  ): BroughtAgain => {
    const known = knownPages(change.records)
    const coming = args.pages.map((page) => {
      const record = known.get(page.path)
      return record ? new ComingPage(change, record, page) : importPage(change, page)
    })
    const imported = coming.map((page) => (page instanceof ComingPage ? page.asImported() : page))
    const here = new Set(args.pages.map(({ path }) => path))
    const others = [...known.values()].filter(({ path }) => !here.has(path)).map(asItWas)
    const links = new LinkResolver(change, [...imported, ...others], args.files)
    for (const page of coming) if (page instanceof ComingPage) page.takeNotes(links)
    for (const page of coming) links.resolvePage(page instanceof ComingPage ? page.asImported() : page)
    links.quieten()
    links.giveHomeDoorways()
    if (args.gone.length > 0) trashMaps.within(change, { maps: args.gone })
    const changed = coming.filter((page) => !(page instanceof ComingPage) || page.differences.state === 'changed')
    if (changed.length + args.gone.length === 0) refuse('invalid', 'Nothing was changed in these pages.')
    const count = changed.length + args.gone.length
    return {
      label: count === 1 && changed[0] ? `Bring in ${changed[0].path} again` : `Bring in ${count} pages again`,
      select: [],
      maps: imported.map(({ map }) => map),
      differences: coming.map((page) => (page instanceof ComingPage ? page.differences : newPage(page))),
      unread: links.unread,
    }
  },
)

/** What bringing pages in again would do. Refused as that, but not where nothing was changed. */
export function differencesIn(
  records: Records,
  pages: readonly Page[],
  newIds: { newId(): string },
): PageDifferences[] {
  const collection = records.collection()!.id
  const known = knownPages(records)
  const same = pages.filter(({ path, text }) => known.get(path)?.text === storable(text))
  const others = pages.filter((page) => !same.includes(page))
  const told =
    others.length === 0
      ? []
      : bringAgain(records, { collection, pages: others, files: new Map(), gone: [] }, newIds).differences
  return [
    ...told,
    ...same.map(({ path }) => ({
      ...nothing(path, known.get(path)!.map, records.get('map', known.get(path)!.map)?.title ?? ''),
      state: 'same' as const,
    })),
  ]
}

const nothing = (path: string, map: MapId | null, title: string): PageDifferences => ({
  path,
  map,
  title,
  state: 'same',
  added: [],
  removed: [],
  moved: [],
  reworded: [],
  noted: [],
  both: [],
})

const newPage = ({ path, planted }: ImportedPage): PageDifferences => ({
  ...nothing(path, null, planted[0]!.topic.text),
  state: 'new',
  added: planted.slice(1).map(({ topic }) => topic.text),
})

/** A page that is known and does not come this time, for links that lead there. */
function asItWas({ path, text, map, topics }: PageRecord): ImportedPage {
  const items = inReadingOrder(readPageFile({ path, text }).top)
  const planted = items.flatMap(({ item }, i) => {
    const id = topics[i]
    return id ? [{ item, topic: { id, text: textsOf(item).text } as ImportedPage['planted'][number]['topic'] }] : []
  })
  return { path, text, leftOut: [], map, planted, fresh: [] }
}

interface Line {
  topic: TopicId
  level: number
  text: string
  item: OutlineItem
}

const linesOf = (top: OutlineItem): Omit<Line, 'topic'>[] =>
  inReadingOrder(top).map(({ item, level }) => ({ level, text: textsOf(item).text, item }))

/** A known page that comes again. Its topics are settled when it is made, its notes once links can be followed. */
class ComingPage {
  readonly path: string
  readonly differences: PageDifferences
  private readonly before: readonly Line[]
  private readonly after: readonly Line[]
  private readonly leftOut: string[]

  constructor(
    private readonly change: NewChange,
    private readonly record: PageRecord,
    private readonly page: Page,
  ) {
    const { records } = change
    this.path = page.path
    this.differences = nothing(page.path, record.map, records.get('map', record.map)?.title ?? '')
    const { topics } = record
    const { top, leftOut } = readPageFile(page)
    this.leftOut = leftOut
    this.before = linesOf(readPageFile({ path: record.path, text: record.text }).top).flatMap((line, i) =>
      topics[i] ? [{ ...line, topic: topics[i] }] : [],
    )
    const coming = linesOf(top)
    const head = records.root(record.map)?.id
    if (!head || this.before.length === 0) refuse('gone', `What came of ${page.path} is gone.`)
    this.retitle(coming[0]!.text)
    const below = ({ topic, level, text }: Line) => ({ topic, level: level - 1, text })
    const lines = followLines(
      change,
      head,
      this.before.slice(1).map(below),
      coming.slice(1).map(({ level, text }) => ({ level: level - 1, text })),
      (topic, was) => this.isChangedHere(topic, was),
      (topic, was) => this.isWorkedOn(topic, was),
    )
    this.after = coming.map((line, i) => ({ ...line, topic: i === 0 ? this.before[0]!.topic : lines[i - 1]!.topic }))
    this.tellTopics()
    change.update('page', record.id, { text: storable(page.text), topics: this.after.map(({ topic }) => topic) })
    if (record.text !== storable(page.text)) this.differences.state = 'changed'
  }

  /** A root that still says what the page said is named after it, and so is its map. */
  private retitle(to: string): void {
    const { change } = this
    const { text: was, topic } = this.before[0]!
    if (was === to || !change.records.get('topic', topic)) return
    if (this.isChangedHere(topic, was)) return
    change.update('topic', topic, { text: to })
    const map = change.map(this.record.map)
    if (map.title === titleOf(was)) change.update('map', map.id, { title: titleOf(to) || map.title })
  }

  private isChangedHere(topic: TopicId, was: string): boolean {
    const now = this.change.records.get('topic', topic)?.text
    return now !== undefined && now !== was
  }

  /** Whether somebody did something with a topic here, besides hanging others on it. */
  private isWorkedOn(id: TopicId, was: string): boolean {
    const { records } = this.change
    const topic = records.get('topic', id)
    if (!topic || topic.trashed) return false
    const { task, dates, tags, opensMap } = topic
    const has = task !== null || dates !== null || tags.length > 0 || opensMap !== null
    return has || this.isChangedHere(id, was) || records.comments(id).length > 0
  }

  private tellTopics(): void {
    const { differences, before, after } = this
    const { records } = this.change
    const old = new Map(before.map((line) => [line.topic, line]))
    const kept = new Set(after.map(({ topic }) => topic))
    const [parentsBefore, parentsAfter] = [parentsIn(before), parentsIn(after)]
    for (const { topic, text } of after) {
      const was = old.get(topic)
      if (!was) differences.added.push(text)
      else if (was.text !== text) {
        const now = records.get('topic', topic)?.text
        if (now !== text) differences.both.push(now ?? was.text)
        else differences.reworded.push({ from: was.text, to: text })
      }
      if (was && parentsBefore.get(topic) !== parentsAfter.get(topic)) differences.moved.push(text)
    }
    for (const { topic, text } of before) {
      if (kept.has(topic)) continue
      const now = records.get('topic', topic)
      if (now && !isInTrash(records, now)) differences.both.push(now.text)
      else differences.removed.push(text)
    }
  }

  /** Notes and web links as the page has them now, joined with what was written here. */
  takeNotes(links: LinkResolver): void {
    const { change, differences } = this
    const [was, is] = [asItWas(this.record), this.asImported()]
    const old = new Map(this.before.map((line) => [line.topic, line]))
    for (const { topic: id, item, text } of this.after) {
      const before = old.get(id)
      const topic = change.records.get('topic', id)
      if (!topic) continue
      if (!before) {
        plantOnRoot(change, topic, item)
        continue
      }
      const base = links.noteAsBroughtIn(was, textsOf(before.item).note, before.item.noteLinks)
      const coming = links.noteAsBroughtIn(is, textsOf(item).note, item.noteLinks)
      if (base !== coming && this.takeNote(id, base, coming)) differences.noted.push(text)
      this.takeWeblinks(id, before.item, item)
    }
  }

  private takeNote(id: TopicId, base: string, coming: string): boolean {
    const { change } = this
    const topic = change.topic(id)
    const note = change.records.get('note', topic.note)
    const now = note?.text ?? ''
    const { text, overlapping } = mergeText(base, coming, now)
    if (text === now) return false
    if (overlapping) this.differences.both.push(topic.text)
    if (note) change.update('note', note.id, { text })
    else {
      const made = change.create('note', { id: change.newId(NoteId), text, joinedInto: null, trashed: false })
      change.update('topic', id, { note: made.id })
    }
    return true
  }

  private takeWeblinks(topic: TopicId, before: OutlineItem, after: OutlineItem): void {
    const { change } = this
    const addresses = ({ links }: OutlineItem) =>
      new Map(links.filter(({ address }) => isFollowable(address)).map((link) => [link.address, link]))
    const [had, has] = [addresses(before), addresses(after)]
    const there = change.records.weblinks(topic)
    for (const { id, url } of there) if (had.has(url) && !has.has(url)) removeWeblink.within(change, { weblink: id })
    for (const [url, { title }] of has)
      if (!had.has(url) && !there.some((link) => link.url === url)) addWeblink.within(change, { topic, url, title })
  }

  /** As a page of an import, of which what is new is still to be followed. */
  asImported(): ImportedPage {
    const { change, page, record } = this
    const old = new Set(this.before.map(({ topic }) => topic))
    const planted = this.after.flatMap(({ item, topic: id }) => {
      const topic = change.records.get('topic', id)
      return topic ? [{ item, topic }] : []
    })
    const fresh = planted.filter(({ topic }) => !old.has(topic.id))
    return { ...page, leftOut: this.leftOut, map: record.map, planted, fresh }
  }
}

function parentsIn(lines: readonly Line[]): Map<TopicId, TopicId | null> {
  const open: TopicId[] = []
  return new Map(
    lines.map(({ topic, level }) => {
      open.length = level
      open.push(topic)
      return [topic, open[level - 1] ?? null]
    }),
  )
}
