import type { Nodes, PhrasingContent, RootContent } from 'mdast'
import type { MergeCounts, MergedTopic, MergeReport } from '../commands/merge-maps'
import { writeCommonMark } from '../text/write-commonmark'

/** What each count of a merge counts, as it is told, in the order of telling. */
export const COUNTED: Record<keyof MergeCounts, string> = {
  joined: 'topics joined with one that was there',
  added: 'topics added',
  notesAdded: 'notes added',
  notesCombined: 'notes set after the one that was there',
  notesEqual: 'notes that were the same',
  files: 'files taken over',
  weblinks: 'web links taken over',
  crosslinks: 'cross-links taken over',
  led: 'links and doorways that lead here now',
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
      row.act === 'join' ? 'joined with' : 'added below',
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
  const told = (Object.keys(COUNTED) as (keyof MergeCounts)[]).filter((key) => counts[key] > 0)
  const ofAct = (act: MergedTopic['act']) =>
    rows.filter((row) => row.act === act).map((row): PhrasingContent[] => lineOf(row))
  const [joined, added] = [ofAct('join'), ofAct('add')]
  const page: Nodes = {
    type: 'root',
    children: [
      heading(1, title),
      list(told.map((key) => [text(`${counts[key]} ${COUNTED[key]}`)])),
      ...(joined.length > 0 ? [heading(2, 'Joined'), list(joined)] : []),
      ...(added.length > 0 ? [heading(2, 'Added'), list(added)] : []),
    ],
  }
  return writeCommonMark(page)
}

function lineOf(row: MergedTopic): PhrasingContent[] {
  const name: PhrasingContent = { type: 'strong', children: [text(row.text || 'Untitled')] }
  const at = row.at || 'Untitled'
  if (row.act === 'add') return [name, text(` of ${row.from.title}, below ${at}`)]
  const both = row.conflicts.length > 0 ? `; both said their own ${row.conflicts.join(', ')}` : ''
  const taken = row.taken.length > 0 ? `, taken from the source: ${row.taken.join(', ')}` : ''
  return [name, text(` of ${row.from.title}, with ${at} (${sureWords(row)}: ${row.why})${both}${taken}`)]
}
