import { addressIn, readableAddress } from '../records/weblink'
import { type OutlineItem, outlineItem } from './outline'

const TAB = 4
const BULLET = /^(?:[-*+•◦▪‣–—]|\d{1,9}[.)])\s+/
/** Words of CommonMark's strong emphasis. */
const STRONG = /\*\*(?![\s*])([^*]*[^\s*])\*\*/g

/** Columns of white space at the beginning of a line; a tab reaches to the next multiple of four. */
export function indentOf(line: string): number {
  let columns = 0
  for (const letter of line) {
    if (letter === ' ' || letter === '\u00a0') columns++
    else if (letter === '\t') columns += TAB - (columns % TAB)
    else break
  }
  return columns
}

/** An item named by its words; where these are an address and nothing else, by that, and with the link. */
function itemOf(words: string): OutlineItem {
  const address = addressIn(words)
  if (address === null) return outlineItem(words)
  return { ...outlineItem(readableAddress(address)), links: [{ address, title: '' }] }
}

/**
 * Reads indented or bulleted text: a line is an item, and hangs on the nearest line above that is indented less.
 * Bullets and numbers before the text are dropped, empty lines skipped. In a line with such a mark the marks of strong emphasis
 * are dropped too: it was copied where these are not seen. An address becomes a link. Linear in the length of the text.
 */
export function readIndentedText(text: string): OutlineItem[] {
  const top: OutlineItem[] = []
  const open: { indent: number; item: OutlineItem }[] = []
  for (const line of text.split(/\r\n?|\n/)) {
    const words = line.trim()
    if (words === '') continue
    const indent = indentOf(line)
    const unmarked = words.replace(BULLET, '')
    const item = itemOf(unmarked === words ? words : unmarked.replace(STRONG, '$1'))
    while (open.length > 0 && open.at(-1)!.indent >= indent) open.pop()
    const parent = open.at(-1)?.item
    if (parent) parent.children.push(item)
    else top.push(item)
    open.push({ indent, item })
  }
  return top
}

/** A text on one line. Linear. */
const oneLine = (text: string): string =>
  text.includes('\n')
    ? text
        .split('\n')
        .map((line) => line.trim())
        .join(' ')
    : text

/** Writes items as text, two spaces a level, so that any editor receives a clean list. Line breaks become spaces. */
export function writeIndentedText(items: readonly OutlineItem[]): string {
  const lines: string[] = []
  const waiting = items.map((item) => ({ item, level: 0 })).reverse()
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    lines.push(`${'  '.repeat(next.level)}- ${oneLine(next.item.text)}`)
    for (let i = next.item.children.length - 1; i >= 0; i--)
      waiting.push({ item: next.item.children[i]!, level: next.level + 1 })
  }
  return lines.join('\n')
}
