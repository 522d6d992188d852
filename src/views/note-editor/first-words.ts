import { type DocumentNode, readNote } from '../../core/text/note-document'

/** Some line of a text is an item of a list. */
export const LIST = /^\s*(?:[-*+]|\d{1,9}[.)])\s+\S/m

/** A last line in which an item of a list was begun, and nothing written yet. */
const BEGUN = /(?:^|\n)[^\S\n]*(?:([-*+])|\d{1,9}[.)])[^\S\n]+$/

const paragraph = (line: string): DocumentNode => ({
  type: 'paragraph',
  content: line ? [{ type: 'text', text: line }] : [],
})

/**
 * What was written or pasted into a plain field as the editor would have it: a list is one here too, also where its item was only begun
 * when the editor came. Linear in the words.
 */
export function blocksOf(words: string): DocumentNode[] {
  const begun = BEGUN.exec(words)
  const whole = begun ? words.slice(0, begun.index) : words
  const blocks = LIST.test(whole)
    ? [...readNote(whole).blocks]
    : whole === '' && begun
      ? []
      : whole.split('\n').map(paragraph)
  if (!begun) return blocks
  const type = begun[1] ? 'bulletList' : 'orderedList'
  const item: DocumentNode = { type: 'listItem', content: [paragraph('')] }
  const last = blocks.at(-1)
  if (last?.type === type) return [...blocks.slice(0, -1), { ...last, content: [...(last.content ?? []), item] }]
  return [...blocks, { type, content: [item] }]
}
