import type { Element, Root } from 'hast'
import { fromHtml } from 'hast-util-from-html'
import { toMdast } from 'hast-util-to-mdast'
import { type Block, type Inline, isTooMuch, readCommonMark } from '../text/commonmark'
import { writeCommonMark } from '../text/write-commonmark'
import { anchorMark, canBeMarked } from './anchors'
import { isBoundedHtml } from './bounded-html'

/** A page whose HTML was read, and the names of elements that say nothing in CommonMark and were left out. */
interface ReadPage {
  text: string
  leftOut: string[]
  /** Whether names of places are marked in the text. */
  isMarked: boolean
}

/** Elements that are left out with all that is in them. */
const LEFT_OUT = new Set([
  'audio',
  'button',
  'canvas',
  'embed',
  'form',
  'iframe',
  'input',
  'math',
  'object',
  'script',
  'select',
  'style',
  'svg',
  'template',
  'textarea',
  'video',
])

/**
 * Reads the HTML in a CommonMark page as CommonMark: headings, paragraphs, lists, tables, quotes, code, `details`, links,
 * pictures and line breaks become what they are in CommonMark; of other elements the words stay, and those that are
 * nothing but a way to run or show something are left out and named. Names of places are marked in the text (`anchors`). All
 * else stands as it stood. Linear in the text.
 */
export function withHtmlRead(source: string): ReadPage {
  if (!source.includes('<') || isTooMuch(source)) return { text: source, leftOut: [], isMarked: false }
  const isMarked = canBeMarked(source)
  const reader = new HtmlInPage(source.replace(/\r\n?/g, '\n').split('\n'), isMarked)
  reader.blocks(readCommonMark(source), true)
  return { text: reader.text, leftOut: [...reader.leftOut].sort(), isMarked }
}

/** Reads a whole HTML page as CommonMark, as `withHtmlRead` does; its title where it has no heading. Linear in the text. */
export function readHtmlPage(html: string): ReadPage {
  const isMarked = canBeMarked(html)
  const reader = new HtmlInPage([], isMarked)
  const text = reader.commonMarkOf(withoutHead(html))
  const [, title = ''] = /<title[^>]*>([^<]{1,500})<\/title/i.exec(html.slice(0, MOST_HEAD)) ?? []
  const [words] = fromHtml(title, { fragment: true }).children
  const isNamed = /^#{1,6} /m.test(text) || words?.type !== 'text' || words.value.trim() === ''
  const heading = isNamed ? '' : `# ${words.value.trim().split(/\s+/).join(' ')}\n\n`
  return { text: heading + text, leftOut: [...reader.leftOut].sort(), isMarked }
}
/** In so many letters the title of a page is looked for. */
const MOST_HEAD = 5_000

/** A page without its head, where it has one. Linear: the end is looked for once. */
function withoutHead(html: string): string {
  const start = html.search(/<head\b/i)
  const end = /<\/head\s*>/gi
  end.lastIndex = Math.max(0, start)
  const found = start < 0 ? null : end.exec(html)
  return found ? html.slice(0, start) + html.slice(found.index + found[0].length) : html
}

class HtmlInPage {
  readonly leftOut = new Set<string>()
  private readonly made: string[] = []
  private done = 0

  constructor(
    private readonly lines: readonly string[],
    private readonly marksAnchors: boolean,
  ) {}

  get text(): string {
    return [...this.made, ...this.lines.slice(this.done)].join('\n')
  }

  blocks(blocks: readonly Block[], isTop: boolean): void {
    for (const block of blocks) {
      if (block.type === 'quote') this.blocks(block.blocks, false)
      else if (block.type === 'list') for (const item of block.items) this.blocks(item.blocks, false)
      else if (block.type === 'html' && isTop) this.replace(block, ['', this.commonMarkOf(block.text), ''].join('\n'))
      else if ((block.type === 'paragraph' || block.type === 'heading') && hasHtml(block.content)) {
        const lines = this.lines.slice(block.from, block.to).join('\n')
        const end = isTop && block.type === 'paragraph' ? '\\\n' : ' '
        this.replace(block, new InlineHtml(lines, end, this.leftOut, this.marksAnchors).read(block.content))
      }
    }
  }

  private replace({ from, to }: Block, text: string): void {
    if (from < this.done) return
    this.made.push(...this.lines.slice(this.done, from), text)
    this.done = to
  }

  commonMarkOf(html: string): string {
    if (!isBoundedHtml(html)) return html
    try {
      const tree = fromHtml(html, { fragment: true })
      this.leaveOut(tree)
      return writeCommonMark(toMdast(tree)).trim()
    } catch (error) {
      // Elements nested some thousand deep: the libraries follow them into one another. It stays as it stands.
      if (error instanceof RangeError) return html
      throw error
    }
  }

  private leaveOut(tree: Root): void {
    const waiting: (Root | Element)[] = [tree]
    for (let at = waiting.pop(); at; at = waiting.pop()) {
      at.children = at.children.filter((child) => {
        if (child.type !== 'element') return child.type === 'text'
        if (!LEFT_OUT.has(child.tagName)) waiting.push(child)
        else this.leftOut.add(child.tagName)
        return !LEFT_OUT.has(child.tagName)
      }) as Element['children']
      const mark = this.marksAnchors && at.type === 'element' && HOLD_TEXT.has(at.tagName) ? markOf(at) : ''
      if (mark !== '') at.children.unshift({ type: 'text', value: mark })
    }
  }
}

/** Tags inside of a paragraph, one after the other as the parser of the page found them. */
class InlineHtml {
  private made = ''
  private done = 0
  private readonly openLinks: (string | null)[] = []

  constructor(
    private readonly source: string,
    private readonly lineEnd: string,
    private readonly leftOut: Set<string>,
    private readonly marksAnchors: boolean,
  ) {}

  read(content: readonly Inline[]): string {
    this.follow(content)
    return this.made + this.source.slice(this.done)
  }

  private follow(content: readonly Inline[]): void {
    for (const part of content) {
      if ('content' in part) this.follow(part.content)
      if (part.type !== 'html' && part.type !== 'code') continue
      const at = this.source.indexOf(part.text, this.done)
      if (at < 0) continue
      const end = at + part.text.length
      this.made += this.source.slice(this.done, at) + (part.type === 'html' ? this.instead(part.text) : part.text)
      this.done = end
    }
  }

  private instead(tag: string): string {
    const name = /^<\/?([a-z][a-z0-9-]*)/i.exec(tag)?.[1]?.toLowerCase() ?? ''
    if (name === 'br') return this.lineEnd
    if (LEFT_OUT.has(name)) this.leftOut.add(name)
    if (name === 'a' && tag.startsWith('</')) {
      const address = this.openLinks.pop() ?? null
      return address === null ? '' : `](${address})`
    }
    const [element] = fromHtml(tag, { fragment: true }).children
    if (element?.type !== 'element') return ''
    const mark = this.marksAnchors ? markOf(element) : ''
    const address = addressIn(element.properties[name === 'a' ? 'href' : 'src'])
    if (name === 'a') {
      this.openLinks.push(address)
      return address === null ? mark : `${mark}[`
    }
    if (name !== 'img' || address === null) return mark
    return `![${String(element.properties.alt ?? '').replace(/[[\]\n]/g, ' ')}](${address})`
  }
}

/** Elements that can hold the mark of their name. */
const HOLD_TEXT = new Set('a dd div dt h1 h2 h3 h4 h5 h6 li p section span summary td th'.split(' '))

/** The name of the place of an element, as a mark. */
const markOf = ({ tagName, properties }: Element): string =>
  anchorMark(properties.id ?? (tagName === 'a' ? properties.name : undefined))

/** An address as it can stand in a link; null for none. */
function addressIn(value: unknown): string | null {
  const address = typeof value === 'string' ? value.trim().replace(/[\n<>]/g, '') : ''
  if (address === '') return null
  return /[\s()]/.test(address) ? `<${address}>` : address
}

const hasHtml = (content: readonly Inline[]): boolean =>
  content.some((part) => part.type === 'html' || ('content' in part && hasHtml(part.content)))
