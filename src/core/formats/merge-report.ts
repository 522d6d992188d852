import type { Nodes, PhrasingContent, RootContent } from 'mdast'
import type { MergeCounts, MergedTopic, MergeReport } from '../commands/merge-maps'
import { writeCommonMark } from '../text/write-commonmark'

/** What each count of a merge counts, one and many of it, in the order of telling. */
const COUNTED: Record<keyof MergeCounts, [one: string, many: string]> = {
  joined: ['topic joined with one that was there', 'topics joined with one that was there'],
  added: ['topic added', 'topics added'],
  notesAdded: ['note added', 'notes added'],
  notesCombined: ['note set after the one that was there', 'notes set after the one that was there'],
  notesEqual: ['note that was the same', 'notes that were the same'],
  files: ['file taken over', 'files taken over'],
  weblinks: ['web link taken over', 'web links taken over'],
  crosslinks: ['cross-link taken over', 'cross-links taken over'],
  led: ['link or doorway that leads here now', 'links and doorways that lead here now'],
}

/** What a merge did, count by count, in words; what there is none of is left out. */
export const countsInWords = (counts: MergeCounts): { count: number; words: string }[] =>
  (Object.keys(COUNTED) as (keyof MergeCounts)[])
    .filter((key) => counts[key] > 0)
    .map((key) => ({ count: counts[key], words: COUNTED[key][counts[key] === 1 ? 0 : 1] }))

/** What happened to a topic of a source, in words, before the text of the one with which or below which it stands. */
export const ACT_WORDS: Record<MergedTopic['act'], string> = {
  join: 'joined with',
  add: 'added below',
  leave: 'left out',
}

const sureWords = ({ sure }: MergedTopic): string => (sure === null ? '' : `${Math.round(sure * 100)} %`)

/** A cell as RFC 4180 writes it. One that a spreadsheet would take for a formula begins with an apostrophe. */
const cell = (text: string): string => `"${(/^[=+@\t\r-]/.test(text) ? `'${text}` : text).replace(/"/g, '""')}"`

/** Every decision of a merge as a row of CSV (RFC 4180), with a line of headings. */
export function mergeReportCsv({ rows }: MergeReport): string {
  const table = [
    ['Topic', 'From', 'What happened', 'At', 'Sure', 'Why', 'Said by both in another way', 'Taken from the source'],
    ...rows.map((row) => [
      row.text,
      row.from.title,
      ACT_WORDS[row.act],
      row.at,
      sureWords(row),
      row.why,
      row.conflicts.join(', '),
      row.taken.join(', '),
    ]),
  ]
  return table.map((line) => `${line.map(cell).join(',')}\r\n`).join('')
}

const text = (value: string): PhrasingContent => ({ type: 'text', value: value.replace(/\s+/g, ' ') })

/** Counts and decisions of a merge as a page of CommonMark. */
export function mergeReportPage({ counts, rows }: MergeReport, title: string): string {
  const heading = (depth: 1 | 2, words: string): RootContent => ({ type: 'heading', depth, children: [text(words)] })
  const list = (lines: PhrasingContent[][]): RootContent => ({
    type: 'list',
    spread: false,
    children: lines.map((children) => ({ type: 'listItem', children: [{ type: 'paragraph', children }] })),
  })
  const ofAct = (act: MergedTopic['act']) =>
    rows.filter((row) => row.act === act).map((row): PhrasingContent[] => lineOf(row))
  const [joined, added, left] = [ofAct('join'), ofAct('add'), ofAct('leave')]
  const page: Nodes = {
    type: 'root',
    children: [
      heading(1, title),
      list(countsInWords(counts).map(({ count, words }) => [text(`${count} ${words}`)])),
      ...(joined.length > 0 ? [heading(2, 'Joined'), list(joined)] : []),
      ...(added.length > 0 ? [heading(2, 'Added'), list(added)] : []),
      ...(left.length > 0 ? [heading(2, 'Left out'), list(left)] : []),
    ],
  }
  return writeCommonMark(page)
}

function lineOf(row: MergedTopic): PhrasingContent[] {
  const name: PhrasingContent = { type: 'strong', children: [text(row.text || 'Untitled')] }
  if (row.act === 'leave') return [name, text(` of ${row.from.title}: ${row.why}`)]
  const at = row.at || 'Untitled'
  if (row.act === 'add') return [name, text(` of ${row.from.title}, below ${at}`)]
  const both = row.conflicts.length > 0 ? `; both said their own ${row.conflicts.join(', ')}` : ''
  const taken = row.taken.length > 0 ? `, taken from the source: ${row.taken.join(', ')}` : ''
  return [name, text(` of ${row.from.title}, with ${at} (${sureWords(row)}: ${row.why})${both}${taken}`)]
}
