import { enclosureAtEnd, enclosureName, incomingAt, topicsAtEnd } from '../core/network/crosslinks'
import type { Records } from '../core/records/records'
import type { TopicRecord } from '../core/records/topic'
import { TASK_NAMES } from '../core/scene/signs'
import { isInTrash } from '../core/tree/walk'
import { type Addresses, anchorOf, relative } from './addresses'
import { Html, html } from './html'
import { type FollowAddress, noteHtml } from './note-html'

const sizeOf = (bytes: number): string =>
  bytes < 1_000
    ? `${bytes} B`
    : bytes < 1_000_000
      ? `${(bytes / 1_000).toFixed(1)} kB`
      : `${(bytes / 1_000_000).toFixed(1)} MB`

/** Writes what a map says as one continuous text: headings for the upper levels, nested lists below. */
export class MapText {
  constructor(
    private readonly records: Records,
    private readonly page: string,
    private readonly addresses: Addresses,
    private readonly numbers: ReadonlyMap<string, string>,
  ) {}

  write(root: TopicRecord, loose: readonly TopicRecord[]): Html {
    const own = this.belongings(root, 1)
    const branches = [...this.records.children(root.id), ...loose].map((topic) => this.section(topic, 2))
    return html`<article id="text"><h1 id="${anchorOf(root)}">${root.text || 'Untitled'}</h1>${own}${branches}</article>`
  }

  private section(topic: TopicRecord, level: number): Html {
    const children = this.records.children(topic.id)
    const heading = new Html(`h${level}`)
    const deeper = level < 3 ? children.map((child) => this.section(child, level + 1)) : this.list(children)
    return html`<section><${heading} id="${anchorOf(topic)}">${this.title(topic)}</${heading}>${this.belongings(topic, level)}${deeper}</section>`
  }

  /** Lists nest as deep as a page can bear; what is deeper follows in one flat list, each with its way there. */
  private list(topics: readonly TopicRecord[], depth = 0): Html | null {
    if (topics.length === 0) return null
    if (depth >= 60) return this.flatList(topics)
    const items = topics.map(
      (topic) =>
        html`<li id="${anchorOf(topic)}"><span class="topic">${this.title(topic)}</span>${this.belongings(topic, 4)}${this.list(this.records.children(topic.id), depth + 1)}</li>`,
    )
    return html`<ul>${items}</ul>`
  }

  private flatList(topics: readonly TopicRecord[]): Html {
    const items: Html[] = []
    const waiting = [...topics].reverse()
    for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
      items.push(
        html`<li id="${anchorOf(topic)}"><span class="topic">${this.title(topic)}</span>${this.belongings(topic, 4)}</li>`,
      )
      waiting.push(...[...this.records.children(topic.id)].reverse())
    }
    return html`<ul>${items}</ul>`
  }

  /** What is said of enclosures: their titles with what is inside, and their notes. */
  enclosures(): Html | null {
    const told = [...this.records.all('enclosure')]
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .flatMap(({ trashed, title, note, topics }) => {
        const inside = topics.flatMap((id) => {
          const link = this.linkTo(id)
          return link?.address.startsWith(`${this.page}#`) ? link : []
        })
        if (trashed || note.trim() === '' || inside.length === 0) return []
        const links = inside.map(
          ({ text, address }) => html`<li><a href="${relative(this.page, address)}">${text}</a></li>`,
        )
        return html`<section><h3>${title || 'Enclosed'}</h3><ul>${links}</ul><div class="note">${noteHtml(note, 4, this.follow)}</div></section>`
      })
    return told.length > 0 ? html`<section aria-label="Enclosures"><h2>Enclosures</h2>${told}</section>` : null
  }

  private title(topic: TopicRecord): Html {
    const number = this.numbers.get(topic.id)
    const text = `${number ? `${number} ` : ''}${topic.text || 'Untitled'}`
    const door = topic.opensMap && this.addresses.map(topic.opensMap)
    return door ? html`<a class="doorway" href="${relative(this.page, door)}">${text}</a>` : html`${text}`
  }

  /** Note, links and files of a topic. */
  private belongings(topic: TopicRecord, level: number): Html {
    const note = this.records.get('note', topic.note)
    const text =
      note && note.text.trim() !== '' ? html`<div class="note">${noteHtml(note.text, level, this.follow)}</div>` : null
    const picture = this.picture(topic)
    const marks = this.marks(topic)
    const entries = [...this.crosslinks(topic), ...this.weblinks(topic), ...this.files(topic)]
    return html`${picture}${marks}${text}${entries.length > 0 ? html`<ul class="belongings">${entries}</ul>` : null}`
  }

  private picture({ picture, text }: TopicRecord): Html | null {
    const file = picture && this.records.get('file', picture.file)
    if (!file) return null
    const address = relative(this.page, this.addresses.file(file))
    return html`<p><img class="topic-picture" src="${address}" width="${picture.width}" height="${picture.height}" alt="Picture on ${text}" loading="lazy"></p>`
  }

  /** The state of a task, and tags. */
  private marks({ task, tags }: TopicRecord): Html | null {
    const names = tags.flatMap((id) => {
      const tag = this.records.get('tag', id)
      return tag && !tag.trashed ? tag.name : []
    })
    const words = [...(task ? [`Task ${TASK_NAMES[task]}`] : []), ...names.map((name) => `tagged ${name}`)]
    return words.length > 0 ? html`<p class="marks">${words.join(', ')}</p>` : null
  }

  private readonly follow: FollowAddress = (address) => {
    const [, kind, id = ''] = /^folvet:(topic|map|file)\/([0-9a-f-]{36})$/.exec(address) ?? []
    const file = kind === 'file' ? this.records.get('file', id) : undefined
    const target = file
      ? this.addresses.file(file)
      : kind === 'map'
        ? this.addresses.map(id)
        : kind === 'topic'
          ? this.linkTo(id)?.address
          : undefined
    return target && relative(this.page, target)
  }

  private linkTo(id: string): { text: string; address: string; map: string } | undefined {
    const topic = this.records.get('topic', id)
    const address = topic && !isInTrash(this.records, topic) ? this.addresses.topic(topic) : undefined
    return topic && address
      ? { text: topic.text || 'Untitled', address, map: this.records.need('map', topic.place.map).title }
      : undefined
  }

  private crosslinks(topic: TopicRecord): Html[] {
    const entry = (kind: 'to' | 'from', target: { text: string; address: string; map: string }, label: string) => {
      const where = target.address.startsWith(`${this.page}#`)
        ? null
        : html` <span class="where">in ${target.map}</span>`
      return html`<li class="link-${kind}"><span class="kind">${kind === 'to' ? 'See' : 'Linked from'}</span> <a href="${relative(this.page, target.address)}">${target.text}</a>${where}${label === '' ? null : html` (${label})`}</li>`
    }
    const out = this.records.crosslinksFrom(topic.id).flatMap((link) => {
      const map = link.to.kind === 'map' ? this.addresses.map(link.to.id) : undefined
      if (link.to.kind === 'map')
        return map
          ? html`<li class="link-to"><span class="kind">See the map</span> <a href="${relative(this.page, map)}">${this.records.need('map', link.to.id).title}</a></li>`
          : []
      const target = topicsAtEnd(this.records, link).flatMap(({ id }) => this.linkTo(id) ?? [])[0]
      const enclosure = enclosureAtEnd(this.records, link)
      if (target && enclosure) target.text = enclosureName(this.records, enclosure)
      return target ? entry('to', target, link.label) : []
    })
    const incoming = incomingAt(this.records, topic)
    return [
      ...out,
      ...incoming.flatMap((link) => {
        const source = this.linkTo(link.from)
        const enclosure = enclosureAtEnd(this.records, link)
        const label = enclosure ? `to ${enclosureName(this.records, enclosure)}` : link.label
        return source ? [entry('from', source, label)] : []
      }),
    ]
  }

  private weblinks(topic: TopicRecord): Html[] {
    return this.records
      .weblinks(topic.id)
      .map((link) => html`<li class="web"><a href="${link.url}" rel="noopener">${link.title || link.url}</a></li>`)
  }

  private files(topic: TopicRecord): Html[] {
    return this.records.attachments(topic.id).flatMap((attachment) => {
      const file = this.records.get('file', attachment.file)
      return file
        ? [
            html`<li class="file"><a href="${relative(this.page, this.addresses.file(file))}">${file.name}</a> <span class="where">${sizeOf(file.size)}</span></li>`,
          ]
        : []
    })
  }
}
