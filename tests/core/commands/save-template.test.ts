import { expect, test } from 'vitest'
import { removeTemplate, saveTemplate } from '../../../src/core/commands/save-template'
import { setDates } from '../../../src/core/commands/set-dates'
import { makeMapFrom } from '../../../src/core/commands/use-template'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { COLLECTION, Garden } from '../gardens'

test('a branch is kept as a template with notes, links and the distance of its dates, and used again', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n    In rows\n  Prune')
  const [spring, peas, prune] = ['Spring', 'Sow peas', 'Prune'].map((text) => garden.topic(text))
  garden.do((r, m) => writeNote(r, { topic: peas!, base: '', text: 'Early.' }, m))
  garden.do((r, m) => addWeblink(r, { topic: prune!, url: 'example.org', title: 'How' }, m))
  garden.do((r, m) => setDates(r, { topics: [peas!], dates: { start: '2026-03-10', end: null } }, m))
  garden.do((r, m) => setDates(r, { topics: [prune!], dates: { start: '2026-03-01', end: null } }, m))
  for (const name of ['Beds', ' Beds ']) garden.do((r, m) => saveTemplate(r, { topic: spring!, name }, m))
  const kept = [...garden.records.all('template')]
  expect(kept).toHaveLength(1)
  expect(kept[0]!.lines.map(({ level, text, day }) => [level, text, day])).toEqual([
    [0, 'Sow peas', 9],
    [1, 'In rows', null],
    [0, 'Prune', 0],
  ])
  const args = { collection: COLLECTION, title: 'Allotment', template: kept[0]!.id, today: '2027-01-01' }
  const { select } = garden.do((r, m) => makeMapFrom(r, args, m))
  const made = garden.records.children(select[0]!)
  expect(made.map(({ text, dates }) => [text, dates?.start])).toEqual([
    ['Sow peas', '2027-01-10'],
    ['Prune', '2027-01-01'],
  ])
  expect(garden.records.get('note', made[0]!.note)?.text).toBe('Early.')
  expect(garden.records.weblinks(made[1]!.id).map(({ title }) => title)).toEqual(['How'])
  garden.do((r, m) => removeTemplate(r, { template: kept[0]!.id }, m))
  expect(() => garden.do((r, m) => makeMapFrom(r, args, m))).toThrow('no such template')
  expect(() => garden.do((r, m) => saveTemplate(r, { topic: prune!, name: 'None' }, m))).toThrow('nothing below')
  expect(garden.text(map)).toContain('Sow peas')
})
