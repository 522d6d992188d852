import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { readFolder } from '../../src/core/formats/collection-folder/read-folder'
import { readOwnAddress } from '../../src/core/formats/own-address'
import { Records } from '../../src/core/records/records'
import { findPassage } from '../../src/core/text/passage'

const DEMO = join(import.meta.dirname, '../../demo/vennmoor')
const paths = new Set(readdirSync(DEMO, { recursive: true }).map(String))
const folder = readFolder(
  { text: (path) => (paths.has(path) ? readFileSync(join(DEMO, path), 'utf8') : undefined) },
  () => {
    throw new Error('Everything in the demo has its id.')
  },
)
const records = new Records()
for (const { kind, record } of folder.records) records.put(kind, record as never)
for (const { record } of folder.files) records.put('file', record)
const notes = [...records.all('note')].map(({ text }) => text)
const topics = [...records.all('topic')]

/** What the demo shows, in words, with how much of it there is. */
const SHOWN: Record<string, number> = {
  'notes with headings': notes.filter((text) => /^## /m.test(text)).length,
  'notes with a task list': notes.filter((text) => /^- \[[ x]\] /m.test(text)).length,
  'notes with a table': notes.filter((text) => /^\| --- /m.test(text)).length,
  'notes with code': notes.filter((text) => text.includes('```')).length,
  'notes with a quotation': notes.filter((text) => /^> /m.test(text)).length,
  'notes with a picture': notes.filter((text) => /!\[[^\]]*\]\(folvet:file/.test(text)).length,
  'notes on several topics': [...records.all('note')].filter(({ id }) => records.carriersOf(id).length > 1).length,
  'notes on maps': topics.filter(({ place, note }) => place.kind === 'root' && note).length,
  'notes on enclosures': [...records.all('enclosure')].filter(({ note }) => note !== '').length,
  'pages that were brought in': [...records.all('page')].length,
  'ideas to be placed': topics.filter(({ place }) => place.kind === 'to place').length,
  'files with an earlier version': [...records.all('attachment')].filter(({ earlier }) => earlier.length > 0).length,
  'sources that were read': [...records.all('attachment')].filter(({ read }) => read).length,
  'pictures on topics': topics.filter(({ picture }) => picture).length,
  'charts on topics': topics.filter(({ picture }) => records.get('file', picture?.file ?? null)?.name.includes('chart'))
    .length,
  'mail addresses': [...records.all('weblink')].filter(({ url }) => url.startsWith('mailto:')).length,
  'equal addresses':
    [...records.all('weblink')].length - new Set([...records.all('weblink')].map(({ url }) => url)).size,
  'open comments': [...records.all('comment')].filter(({ answers, resolved }) => !answers && !resolved).length,
  'settled comments': [...records.all('comment')].filter(({ resolved }) => resolved).length,
  'comments on words of a note': [...records.all('comment')].filter(({ quote }) => quote !== '').length,
  'tags with a hue': [...records.all('tag')].length,
  'topics with a tag': topics.filter(({ tags }) => tags.length > 0).length,
  'tasks begun': topics.filter(({ task }) => task === 'begun').length,
  'times of day': topics.filter(({ dates }) => dates?.from).length,
  'dates that repeat': topics.filter(({ dates }) => dates?.repeats).length,
  'who does it': topics.filter(({ work }) => (work?.who?.length ?? 0) > 0).length,
  effort: topics.filter(({ work }) => work?.effort).length,
  progress: topics.filter(({ work }) => work?.progress).length,
  'gathered lists': topics.filter(({ gathers }) => gathers).length,
  'kept searches': [...records.all('search')].length,
}

test.each(Object.entries(SHOWN))('the demo shows %s', (_, count) => expect(count).toBeGreaterThan(0))

test('what its notes lead to is there: topics, maps, files, their pages, and words of other notes', () => {
  const ways = notes.flatMap((text) =>
    [...text.matchAll(/folvet:[^)\s]+/g)].map(([address]) => readOwnAddress(address) ?? address),
  )
  const seen = new Set<string>()
  for (const way of ways) {
    if (typeof way === 'string') throw new Error(`${way} is no address.`)
    expect(records.get(way.kind, way.id)?.trashed, JSON.stringify(way)).toBe(false)
    seen.add(way.kind)
    if (way.kind === 'file' && way.page !== null) seen.add('page')
    if (way.kind !== 'topic' || way.passage === null) continue
    const note = records.get('note', records.need('topic', way.id).note)
    expect(findPassage(note?.text ?? '', way.passage), way.passage).not.toBeNull()
    seen.add('words')
  }
  expect([...seen].sort()).toEqual(['file', 'map', 'page', 'topic', 'words'])
})

test('what is said about words of a note is about words that stand there', () => {
  for (const { topic, quote } of records.all('comment'))
    if (quote !== '')
      expect(records.get('note', records.need('topic', topic).note)?.text.replace(/\s+/g, ' ')).toContain(quote)
})
