import { isTooMuch, readCommonMark } from '../../text/commonmark'
import { wordsForFinding } from '../../text/folding'
import { readCommonMarkOutline } from '../commonmark-outline'
import { inReadingOrder, type OutlineItem, type OutlineLink, outlineItem } from '../outline'
import { type Page, pageTree } from '../page-file'

/** A topic as it is written on a page: how deep it stands, its text, its note. */
export interface PageLine {
  level: number
  text: string
  note: string
  /** Addresses in it, on reading. */
  links: readonly OutlineLink[]
}

/** Deepest rows that are headings; what is deeper is a list. */
const MOST_HEADINGS = 3

/**
 * Writes a map as CommonMark: the root is the title, the rows below it are headings as long as one of a row has others below
 * it, the rest are lists. Notes stand below their topics: as they are, or, where they hold headings or lists of their own, as
 * quotes. `isCautious` writes words and quotes alone, for texts that would read back as other topics. Linear.
 */
export function writePage(lines: readonly PageLine[], isCautious = false): string {
  const headings = headingRows(lines)
  const parts: string[] = []
  let depth = 0
  lines.forEach(({ level, text, note }, i) => {
    const isHeading = headings.has(i)
    if (isHeading) depth = level + 1
    const indent = isHeading ? '' : '  '.repeat(level - depth)
    const words = isCautious ? wordsForFinding(text).join(' ') || NO_TEXT : escaped(text)
    if (isHeading) parts.push(`${i === 0 ? '' : '\n'}${'#'.repeat(level + 1)} ${words}`.trimEnd())
    else {
      if (headings.has(i - 1) || (lines[i - 1]?.note ?? '') !== '') parts.push('')
      parts.push(`${indent}- ${words}`.trimEnd())
    }
    if (note === '') return
    const within = isHeading ? '' : `${indent}  `
    parts.push('', ...written(note, isCautious).map((line) => (line === '' ? '' : within + line)))
  })
  return `${parts.join('\n')}\n`
}

/** Which lines are headings: the root, and all of a row of siblings where one of them has others below it. */
function headingRows(lines: readonly PageLine[]): Set<number> {
  const parents = new Int32Array(lines.length)
  const open: number[] = []
  lines.forEach(({ level }, i) => {
    open.length = level
    parents[i] = open.at(-1) ?? -1
    open.push(i)
  })
  const withBelow = new Set<number>()
  for (const parent of parents) if (parent >= 0 && parents[parent]! >= 0) withBelow.add(parents[parent]!)
  const headings = new Set<number>()
  lines.forEach(({ level }, i) => {
    const parent = parents[i]!
    if (level === 0 || (level < MOST_HEADINGS && headings.has(parent) && withBelow.has(parent))) headings.add(i)
  })
  return headings
}

/** A note as the lines of its page. */
function written(note: string, isCautious: boolean): string[] {
  const lines = note.split('\n')
  return !isCautious && isPlain(note) ? lines : lines.map((line) => (line === '' ? '>' : `> ${line}`))
}

/** Whether a note can stand on a page as it is: nothing in it is taken for a topic, a quote or a list of links. */
function isPlain(note: string): boolean {
  if (isTooMuch(note) || note !== note.trim() || /\n\n\n|\r|\t/.test(note)) return false
  return readCommonMark(note).every((block) => {
    if (block.type === 'paragraph') return !block.content.every(({ type }) => type === 'link' || type === 'line end')
    return block.type === 'code' ? note.includes('```') : block.type === 'table'
  })
}

/** Stands for a topic without a text. */
const NO_TEXT = '⏎'

/** A topic's text on one line, with what CommonMark would take for marks escaped. */
function escaped(text: string): string {
  const line = text.split(/\s+/).join(' ').trim()
  if (line === '') return NO_TEXT
  return line
    .replace(/[\\`*_[\]<>&~|!#]/g, '\\$&')
    .replace(/^([-+=])/, '\\$1')
    .replace(/^(\d{1,9})([.)])(?= |$)/, '$1\\$2')
}

/** Reads a page as an import does: its topics in reading order, the root first. */
export const readSourcePage = (page: Page): PageLine[] =>
  inReadingOrder(pageTree(page).top).map(({ item: { text, note, links }, level }) => ({ level, text, note, links }))

/** Reads a page back: its topics in reading order, the root first. What hangs beside a title hangs below it. Linear. */
export function readPage(text: string, title: string): PageLine[] {
  const items = isTooMuch(text) ? [{ ...outlineItem(title), note: text }] : readCommonMarkOutline(text)
  const root: OutlineItem =
    items.length === 1 ? items[0]! : { ...(items[0] ?? outlineItem(title)), children: childrenOf(items) }
  const lines: PageLine[] = []
  const waiting: { item: OutlineItem; level: number }[] = [{ item: root, level: 0 }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { item, level } = next
    lines.push({ level, text: item.text, note: unquoted(item.note), links: item.links })
    for (let i = item.children.length - 1; i >= 0; i--) waiting.push({ item: item.children[i]!, level: level + 1 })
  }
  return lines
}

const childrenOf = ([first, ...rest]: readonly OutlineItem[]): OutlineItem[] => [...(first?.children ?? []), ...rest]

function unquoted(note: string): string {
  const lines = note.split('\n')
  return lines.every((line) => line.startsWith('>')) ? lines.map((line) => line.replace(/^> ?/, '')).join('\n') : note
}
