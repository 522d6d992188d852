import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { indentOf } from './indented-text'

/** Stands for a line break inside a topic's text, so that a topic is one line; a sign like it in a text is escaped. */
const BREAK = ' ⏎ '
const LITERAL = '\\⏎'
const STEP = '  '

/** A line of an outline: how deep it stands (0 hangs on the head) and its text. */
export interface OutlineLine {
  level: number
  text: string
}

/** The two forms of the text: an indented list, or CommonMark with headings above lists. Both are read alike. */
export type OutlineForm = 'list' | 'headings'

/** A topic as one line; an empty one is its line break, so that it is seen and not lost. */
const lineOf = (text: string): string => {
  if (text === '') return BREAK.trim()
  return text.includes('⏎') || text.includes('\n') ? text.replaceAll('⏎', LITERAL).replaceAll('\n', BREAK) : text
}

/** The text of a topic from its line. */
const textOf = (line: string): string => {
  if (line !== '' && !line.includes('⏎')) return line
  const text = line.replaceAll(/\\⏎| ?⏎ ?/g, (found) => (found === LITERAL ? '⏎' : '\n'))
  return text.trim() === '' ? '' : text
}

/** A text as it reads back once it was written as a line: what a person has before their eyes. */
export const textAsRead = (text: string): string => textOf(lineOf(text).trim())

/** A line of an outline with the topic that it is. */
export interface TopicLine extends OutlineLine {
  topic: TopicId
}

/** What hangs below a topic in reading order, as lines with the topics that they are. Folded topics are shown. */
export function linesBelow(records: Records, head: string): TopicLine[] {
  const lines: TopicLine[] = []
  const waiting: TopicLine[] = []
  const push = (parent: string, level: number) => {
    const children = records.children(parent)
    for (let i = children.length - 1; i >= 0; i--)
      waiting.push({ topic: children[i]!.id, text: children[i]!.text, level })
  }
  push(head, 0)
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    lines.push(next)
    push(next.topic, next.level + 1)
  }
  return lines
}

/**
 * Lines as an indented list, two spaces a level, that is also a CommonMark list; or with headings for rows of which a topic
 * has others below it, at most two levels deep. Linear.
 */
export function writeOutlineText(lines: readonly OutlineLine[], form: OutlineForm = 'list'): string {
  const headings = form === 'headings' ? headingLines(lines) : null
  let heading = 0
  return lines
    .map(({ level, text }, i) => {
      if (!headings?.has(i)) return `${STEP.repeat(level - heading)}- ${lineOf(text)}`
      heading = level + 1
      const gap = i > 0 && !headings.has(i - 1) ? '\n' : ''
      return `${gap}${'#'.repeat(heading)} ${lineOf(text)}`
    })
    .join('\n')
}

const MOST_HEADINGS = 2

/** Which lines are headings: all of a row of siblings, where the row above is so and one of them has others below it. */
function headingLines(lines: readonly OutlineLine[]): Set<number> {
  const parents: number[] = []
  const parentOf = new Int32Array(lines.length)
  const deep = new Set<number>()
  lines.forEach(({ level }, i) => {
    parents.length = level
    parentOf[i] = parents.at(-1) ?? -1
    parents.push(i)
    if (level > 0) deep.add(parentOf[parentOf[i]!] ?? -1)
  })
  const headings = new Set<number>()
  lines.forEach(({ level }, i) => {
    const parent = parentOf[i]!
    if (level < MOST_HEADINGS && deep.has(parent) && (parent < 0 || headings.has(parent))) headings.add(i)
  })
  return headings
}

const HEADING = /^(#{1,6})(?:\s+(.*))?$/

/**
 * Reads either form back. A heading hangs on the nearest heading above that is higher. Any other line that is not empty
 * is a topic too and hangs on the nearest line above that is indented less, or on the heading. A bullet before the text
 * is dropped. Never fails. Linear.
 */
export function readOutlineText(text: string): OutlineLine[] {
  const lines: OutlineLine[] = []
  const headings: number[] = []
  const open: number[] = []
  for (const line of text.split(/\r\n?|\n/)) {
    const words = line.trim()
    if (words === '' || words === '-') continue
    const indent = indentOf(line)
    const [, hashes, title = ''] = (indent === 0 && HEADING.exec(words)) || []
    if (hashes) {
      if (title === '') continue
      while (headings.length > 0 && headings.at(-1)! >= hashes.length) headings.pop()
      open.length = 0
      lines.push({ level: headings.length, text: textOf(title) })
      headings.push(hashes.length)
      continue
    }
    while (open.length > 0 && open.at(-1)! >= indent) open.pop()
    lines.push({ level: headings.length + open.length, text: textOf(words.replace(/^[-*+•] +/, '')) })
    open.push(indent)
  }
  return lines
}
