import {
  type Block,
  contentsIn,
  type Inline,
  inlineWords,
  type ListItem,
  linksIn,
  readCommonMark,
} from '../text/commonmark'
import { shortName } from '../text/short-name'
import { takeAnchors } from './anchors'
import { type OutlineItem, type OutlineLink, outlineItem } from './outline'

/**
 * Reads a CommonMark page (CommonMark 0.31 with the extensions of GFM) as an outline: headings and list items become items,
 * everything beneath a heading or in a list item that is not a list becomes its note, word for word as it stands in the
 * source. A paragraph of nothing but links becomes the links of its item, and an item of nothing but one link keeps that
 * link. Linear in the text.
 *
 * ```
 * # Water            Water
 * Seven lines.         (note: Seven lines.)
 * - Dams               Dams
 *   - Boards             Boards
 * ```
 *
 * Lists below a paragraph hang on the item that the paragraph belongs to. A numbered or bulleted list inside a quote,
 * and all tables and code, stay in the note. With `hasShortNames` a long list item is named by its beginning and stands, word
 * for word, in its note. With `isMarked` it holds marks of the names of places (`anchors`), which become names of the items: of the one
 * in which a mark stands, of the next one where it stands alone.
 */
export function readCommonMarkOutline(
  source: string,
  { hasShortNames = false, isMarked = false }: { hasShortNames?: boolean; isMarked?: boolean } = {},
): OutlineItem[] {
  const reader = new OutlineReader(source.replace(/\r\n?/g, '\n'), hasShortNames, isMarked)
  return reader.read()
}

class OutlineReader {
  private readonly lines: readonly string[]
  /** Names of a place for which no item is known yet: of the next one. */
  private waiting: string[] = []

  constructor(
    private readonly source: string,
    private readonly hasShortNames: boolean,
    private readonly isMarked: boolean,
  ) {
    this.lines = source.split('\n')
  }

  read(): OutlineItem[] {
    const top = outlineItem('')
    const open: { depth: number; item: OutlineItem }[] = [{ depth: 0, item: top }]
    const blocks = readCommonMark(this.source)
    for (const block of blocks) {
      if (block.type === 'heading') {
        while (open.at(-1)!.depth >= block.level) open.pop()
        const item = this.itemFrom(block.content)
        open.at(-1)!.item.children.push(item)
        open.push({ depth: block.level, item })
      } else this.addBlock(open.at(-1)!.item, block)
    }
    addAnchors(open.at(-1)!.item, this.waiting)
    if (top.note === '' && top.links.length === 0) return top.children
    const first = this.hasShortNames ? blocks.find(({ type }) => type === 'paragraph') : undefined
    return first?.type === 'paragraph' && !this.isOnlyLinks(first.content)
      ? [{ ...this.named(top, first.content), children: [] }, ...top.children]
      : beforeFirstHeading(top)
  }

  /** An item named by the words of its first paragraph; all of the note stays where these are more than a name. */
  private named(item: OutlineItem, first: readonly Inline[]): OutlineItem {
    const words = this.wordsOf(first).text
    const isAll = item.note === words || item.note.startsWith(`${words}\n\n`)
    const name = shortName(words)
    return { ...item, text: name ?? words, note: isAll && !name ? item.note.slice(words.length).trim() : item.note }
  }

  private addBlock(item: OutlineItem, block: Block, within?: ListItem): void {
    if (block.type === 'list') for (const entry of block.items) this.addEntry(item, entry)
    else if (block.type === 'rule') return
    else if (block.type === 'paragraph' && this.isOnlyLinks(block.content))
      item.links.push(...this.linksOf(block.content))
    else if (block.type === 'paragraph' && this.isOnlyAnchors(block.content))
      this.waiting.push(...this.wordsOf(block.content).anchors)
    else {
      const { text, anchors } = this.withoutMarks(this.slice(block, within))
      addAnchors(item, anchors)
      item.note = item.note === '' ? text : `${item.note}\n\n${text}`
      for (const content of contentsIn([block])) for (const link of linksIn(content)) item.noteLinks.push(link.address)
    }
  }

  private addEntry(item: OutlineItem, entry: ListItem): void {
    const [first, ...rest] = entry.blocks
    if (!first) return
    const head = first.type === 'paragraph' || first.type === 'heading' ? first : null
    const child = head ? this.itemFrom(head.content) : outlineItem('')
    item.children.push(child)
    const name = this.hasShortNames && shortName(child.text)
    if (head && name) {
      Object.assign(child, { text: name, links: [] })
      this.addBlock(child, head, entry)
    }
    for (const block of head ? rest : entry.blocks) this.addBlock(child, block, entry)
  }

  private withoutMarks(text: string): { text: string; anchors: string[] } {
    return this.isMarked ? takeAnchors(text) : { text, anchors: [] }
  }

  /** The words of some content on one line, and the names of its place. */
  private wordsOf(content: readonly Inline[]): { text: string; anchors: string[] } {
    const { text, anchors } = this.withoutMarks(inlineWords(content))
    return { text: oneLine(text), anchors }
  }

  private linksOf(content: readonly Inline[]): OutlineLink[] {
    return [...linksIn(content)].flatMap((link) =>
      link.type === 'link' ? { address: link.address, title: this.wordsOf(link.content).text } : [],
    )
  }

  private isOnlyLinks(content: readonly Inline[]): boolean {
    return (
      content.some(({ type }) => type === 'link') &&
      content.every(
        (part) =>
          part.type === 'link' ||
          part.type === 'break' ||
          part.type === 'line end' ||
          (part.type === 'text' && /^[\s,;·]*$/.test(this.withoutMarks(part.text).text)),
      )
    )
  }

  private isOnlyAnchors(content: readonly Inline[]): boolean {
    const { text, anchors } = this.wordsOf(content)
    return text === '' && anchors.length > 0
  }

  private itemFrom(content: readonly Inline[]): OutlineItem {
    const { text, anchors } = this.wordsOf(content)
    const item = outlineItem(text)
    item.links.push(...this.linksOf(content))
    addAnchors(item, [...this.waiting, ...anchors])
    this.waiting = []
    return item
  }

  /** The block as it stands in the source, without the indentation and the mark of the entry that it is in. */
  private slice({ from, to }: Block, within: ListItem | undefined): string {
    const lines = this.lines.slice(from, to)
    while (lines.length > 1 && lines.at(-1)!.trim() === '') lines.pop()
    if (within) {
      // On the line of the mark itself, what is behind the mark; other lines begin where the block does.
      if (from === within.from) lines[0] = lines[0]!.replace(ENTRY_MARKS, '')
      const first = from === within.from ? lines[1] : lines[0]
      const indent = /^[ \t]*/.exec(first ?? '')![0].length
      return lines.map((line) => withoutIndent(line, indent)).join('\n')
    }
    return lines.join('\n')
  }
}

/** The marks of list entries at the beginning of a line, one inside the other. */
const ENTRY_MARKS = /^(?:[ \t]*(?:[-*+]|\d{1,9}[.)])[ \t]+)+/

function withoutIndent(line: string, most: number): string {
  let at = 0
  while (at < most && (line[at] === ' ' || line[at] === '\t')) at++
  return line.slice(at)
}

/** A page that begins without a heading: its first line names the item that carries what stands before any heading. */
function beforeFirstHeading(top: OutlineItem): OutlineItem[] {
  const end = top.note.indexOf('\n')
  const first = end < 0 ? top.note : top.note.slice(0, end)
  const item: OutlineItem = {
    ...top,
    text: first.trim(),
    note: end < 0 ? '' : top.note.slice(end + 1).trim(),
    children: [],
  }
  return [item, ...top.children]
}

function addAnchors(item: OutlineItem, anchors: readonly string[]): void {
  if (anchors.length > 0) item.anchors = [...(item.anchors ?? []), ...anchors]
}

const oneLine = (text: string): string => text.split(/\s+/).join(' ').trim()
