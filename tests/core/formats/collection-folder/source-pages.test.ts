import { tests as examples } from 'commonmark-spec'
import { expect, test } from 'vitest'
import { importPages } from '../../../../src/core/commands/import-pages'
import { setText } from '../../../../src/core/commands/set-text'
import { writeNote } from '../../../../src/core/commands/write-note'
import { readFolder } from '../../../../src/core/formats/collection-folder/read-folder'
import { writeFolder } from '../../../../src/core/formats/collection-folder/write-folder'
import { Records } from '../../../../src/core/records/records'
import { COLLECTION, contents, Garden, refusal } from '../../gardens'

function imported(pages: { path: string; text: string }[]): Garden {
  const garden = new Garden()
  garden.do((r, m) => importPages(r, { collection: COLLECTION, pages, files: new Map() }, m))
  return garden
}

/** The page of the first map in a folder, and the records that come back from it. */
function exported({ records, newIds }: Garden) {
  const { texts } = writeFolder(records, COLLECTION)
  const back = new Records()
  const folder = readFolder({ text: (path) => texts.find((text) => text.path === path)?.text }, newIds.newId)
  for (const { kind, record } of folder.records) back.put(kind, record as never)
  return { page: texts.find(({ path }) => path.endsWith('.md'))!.text, back }
}

test('every example of the specification that says something comes in as a page and goes out as the same text', () => {
  const differing: number[] = []
  let [empty, count] = [0, 0]
  for (const { number, markdown } of examples) {
    const path = `example-${number}.md`
    const text = markdown.replaceAll('→', '\t')
    if (refusal(() => imported([{ path, text }])) !== '') {
      empty++
      continue
    }
    count++
    const garden = imported([{ path, text }])
    const { page, back } = exported(garden)
    if (page !== text) differing.push(number)
    expect([number, contents(back)]).toEqual([number, contents(garden.records)])
  }
  expect(differing).toEqual([])
  // What is refused as a page without text: rules, definitions of links, comments, empty lines.
  expect([count, empty]).toEqual([637, 15])
})

test('a map that says something else by now goes out as it is', () => {
  const text = 'Long ago\n========\n\n* One\n* Two\n\n  See [it](b.md).\n'
  const garden = imported([
    { path: 'a.md', text },
    { path: 'b.md', text: '# Other\n' },
  ])
  const page = () => exported(garden).page
  expect(page()).toBe(text)
  garden.do((r, m) => setText(r, { topic: garden.topic('One'), text: 'First' }, m))
  expect(page()).toContain('- First')
  garden.do((r, m) => setText(r, { topic: garden.topic('First'), text: 'One' }, m))
  expect(page()).toBe(text)
  const note = garden.records.need('note', garden.records.need('topic', garden.topic('Two')).note).text
  garden.do((r, m) => writeNote(r, { topic: garden.topic('Two'), base: note, text: `${note}\n\nOurs.` }, m))
  expect(page()).toContain('Ours.')
  expect(exported(garden).back.need('topic', garden.topic('Two')).note).not.toBeNull()
})
