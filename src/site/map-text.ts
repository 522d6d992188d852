import type { DocumentLink, DocumentTopic, MapDocument, MapTarget, TopicTarget } from '../core/document/map-document'
import type { FileRecord } from '../core/records/file'
import { TASK_NAMES } from '../core/scene/signs'
import { namedDays } from '../core/text/days'
import { readableSize } from '../core/text/readable-size'
import { type Addresses, anchorOf, relative } from './addresses'
import { Html, html, joined } from './html'
import { type FollowAddress, noteHtml } from './note-html'

/** Lists nest as deep as a page can bear. */
const DEEPEST_LIST = 60

/** Writes what a map says as one continuous text: headings for the upper levels, nested lists below. */
export class MapText {
  constructor(
    private readonly document: MapDocument,
    private readonly page: string,
    private readonly addresses: Addresses,
    private readonly follow: FollowAddress,
  ) {}

  write(): Html {
    const { root } = this.document
    const branches = root.below.map((topic) => this.section(topic, 2))
    return html`<article id="text"><h1 id="${anchorOf(root)}">${root.text}</h1>${this.belongings(root, 1)}${branches}</article>`
  }

  private section(topic: DocumentTopic, level: number): Html {
    const heading = new Html(`h${level}`)
    const deeper = level < 3 ? topic.below.map((child) => this.section(child, level + 1)) : this.list(topic.below)
    return html`<section><${heading} id="${anchorOf(topic)}">${this.title(topic)}</${heading}>${this.belongings(topic, level)}${deeper}</section>`
  }

  /** What is too deep for a page follows in one flat list. */
  private list(topics: readonly DocumentTopic[], depth = 0): Html | null {
    if (topics.length === 0) return null
    const flat = depth >= DEEPEST_LIST
    const items = (flat ? inOrder(topics) : topics).map((topic) => {
      const below = flat ? null : this.list(topic.below, depth + 1)
      return html`<li id="${anchorOf(topic)}"><span class="topic">${this.title(topic)}</span>${this.belongings(topic, 4)}${below}</li>`
    })
    return html`<ul>${items}</ul>`
  }

  /** What is said of enclosures: their titles with what is inside, and their notes. */
  enclosures(): Html | null {
    const told = this.document.enclosures.map(({ title, note, topics }) => {
      const links = topics.map((target) => html`<li><a href="${this.addressOf(target)}">${target.text}</a></li>`)
      return html`<section><h3>${title || 'Enclosed'}</h3><ul>${links}</ul><div class="note">${noteHtml(note, 4, this.follow)}</div></section>`
    })
    return told.length > 0 ? html`<section aria-label="Enclosures"><h2>Enclosures</h2>${told}</section>` : null
  }

  /** The doorways through which one comes here. */
  arriving(): Html | null {
    const ways = this.document.arriving.map(
      (target) =>
        html`<li><a href="${this.addressOf(target)}">${target.text}</a> <span class="where">in ${target.map.title}</span></li>`,
    )
    return ways.length > 0
      ? html`<aside aria-label="Ways to this map"><h2>Ways to this map</h2><ul>${ways}</ul></aside>`
      : null
  }

  private title({ number, text, opens }: DocumentTopic): Html {
    const words = `${number ? `${number} ` : ''}${text}`
    const door = opens && this.addresses.map(opens)
    return door ? html`<a class="doorway" href="${relative(this.page, door)}">${words}</a>` : html`${words}`
  }

  /** Picture, marks, note, links and files of a topic. */
  private belongings(topic: DocumentTopic, level: number): Html {
    const note = topic.note === '' ? null : html`<div class="note">${noteHtml(topic.note, level, this.follow)}</div>`
    const carriers = topic.alsoCarriedBy.map((target) => this.alsoCarriedBy(target))
    const entries = [
      ...carriers,
      ...topic.links.map((link) => this.link(link)),
      ...topic.files.map((file) => this.file(file)),
    ]
    const list = entries.length > 0 ? html`<ul class="belongings">${entries}</ul>` : null
    return html`${this.picture(topic)}${marks(topic)}${note}${list}${this.gathered(topic)}`
  }

  /** What a gathered list found, with where each stands. */
  private gathered({ gathered }: DocumentTopic): Html | null {
    if (!gathered) return null
    if (gathered.length === 0) return html`<p class="gathered-none">Nothing is gathered here now.</p>`
    const items = gathered.map((target) => {
      const isHere = this.addresses.map(target.map.id) === this.page
      const where = isHere ? null : html` <span class="where">in ${target.map.title}</span>`
      return html`<li><a href="${this.addressOf(target)}">${target.text}</a>${where}${marks({ ...target, tags: [] })}</li>`
    })
    return html`<ul class="gathered" aria-label="Gathered here">${items}</ul>`
  }

  private picture({ picture, text }: DocumentTopic): Html | null {
    if (!picture) return null
    const address = relative(this.page, this.addresses.file(picture.file))
    return html`<p><img class="topic-picture" src="${address}" width="${picture.width}" height="${picture.height}" alt="Picture on ${text}" loading="lazy"></p>`
  }

  private link(link: DocumentLink): Html {
    if (link.kind === 'web')
      return html`<li class="web"><a href="${link.address}" rel="noopener">${link.title}</a></li>`
    const { target } = link
    if (target.kind === 'map')
      return html`<li class="link-to"><span class="kind">See the map</span> <a href="${this.addressOf(target)}">${target.title}</a></li>`
    const [name, kind] = link.kind === 'leads to' ? ['link-to', 'See'] : ['link-from', 'Linked from']
    const isHere = this.addresses.map(target.map.id) === this.page
    const where = isHere ? null : html` <span class="where">in ${target.map.title}</span>`
    const label = link.label === '' ? null : html` (${link.label})`
    return html`<li class="${name}"><span class="kind">${kind}</span> <a href="${this.addressOf(target)}">${target.text}</a>${where}${label}</li>`
  }

  private alsoCarriedBy(target: TopicTarget): Html {
    const isHere = this.addresses.map(target.map.id) === this.page
    const where = isHere ? null : html` <span class="where">in ${target.map.title}</span>`
    return html`<li class="link-to"><span class="kind">This note also stands at</span> <a href="${this.addressOf(target)}">${target.text}</a>${where}</li>`
  }

  private file(file: FileRecord): Html {
    return html`<li class="file"><a href="${relative(this.page, this.addresses.file(file))}">${file.name}</a> <span class="where">${readableSize(file.size)}</span></li>`
  }

  private addressOf(target: TopicTarget | MapTarget): string {
    return relative(this.page, this.addresses.target(target))
  }
}

/** Topics and all below them, one after the other. */
function inOrder(topics: readonly DocumentTopic[]): DocumentTopic[] {
  const found: DocumentTopic[] = []
  const waiting = [...topics].reverse()
  for (let topic = waiting.pop(); topic; topic = waiting.pop()) {
    found.push(topic)
    waiting.push(...[...topic.below].reverse())
  }
  return found
}

/** Dates, the state of a task, and tags. */
function marks({ dates, task, tags }: Pick<DocumentTopic, 'dates' | 'task' | 'tags'>): Html | null {
  const days = dates ? namedDays(dates).map(({ day, words }) => html`<time datetime="${day}">${words}</time>`) : []
  const words = [...(task ? [`Task ${TASK_NAMES[task]}`] : []), ...tags.map((name) => `tagged ${name}`)]
  const parts = [...(days.length > 0 ? [joined(days, ' to ')] : []), ...words]
  return parts.length > 0 ? html`<p class="marks">${joined(parts, ', ')}</p>` : null
}
