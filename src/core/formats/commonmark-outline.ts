import type {
  BlockContent,
  DefinitionContent,
  Link,
  List,
  ListItem,
  Paragraph,
  PhrasingContent,
  RootContent,
} from 'mdast'
import { toString as plainText } from 'mdast-util-to-string'
import { parseCommonMark } from '../text/commonmark'
import { type OutlineItem, type OutlineLink, outlineItem } from './outline'

/**
 * Reads a CommonMark page as an outline: headings and list items become items, everything beneath a heading or in a
 * list item that is not a list becomes its note, word for word as it stands in the source. A paragraph of nothing but
 * links becomes the links of its item, and an item of nothing but one link keeps that link.
 *
 * Lists below a paragraph hang on the item that the paragraph belongs to. A numbered or bulleted list inside a quote,
 * and all tables and code, stay in the note.
 */
export function readCommonMark(source: string): OutlineItem[] {
  const text = source.replace(/\r\n?/g, '\n')
  const top = outlineItem('')
  const open: { depth: number; item: OutlineItem }[] = [{ depth: 0, item: top }]
  for (const block of parseCommonMark(text).children) {
    if (block.type === 'heading') {
      while (open.at(-1)!.depth >= block.depth) open.pop()
      const item = itemFrom(block.children)
      open.at(-1)!.item.children.push(item)
      open.push({ depth: block.depth, item })
    } else addBlock(open.at(-1)!.item, block, text)
  }
  if (top.note === '' && top.links.length === 0) return top.children
  return beforeFirstHeading(top)
}

/** A page that begins without a heading: its first line names the item that carries what stands before any heading. */
function beforeFirstHeading(top: OutlineItem): OutlineItem[] {
  const [first = '', ...rest] = top.note.split('\n')
  const item: OutlineItem = { ...top, text: first.trim(), note: rest.join('\n').trim(), children: [] }
  return [item, ...top.children]
}

function addBlock(item: OutlineItem, block: RootContent | BlockContent | DefinitionContent, source: string): void {
  if (block.type === 'list') addList(item, block, source)
  else if (block.type === 'thematicBreak') return
  else if (block.type === 'paragraph' && onlyLinks(block)) item.links.push(...linksOf(block))
  else item.note = item.note === '' ? slice(block, source) : `${item.note}\n\n${slice(block, source)}`
}

function addList(item: OutlineItem, list: List, source: string): void {
  for (const entry of list.children) {
    const child = listItem(entry, source)
    if (child) item.children.push(child)
  }
}

function listItem(entry: ListItem, source: string): OutlineItem | null {
  const [first, ...rest] = entry.children
  if (!first) return null
  const head = first.type === 'paragraph' || first.type === 'heading' ? first : null
  const item = head ? itemFrom(head.children) : outlineItem('')
  for (const block of head ? rest : entry.children) addBlock(item, block, source)
  return item
}

function itemFrom(content: PhrasingContent[]): OutlineItem {
  const item = outlineItem(oneLine(plainText(content, { includeImageAlt: true })))
  const only = content.length === 1 ? content[0] : undefined
  if (only?.type === 'link') item.links.push(linkFrom(only))
  else for (const part of content) if (part.type === 'link') item.links.push(linkFrom(part))
  return item
}

const oneLine = (text: string) => text.replace(/\s*\n\s*/g, ' ').trim()
const linkFrom = (link: Link): OutlineLink => ({ address: link.url, title: oneLine(plainText(link)) })
const linksOf = (paragraph: Paragraph): OutlineLink[] =>
  paragraph.children.flatMap((part) => (part.type === 'link' ? [linkFrom(part)] : []))

const onlyLinks = (paragraph: Paragraph): boolean =>
  paragraph.children.some((part) => part.type === 'link') &&
  paragraph.children.every(
    (part) => part.type === 'link' || part.type === 'break' || (part.type === 'text' && /^[\s,;·]*$/.test(part.value)),
  )

/** The block as it stands in the source, with the indentation of its container taken away. */
function slice(
  block: { position?: { start: { offset?: number; column: number }; end: { offset?: number } } | undefined },
  source: string,
): string {
  const { position } = block
  const lines = source.slice(position?.start.offset ?? 0, position?.end.offset ?? 0).split('\n')
  const indent = (position?.start.column ?? 1) - 1
  const leading = new RegExp(`^[ \\t]{0,${indent}}`)
  return lines.map((line, i) => (i === 0 ? line : line.replace(leading, ''))).join('\n')
}
