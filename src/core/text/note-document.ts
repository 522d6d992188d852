import type { Code, Heading, Nodes, Paragraph, PhrasingContent, RootContent } from 'mdast'
import { readOwnAddress } from '../formats/own-address'
import { type Block, type Inline, isTooMuch, readCommonMark } from './commonmark'
import { trimEndOf } from './trim-end'
import { writeCommonMark } from './write-commonmark'

/** A node of the note editor's document, in the JSON form of ProseMirror with the names that Tiptap gives. */
export interface DocumentNode {
  type?: string
  attrs?: Record<string, unknown>
  content?: DocumentNode[]
  marks?: { type: string; attrs?: Record<string, unknown> }[]
  text?: string
}

/** A note taken apart for the editor: one node for each top-level block, with the words of the source that it came from. */
export interface NoteSource {
  blocks: DocumentNode[]
  slices: string[]
  /** What stands before each block and, last, after all of them: empty lines mostly. One more than there are slices. */
  gaps: string[]
}

class Unsupported extends Error {}

/**
 * Takes a note apart. Blocks that the editor cannot show (raw HTML, pictures from elsewhere, aligned tables, definitions of links, …)
 * become editable raw blocks, so that nothing is lost or changed: slices and gaps together are the note to the letter.
 */
export function readNote(text: string): NoteSource {
  if (text.trim() === '') return { blocks: [], slices: [], gaps: [text] }
  if (isTooMuch(text)) return { blocks: [rawBlock(text)], slices: [text], gaps: ['', ''] }
  const lines = new SourceLines(text)
  const source: NoteSource = { blocks: [], slices: [], gaps: [] }
  let end = 0
  const add = (node: DocumentNode, from: number, to: number) => {
    source.gaps.push(text.slice(end, from))
    source.slices.push(text.slice(from, to))
    source.blocks.push(node)
    end = to
  }
  /** What stands between blocks and is more than empty lines defines links: it can be seen and edited too. */
  const addBetween = (before: number) => {
    const words = text.slice(end, before)
    if (words.trim() === '') return
    const from = end + words.search(/\S/)
    add(rawBlock(words.trim()), from, from + words.trim().length)
  }
  for (const block of readCommonMark(text)) {
    const from = lines.start(block.from)
    const to = lines.endOfWords(block)
    addBetween(from)
    add(blockOrRaw(block, text.slice(from, to)), from, to)
  }
  addBetween(text.length)
  source.gaps.push(text.slice(end))
  return source
}

/** Where the lines of a text begin and end, counted as the reader counts them. */
class SourceLines {
  private readonly starts: number[] = [0]
  private readonly ends: number[] = []

  constructor(private readonly text: string) {
    for (const { index, 0: mark } of text.matchAll(/\r\n?|\n/g)) {
      this.ends.push(index)
      this.starts.push(index + mark.length)
    }
    this.ends.push(text.length)
  }

  start(line: number): number {
    return this.starts[line] ?? this.text.length
  }

  /** The end of the last line of a block that is not empty. */
  endOfWords({ from, to }: Block): number {
    let last = Math.min(to, this.ends.length) - 1
    while (last > from && this.text.slice(this.starts[last], this.ends[last]).trim() === '') last--
    return this.ends[last] ?? this.text.length
  }
}

const rawBlock = (text: string): DocumentNode => ({
  type: 'rawBlock',
  content: text === '' ? [] : [{ type: 'text', text }],
})

function blockOrRaw(block: Block, slice: string): DocumentNode {
  try {
    return toNode(block)
  } catch (error) {
    if (error instanceof Unsupported) return rawBlock(slice)
    throw error
  }
}

/** Deepest nesting of blocks that the editor shows; what is deeper becomes a raw block as a whole. */
const MOST_SHOWN_LEVELS = 40

function toNode(block: Block, depth = 0): DocumentNode {
  if (depth > MOST_SHOWN_LEVELS) throw new Unsupported('depth')
  switch (block.type) {
    case 'paragraph':
      return { type: 'paragraph', content: inline(block.content) }
    case 'heading':
      return { type: 'heading', attrs: { level: block.level }, content: inline(block.content) }
    case 'quote':
      return { type: 'blockquote', content: block.blocks.map((inner) => toNode(inner, depth + 1)) }
    case 'code':
      return {
        type: 'codeBlock',
        attrs: { language: block.language || null },
        content: block.text === '' ? [] : [{ type: 'text', text: block.text }],
      }
    case 'rule':
      return { type: 'horizontalRule' }
    case 'list':
      return listNode(block, depth)
    case 'table':
      return tableNode(block)
    case 'html':
      throw new Unsupported(block.type)
    default:
      return block satisfies never
  }
}

function listNode({ items, start }: Extract<Block, { type: 'list' }>, depth: number): DocumentNode {
  const isTask = items.some(({ isDone }) => isDone !== null)
  if (isTask && (start !== null || items.some(({ isDone }) => isDone === null))) throw new Unsupported('mixed list')
  const content = items.map(({ isDone, blocks }): DocumentNode => {
    const children = blocks.map((block) => toNode(block, depth + 1))
    if (children[0]?.type !== 'paragraph') children.unshift({ type: 'paragraph' })
    return isTask
      ? { type: 'taskItem', attrs: { checked: isDone === true }, content: children }
      : { type: 'listItem', content: children }
  })
  if (isTask) return { type: 'taskList', content }
  return start === null ? { type: 'bulletList', content } : { type: 'orderedList', attrs: { start }, content }
}

function tableNode({ align, rows }: Extract<Block, { type: 'table' }>): DocumentNode {
  if (align.some((one) => one !== null)) throw new Unsupported('aligned table')
  const content = rows.map((row, i) => ({
    type: 'tableRow',
    content: row.map((cell) => ({
      type: i === 0 ? 'tableHeader' : 'tableCell',
      content: [{ type: 'paragraph', content: inline(cell) }],
    })),
  }))
  return { type: 'table', content }
}

type Marks = NonNullable<DocumentNode['marks']>
const MARK_NAMES = { strong: 'bold', emphasis: 'italic', strike: 'strike' } as const

function inline(content: readonly Inline[], marks: Marks = []): DocumentNode[] {
  const words = (text: string): DocumentNode[] =>
    text === '' ? [] : [{ type: 'text', text, ...(marks.length > 0 ? { marks } : {}) }]
  return content.flatMap((part): DocumentNode[] => {
    switch (part.type) {
      case 'text':
        return words(part.text)
      case 'line end':
        // A line break inside a paragraph is a space to whoever reads it.
        return words(' ')
      case 'strong':
      case 'emphasis':
      case 'strike':
        return inline(part.content, [...marks, { type: MARK_NAMES[part.type] }])
      case 'link':
        return inline(part.content, [...marks, { type: 'link', attrs: { href: part.address, title: part.title } }])
      case 'code':
        if (marks.length > 0) throw new Unsupported('marked code')
        return [{ type: 'text', text: part.text, marks: [{ type: 'code' }] }]
      case 'break':
        return [{ type: 'hardBreak' }]
      case 'picture':
        return [pictureNode(part)]
      case 'html':
        throw new Unsupported(part.type)
      default:
        return part satisfies never
    }
  })
}

/** Pictures of the collection are shown; others stay as they are written, since showing them would fetch them. */
function pictureNode({ address, words, title }: Extract<Inline, { type: 'picture' }>): DocumentNode {
  if (readOwnAddress(address)?.kind !== 'file') throw new Unsupported('picture')
  return { type: 'notePicture', attrs: { src: address, alt: words, title } }
}

/**
 * Puts a note together again. `loaded` are the blocks as the editor showed them at the beginning, one for each slice
 * of the source; blocks that are still the same keep their slice to the letter, and only changed ones are written anew.
 */
export function writeNote(
  source: NoteSource,
  loaded: readonly DocumentNode[],
  current: readonly DocumentNode[],
): string {
  const known = loaded.map((node) => JSON.stringify(node))
  const kept = matchSame(
    known,
    current.map((node) => JSON.stringify(node)),
  )
  let text = ''
  let before = -1
  current.forEach((node, i) => {
    const at = kept[i]!
    const slice = at >= 0 ? source.slices[at]! : writeBlock(node)
    if (slice === '' && at < 0) return
    if (text === '' && i === 0) text = at === 0 ? source.gaps[0]! : ''
    else if (text !== '') text += at >= 0 && at === before + 1 && before >= 0 ? source.gaps[at]! : '\n\n'
    text += slice
    before = at >= 0 ? at : -2
  })
  const unchangedEnd = before === source.slices.length - 1
  if (text === '') return ''
  return text + (unchangedEnd ? source.gaps.at(-1)! : endOf(source.gaps.at(-1)!))
}

/** The line ends with which a text ends. */
const endOf = (text: string): string => text.slice(trimEndOf(text, '\n').length)

/**
 * For each of `current` the index of the one in `known` that it is, else -1; in order, as many as possible.
 * Equal beginnings and ends are taken first; between them the longest common subsequence, where it is small enough.
 */
function matchSame(known: readonly string[], current: readonly string[]): number[] {
  const match = new Array<number>(current.length).fill(-1)
  let start = 0
  while (start < known.length && start < current.length && known[start] === current[start]) match[start] = start++
  let knownEnd = known.length
  let currentEnd = current.length
  while (knownEnd > start && currentEnd > start && known[knownEnd - 1] === current[currentEnd - 1])
    match[--currentEnd] = --knownEnd
  const rows = knownEnd - start
  const columns = currentEnd - start
  if (rows * columns > 250_000) return match
  const length = Array.from({ length: rows + 1 }, () => new Uint16Array(columns + 1))
  for (let i = rows - 1; i >= 0; i--)
    for (let j = columns - 1; j >= 0; j--)
      length[i]![j] =
        known[start + i] === current[start + j]
          ? length[i + 1]![j + 1]! + 1
          : Math.max(length[i + 1]![j]!, length[i]![j + 1]!)
  for (let i = 0, j = 0; i < rows && j < columns; ) {
    if (known[start + i] === current[start + j]) match[start + j++] = start + i++
    else if (length[i + 1]![j]! >= length[i]![j + 1]!) i++
    else j++
  }
  return match
}

function writeBlock(node: DocumentNode): string {
  if (node.type === 'rawBlock') return (node.content ?? []).map(({ text }) => text ?? '').join('')
  return trimEndOf(writeCommonMark({ type: 'root', children: [toMdast(node)] } as Nodes), '\n')
}

function toMdast(node: DocumentNode): RootContent {
  const blocks = () => (node.content ?? []).map(toMdast) as never
  switch (node.type) {
    case 'heading':
      return {
        type: 'heading',
        depth: (Number(node.attrs?.level) || 1) as Heading['depth'],
        children: phrasing(node.content),
      }
    case 'blockquote':
      return { type: 'blockquote', children: blocks() }
    case 'codeBlock':
      return {
        type: 'code',
        lang: (node.attrs?.language as Code['lang']) ?? null,
        value: (node.content ?? []).map(({ text }) => text ?? '').join(''),
      }
    case 'horizontalRule':
      return { type: 'thematicBreak' }
    case 'bulletList':
    case 'orderedList':
    case 'taskList':
      return {
        type: 'list',
        ordered: node.type === 'orderedList',
        start: node.type === 'orderedList' ? Number(node.attrs?.start) || 1 : null,
        spread: false,
        children: (node.content ?? []).map((item) => ({
          type: 'listItem',
          spread: false,
          checked: item.type === 'taskItem' ? item.attrs?.checked === true : null,
          children: (item.content ?? []).map(toMdast) as never,
        })),
      }
    case 'table':
      return {
        type: 'table',
        children: (node.content ?? []).map((row) => ({
          type: 'tableRow',
          children: (row.content ?? []).map((cell) => ({
            type: 'tableCell',
            children: (cell.content ?? []).flatMap((block) => phrasing(block.content)),
          })),
        })),
      }
    case 'rawBlock':
      return { type: 'html', value: (node.content ?? []).map(({ text }) => text ?? '').join('') }
    default:
      return { type: 'paragraph', children: phrasing(node.content) } satisfies Paragraph
  }
}

const MARK_ORDER = ['link', 'bold', 'italic', 'strike', 'code']

/** Runs of text with equal outer marks are written inside one of them, so that no marks stand against one another. */
function phrasing(content: readonly DocumentNode[] = [], depth = 0): PhrasingContent[] {
  const parts: PhrasingContent[] = []
  for (let i = 0; i < content.length; ) {
    const node = content[i]!
    const mark = sorted(node)[depth]
    if (node.type === 'notePicture') {
      const { src, alt, title } = node.attrs ?? {}
      parts.push({
        type: 'image',
        url: String(src ?? ''),
        alt: String(alt ?? ''),
        title: (title as string | null) ?? null,
      })
      i++
    } else if (node.type === 'hardBreak') {
      parts.push({ type: 'break' })
      i++
    } else if (!mark) {
      parts.push({ type: 'text', value: node.text ?? '' })
      i++
    } else {
      const key = JSON.stringify(mark)
      let end = i + 1
      while (end < content.length && JSON.stringify(sorted(content[end]!)[depth]) === key) end++
      parts.push(marked(mark, content.slice(i, end), depth + 1))
      i = end
    }
  }
  return parts
}

const sorted = (node: DocumentNode): Marks =>
  [...(node.marks ?? [])].sort((a, b) => MARK_ORDER.indexOf(a.type) - MARK_ORDER.indexOf(b.type))

function marked(mark: Marks[number], run: readonly DocumentNode[], depth: number): PhrasingContent {
  switch (mark.type) {
    case 'code':
      return { type: 'inlineCode', value: run.map(({ text }) => text ?? '').join('') }
    case 'link':
      return {
        type: 'link',
        url: String(mark.attrs?.href ?? ''),
        title: (mark.attrs?.title as string | null) ?? null,
        children: phrasing(run, depth) as never,
      }
    case 'italic':
      return { type: 'emphasis', children: phrasing(run, depth) }
    case 'strike':
      return { type: 'delete', children: phrasing(run, depth) }
    default:
      return { type: 'strong', children: phrasing(run, depth) }
  }
}
