import type { TopicId } from '../records/ids'
import type { Records } from '../records/records'
import { indentOf } from './indented-text'

/** Stands for a line break inside a topic's text, so that a topic is one line. */
const BREAK = ' ⏎ '
const STEP = '  '

/** A line of an outline: how deep it stands (0 hangs on the head) and its text. */
export interface OutlineLine {
  level: number
  text: string
}

/** A topic as one line. */
const lineOf = (text: string): string => text.replaceAll('\n', BREAK)

/** The text of a topic from its line. */
const textOf = (line: string): string => line.replaceAll(/ ?⏎ ?/g, '\n')

/** What hangs below a topic in reading order, as lines with the topics that they are. Folded topics are shown. */
export function linesBelow(records: Records, head: string): (OutlineLine & { topic: TopicId })[] {
  const lines: (OutlineLine & { topic: TopicId })[] = []
  const waiting: { topic: TopicId; text: string; level: number }[] = []
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

/** Lines as an indented list, two spaces a level, that is also a CommonMark list. */
export const writeOutlineText = (lines: readonly OutlineLine[]): string =>
  lines.map(({ level, text }) => `${STEP.repeat(level)}- ${lineOf(text)}`).join('\n')

/**
 * Reads an indented list back: every line that is not empty is a topic and hangs on the nearest line above that is
 * indented less. A bullet before the text is dropped. Never fails. Linear.
 */
export function readOutlineText(text: string): OutlineLine[] {
  const lines: OutlineLine[] = []
  const open: number[] = []
  for (const line of text.split(/\r\n?|\n/)) {
    const words = line.trim()
    if (words === '' || words === '-') continue
    const indent = indentOf(line)
    while (open.length > 0 && open.at(-1)! >= indent) open.pop()
    lines.push({ level: open.length, text: textOf(words.replace(/^[-*+•] +/, '')) })
    open.push(indent)
  }
  return lines
}
