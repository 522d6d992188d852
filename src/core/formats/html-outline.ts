import type { Element, ElementContent, Nodes, Root, RootContent } from 'hast'
import { fromHtml } from 'hast-util-from-html'
import { isBoundedHtml } from './bounded-html'
import { type OutlineItem, outlineItem } from './outline'

/** Elements deeper than this are read as plain text: nobody nests lists so deep, and a hostile page must not cost more. */
const MOST_DEEP = 300
const SKIPPED = new Set(['script', 'style', 'head', 'template', 'noscript', 'svg', 'iframe', 'object', 'select'])
const BLOCKS = new Set([
  'address',
  'article',
  'aside',
  'blockquote',
  'body',
  'dd',
  'div',
  'dl',
  'dt',
  'figure',
  'footer',
  'form',
  'header',
  'html',
  'main',
  'nav',
  'p',
  'pre',
  'section',
  'td',
  'th',
])

/**
 * Reads HTML as other programs put it on the clipboard: lists and headings keep their structure, a table becomes a topic
 * for each column with its cells below, paragraphs become topics. Lists of word processors, which are paragraphs with
 * a level in their style, are lists. Links are kept. Nothing of it is ever run. Null where there is no structure to keep.
 */
export function readHtml(html: string): OutlineItem[] | null {
  if (!isBoundedHtml(html)) return null
  const reader = new HtmlReader()
  try {
    reader.read(fromHtml(html))
  } catch (error) {
    // The parser follows elements into one another; nested some thousand deep they are taken as the text that they show.
    if (error instanceof RangeError) return null
    throw error
  }
  return reader.structured ? reader.top.children : null
}

class HtmlReader {
  readonly top = outlineItem('')
  /** Whether there was a list, a heading or a table: else plain text says as much. */
  structured = false
  private readonly headings: { depth: number; item: OutlineItem }[] = []
  private readonly levels: { depth: number; item: OutlineItem }[] = []

  read(root: Root): void {
    this.blocks(root.children, 0)
  }

  private get current(): OutlineItem {
    return this.headings.at(-1)?.item ?? this.top
  }

  private blocks(nodes: readonly (RootContent | ElementContent)[], depth: number): void {
    let inline: ElementContent[] = []
    const flush = () => {
      const item = itemFrom(inline)
      inline = []
      if (item) this.current.children.push(item)
    }
    for (const node of nodes) {
      if (node.type === 'text') inline.push(node)
      else if (node.type === 'element' && !SKIPPED.has(node.tagName)) {
        if (isBlock(node)) {
          flush()
          this.block(node, depth)
        } else if (hasBlock(node)) {
          flush()
          this.blocks(node.children, depth + 1)
        } else inline.push(node)
      }
    }
    flush()
  }

  private block(node: Element, depth: number): void {
    const heading = /^h([1-6])$/.exec(node.tagName)
    if (depth > MOST_DEEP) {
      const item = itemFrom(node.children)
      if (item) this.current.children.push(item)
    } else if (heading) this.heading(node, Number(heading[1]))
    else if (node.tagName === 'ul' || node.tagName === 'ol') {
      this.structured = true
      this.levels.length = 0
      this.list(node, this.current, depth + 1)
    } else if (node.tagName === 'table') this.table(node)
    else if (levelOf(node) !== null) this.listParagraph(node, levelOf(node)!)
    else {
      this.levels.length = 0
      this.blocks(node.children, depth + 1)
    }
  }

  private heading(node: Element, depth: number): void {
    const item = itemFrom(node.children)
    if (!item) return
    this.structured = true
    this.levels.length = 0
    while (this.headings.length > 0 && this.headings.at(-1)!.depth >= depth) this.headings.pop()
    this.current.children.push(item)
    this.headings.push({ depth, item })
  }

  private list(list: Element, into: OutlineItem, depth: number): void {
    let last: OutlineItem | null = null
    for (const entry of list.children) {
      if (entry.type !== 'element') continue
      // A list directly inside a list belongs to the entry before it.
      if (entry.tagName === 'ul' || entry.tagName === 'ol') {
        if (depth <= MOST_DEEP) this.list(entry, last ?? into, depth + 1)
        continue
      }
      const own = entry.children.filter((child) => !isList(child))
      const item = itemFrom(own) ?? outlineItem('')
      for (const child of entry.children) if (isList(child) && depth <= MOST_DEEP) this.list(child, item, depth + 1)
      if (item.text === '' && item.children.length === 0) continue
      into.children.push(item)
      last = item
    }
  }

  private listParagraph(node: Element, level: number): void {
    const item = itemFrom(node.children)
    if (!item) return
    this.structured = true
    item.text = item.text.replace(/^(?:[·•o§▪–-]|\d+[.)]|[a-z][.)])\s+/i, '')
    while (this.levels.length > 0 && this.levels.at(-1)!.depth >= level) this.levels.pop()
    const into = this.levels.at(-1)?.item ?? this.current
    into.children.push(item)
    this.levels.push({ depth: level, item })
  }

  private table(table: Element): void {
    const rows = rowsOf(table)
    const [head = [], ...body] = rows
    this.structured = true
    const columns = head.map((cell) => itemFrom(cell.children) ?? outlineItem(''))
    for (const row of body)
      row.forEach((cell, i) => {
        const item = itemFrom(cell.children)
        if (item && columns[i]) columns[i].children.push(item)
      })
    this.current.children.push(...columns.filter((column) => column.text !== '' || column.children.length > 0))
  }
}

const isList = (node: ElementContent): node is Element =>
  node.type === 'element' && (node.tagName === 'ul' || node.tagName === 'ol')

const isBlock = ({ tagName }: Element): boolean =>
  BLOCKS.has(tagName) || tagName === 'ul' || tagName === 'ol' || tagName === 'table' || /^h[1-6]$/.test(tagName)

const hasBlock = (node: Element): boolean =>
  node.children.some((child) => child.type === 'element' && (isBlock(child) || hasBlock(child)))

/** The level that a word processor gives to a paragraph of a list, from 1. */
function levelOf(node: Element): number | null {
  const found = /mso-list:[^;]{0,100}\blevel(\d{1,3})/.exec(String(node.properties.style ?? ''))
  return found ? Number(found[1]) : null
}

function rowsOf(table: Element): Element[][] {
  const rows: Element[][] = []
  const waiting: Element[] = [table]
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (at.tagName === 'tr') {
      rows.push(at.children.filter((cell): cell is Element => cell.type === 'element' && /^t[dh]$/.test(cell.tagName)))
      continue
    }
    for (let i = at.children.length - 1; i >= 0; i--) {
      const child = at.children[i]!
      if (child.type === 'element' && /^(thead|tbody|tfoot|tr)$/.test(child.tagName)) waiting.push(child)
    }
  }
  return rows
}

/** The words of some nodes as one item, with their links. Null without words. Iterative: depth is no limit. */
function itemFrom(nodes: readonly ElementContent[]): OutlineItem | null {
  const item = outlineItem('')
  let text = ''
  const waiting: Nodes[] = [...nodes].reverse()
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if (node.type === 'text') text += node.value
    if (node.type !== 'element' || SKIPPED.has(node.tagName)) continue
    if (node.tagName === 'br') text += ' '
    const address = node.tagName === 'a' ? String(node.properties.href ?? '') : ''
    if (address !== '') item.links.push({ address, title: wordsOf(node) })
    for (let i = node.children.length - 1; i >= 0; i--) waiting.push(node.children[i]!)
    if (BLOCKS.has(node.tagName)) text += ' '
  }
  item.text = text.replace(/[\s\u00a0]+/g, ' ').trim()
  return item.text === '' ? null : item
}

function wordsOf(node: Element): string {
  let text = ''
  const waiting: Nodes[] = [...node.children].reverse()
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (at.type === 'text') text += at.value
    if (at.type === 'element') for (let i = at.children.length - 1; i >= 0; i--) waiting.push(at.children[i]!)
  }
  return text.replace(/\s+/g, ' ').trim()
}
