import MarkdownIt, { type Env, type Token } from 'markdown-it'
import { trimEndOf } from './trim-end'

/**
 * CommonMark 0.31 with the tables, task lists, strikethrough and bare addresses of GFM, as a tree. The only file that knows
 * the parser, and the only reader of notes, imported pages, pasted text and the site.
 */

/** Lines of the source from which a block was read: from the first to before the last, counted from 0. */
interface Lines {
  from: number
  to: number
}

export type Block =
  | ({ type: 'paragraph'; content: Inline[] } & Lines)
  | ({ type: 'heading'; level: number; content: Inline[] } & Lines)
  | ({ type: 'quote'; blocks: Block[] } & Lines)
  | ({ type: 'list'; start: number | null; isTight: boolean; items: ListItem[] } & Lines)
  | ({ type: 'code'; language: string; text: string } & Lines)
  | ({ type: 'rule' } & Lines)
  | ({ type: 'table'; align: (string | null)[]; rows: Inline[][][] } & Lines)
  /** HTML as it stands in the source; nothing of it is ever run. */
  | ({ type: 'html'; text: string } & Lines)

export interface ListItem extends Lines {
  /** Whether its box is ticked; null for an item that is no task. */
  isDone: boolean | null
  blocks: Block[]
}

export type Inline =
  | { type: 'text'; text: string }
  | { type: 'code'; text: string }
  | { type: 'break' }
  /** The end of a line of the source inside a paragraph. */
  | { type: 'line end' }
  | { type: 'strong' | 'emphasis' | 'strike'; content: Inline[] }
  | { type: 'link'; address: string; title: string | null; content: Inline[] }
  | { type: 'picture'; address: string; title: string | null; words: string }
  | { type: 'html'; text: string }

/** Deepest nesting of quotes and lists that is read; see `isTooMuch`. */
const MOST_LEVELS = 600
/** Deepest nesting of brackets, and of marks, that is read: beyond it they are text, or their words without the mark. */
const MOST_INLINE_LEVELS = 10
const MOST_MARKS = 20
/** Most lines of a text that is read. */
const MOST_LINES = 40_000
/** Longest paragraph, heading or cell in which marks are read, in letters. */
const MOST_INLINE = 30_000

const inlineParser = new MarkdownIt({ html: true, maxNesting: MOST_INLINE_LEVELS })
// Addresses stand as they are written; whoever shows them decides which may be followed.
inlineParser.normalizeLink = (address) => address
inlineParser.validateLink = () => true

/** Blocks nest deeper than brackets may, so each has a parser of its own. */
const blockParser = new MarkdownIt({ html: true, maxNesting: 3 * MOST_LEVELS })
blockParser.normalizeLink = inlineParser.normalizeLink
blockParser.validateLink = inlineParser.validateLink
blockParser.core.ruler.enableOnly(['normalize', 'block'])

/**
 * Whether a text is more than is read: nested over 600 levels deep, or of more than 40,000 lines. It is then taken as the
 * plain text that it is. Linear.
 */
export function isTooMuch(text: string): boolean {
  let lines = 0
  for (let start = 0; start <= text.length; ) {
    if (++lines > MOST_LINES) return true
    let end = text.indexOf('\n', start)
    if (end < 0) end = text.length
    let levels = 0
    let blanks = 0
    for (let i = start; i < end; i++) {
      const sign = text[i]!
      if (sign === ' ') blanks++
      else if (sign === '\t') blanks += 4
      else if (sign === '>' || (isBullet(sign) && isBlank(text[i + 1]))) levels++
      else if (!isDigit(sign) && !((sign === '.' || sign === ')') && isDigit(text[i - 1]))) break
    }
    if (levels + blanks / 2 > MOST_LEVELS) return true
    start = end + 1
  }
  return false
}
const isBullet = (sign: string) => sign === '-' || sign === '*' || sign === '+'
const isBlank = (sign: string | undefined) => sign === undefined || sign === ' ' || sign === '\t' || sign === '\n'
const isDigit = (sign: string | undefined) => sign !== undefined && sign >= '0' && sign <= '9'

/**
 * Reads a text. Any text is CommonMark, so this never fails; call it only with what is not too much (`isTooMuch`).
 * Linear, also in hostile text. Line ends are `\n`, or become so.
 */
export function readCommonMark(text: string): Block[] {
  const env: Env = {}
  return new TreeBuilder(env).blocks(blockParser.parse(text, env))
}

class TreeBuilder {
  private tokens: readonly Token[] = []
  private at = 0
  /** The lists around what is read, the nearest one last. */
  private readonly lists: { itemLevel: number; isTight: boolean }[] = []

  constructor(private readonly env: Env) {}

  blocks(tokens: readonly Token[]): Block[] {
    this.tokens = tokens
    this.at = 0
    return this.until(null)
  }

  /** The blocks up to a closing token, which is passed. */
  private until(close: string | null): Block[] {
    const blocks: Block[] = []
    while (this.at < this.tokens.length) {
      const token = this.tokens[this.at++]!
      if (token.type === close) break
      const block = this.block(token)
      if (block) blocks.push(block)
    }
    return blocks
  }

  private block(token: Token): Block | null {
    const lines = linesOf(token)
    switch (token.type) {
      case 'paragraph_open':
        this.noteSpace(token)
        return { type: 'paragraph', content: this.inline(), ...lines }
      case 'heading_open':
        return { type: 'heading', level: Number(token.tag.slice(1)), content: this.inline(), ...lines }
      case 'blockquote_open':
        return { type: 'quote', blocks: this.until('blockquote_close'), ...lines }
      case 'bullet_list_open':
      case 'ordered_list_open':
        return this.list(token, lines)
      case 'fence':
        return {
          type: 'code',
          language: languageOf(token),
          text: endless(token.content),
          ...lines,
        }
      case 'code_block':
        return { type: 'code', language: '', text: endless(token.content), ...lines }
      case 'hr':
        return { type: 'rule', ...lines }
      case 'html_block':
        return { type: 'html', text: endless(token.content), ...lines }
      case 'table_open':
        return this.table(lines)
      default:
        return null
    }
  }

  /** The words between an opening and a closing token. */
  private inline(): Inline[] {
    const token = this.tokens[this.at]
    this.at += 2
    return token ? readInline(token.content, this.env) : []
  }

  private list(open: Token, lines: Lines): Block {
    const items: ListItem[] = []
    const list = { itemLevel: open.level + 1, isTight: true }
    this.lists.push(list)
    while (this.at < this.tokens.length) {
      const token = this.tokens[this.at++]!
      if (token.type !== 'list_item_open') break
      const blocks = this.until('list_item_close')
      items.push({ isDone: takeBox(blocks), blocks, ...linesOf(token) })
    }
    this.lists.pop()
    const start = open.type === 'ordered_list_open' ? Number(open.attrGet('start') ?? 1) : null
    return { type: 'list', start, isTight: list.isTight, items, ...lines }
  }

  /** The parser hides the paragraphs of tight lists. */
  private noteSpace({ level, hidden }: Token): void {
    const list = this.lists.at(-1)
    if (list && !hidden && level === list.itemLevel + 1) list.isTight = false
  }

  private table(lines: Lines): Block {
    const rows: Inline[][][] = []
    const align: (string | null)[] = []
    for (let token = this.tokens[this.at++]; token && token.type !== 'table_close'; token = this.tokens[this.at++]) {
      if (token.type === 'tr_open') rows.push([])
      if (token.type !== 'th_open' && token.type !== 'td_open') continue
      if (rows.length === 1) align.push(/text-align:(\w+)/.exec(String(token.attrGet('style') ?? ''))?.[1] ?? null)
      rows.at(-1)!.push(this.inline())
    }
    return { type: 'table', align, rows, ...lines }
  }
}

const linesOf = ({ map }: Token): Lines => ({ from: map?.[0] ?? 0, to: map?.[1] ?? 0 })
const languageOf = ({ info }: Token) => blockParser.utils.unescapeAll(info.trim().split(/\s+/)[0] ?? '')
const endless = (text: string) => text.replace(/\n$/, '')

/** Takes the box of a task off the beginning of an item; null where there is none. */
function takeBox(blocks: readonly Block[]): boolean | null {
  const [first] = blocks
  const words = first?.type === 'paragraph' ? first.content[0] : undefined
  const box = words?.type === 'text' ? /^\[([ xX])\] +(?=\S)/.exec(words.text) : null
  if (!box || words?.type !== 'text') return null
  words.text = words.text.slice(box[0].length)
  return box[1] !== ' '
}

function readInline(text: string, env: Env): Inline[] {
  if (text.length > MOST_INLINE) return plainLines(text)
  const tokens: Token[] = []
  inlineParser.inline.parse(text, inlineParser, env, tokens)
  return inlineTree(tokens)
}

const plainLines = (text: string): Inline[] =>
  text.split('\n').flatMap((line, i): Inline[] => {
    const words: Inline = { type: 'text', text: line }
    return i === 0 ? [words] : [{ type: 'line end' }, words]
  })

const MARKS: Record<string, 'strong' | 'emphasis' | 'strike'> = {
  strong_open: 'strong',
  em_open: 'emphasis',
  s_open: 'strike',
}

/** Builds the tree with a stack of its own, so that marks inside marks are no matter of the call stack. */
function inlineTree(tokens: readonly Token[]): Inline[] {
  const top: Inline[] = []
  const open: Inline[][] = [top]
  let links = 0
  for (const token of tokens) {
    const into = open.at(-1)!
    const mark = MARKS[token.type]
    if (token.type === 'link_open') links++
    if (token.type === 'link_close') links--
    if (token.nesting < 0) open.pop()
    else if ((mark || token.type === 'link_open') && open.length > MOST_MARKS) open.push(into)
    else if (mark || token.type === 'link_open') {
      const content: Inline[] = []
      into.push(mark ? { type: mark, content } : linkOf(token, content))
      open.push(content)
    } else if (token.type === 'text' || token.type === 'text_special') pushText(into, token.content, links > 0)
    else into.push(leafOf(token))
  }
  return top
}

const linkOf = (token: Token, content: Inline[]): Inline => ({
  type: 'link',
  address: String(token.attrGet('href') ?? ''),
  title: token.attrGet('title') === null ? null : String(token.attrGet('title')),
  content,
})

function leafOf(token: Token): Inline {
  switch (token.type) {
    case 'code_inline':
      return { type: 'code', text: token.content }
    case 'softbreak':
      return { type: 'line end' }
    case 'hardbreak':
      return { type: 'break' }
    case 'image':
      return {
        type: 'picture',
        address: String(token.attrGet('src') ?? ''),
        title: token.attrGet('title') === null ? null : String(token.attrGet('title')),
        words: inlineWords(inlineTree(token.children ?? [])),
      }
    default:
      return { type: 'html', text: token.content }
  }
}

const SENTENCE_ENDS = '.,;:!?\'"*_~'
/** Bare addresses in a text, up to white space, without the punctuation that ends a sentence. */
const ADDRESS = /\b(?:https?:\/\/|mailto:)[^\s<>]{1,2000}/gi

/** Adds words, joined with those before; bare addresses become links, but not inside of one. */
function pushText(into: Inline[], text: string, isInside: boolean): void {
  if (text === '') return
  let at = 0
  if (!isInside && text.includes(':'))
    for (const { index, 0: found } of text.matchAll(ADDRESS)) {
      const address = trimEndOf(found, SENTENCE_ENDS)
      const whole = address.includes('(') ? address : trimEndOf(address, `${SENTENCE_ENDS})`)
      if (!/^(?:https?:\/\/|mailto:)[^\s/?#:]/i.test(whole)) continue
      pushWords(into, text.slice(at, index))
      into.push({ type: 'link', address: whole, title: null, content: [{ type: 'text', text: whole }] })
      at = index + whole.length
    }
  pushWords(into, text.slice(at))
}

function pushWords(into: Inline[], text: string): void {
  const last = into.at(-1)
  if (last?.type === 'text') last.text += text
  else if (text !== '') into.push({ type: 'text', text })
}

/** What a reader without marks reads. Line ends become spaces. */
export function inlineWords(content: readonly Inline[]): string {
  let words = ''
  for (const part of content)
    switch (part.type) {
      case 'text':
      case 'code':
        words += part.text
        break
      case 'break':
      case 'line end':
        words += ' '
        break
      case 'strong':
      case 'emphasis':
      case 'strike':
      case 'link':
        words += inlineWords(part.content)
        break
      case 'picture':
        words += part.words
        break
      case 'html':
        if (/^<br\b/i.test(part.text)) words += ' '
        break
      default:
        part satisfies never
    }
  return words
}

/** All links and pictures in some content, in order. */
export function* linksIn(content: readonly Inline[]): Generator<Extract<Inline, { address: string }>> {
  for (const part of content) {
    if (part.type === 'link' || part.type === 'picture') yield part
    if ('content' in part) yield* linksIn(part.content)
  }
}

/** All pieces of words in some blocks, at any depth. */
export function* contentsIn(blocks: readonly Block[]): Generator<readonly Inline[]> {
  for (const block of blocks)
    switch (block.type) {
      case 'paragraph':
      case 'heading':
        yield block.content
        break
      case 'quote':
        yield* contentsIn(block.blocks)
        break
      case 'list':
        for (const item of block.items) yield* contentsIn(item.blocks)
        break
      case 'table':
        for (const row of block.rows) yield* row
        break
      case 'code':
      case 'html':
      case 'rule':
        break
      default:
        block satisfies never
    }
}
