import { expect, test } from 'vitest'
import { setBranchLayout } from '../../../src/core/commands/layouts'
import { setDates } from '../../../src/core/commands/set-dates'
import { setTask } from '../../../src/core/commands/set-task'
import { tagTopics } from '../../../src/core/commands/tags'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { sayDays } from '../../../src/views/app/when'
import { holds } from '../../../src/views/sheet/holds'
import { Garden } from '../../core/gardens'

test('sections of the sheet tell what they hold: of one topic its own, of several what is alike', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\nSummer\nAutumn')
  const [spring, summer, autumn] = ['Spring', 'Summer', 'Autumn'].map((text) => garden.topic(text))
  const said = (section: Parameters<typeof holds>[1], ...ids: (typeof spring)[]) =>
    holds(
      garden.records,
      section,
      ids.map((id) => garden.records.need('topic', id!)),
    )
  for (const section of ['note', 'links', 'marks', 'dates', 'layout', 'look', 'files'] as const)
    expect(said(section, spring)).toBe('')
  garden.do((r, m) => writeNote(r, { topic: spring!, base: '', text: 'Sow early, and cover.' }, m))
  garden.do((r, m) => addWeblink(r, { topic: spring!, url: 'example.org', title: '' }, m))
  garden.do((r, m) => tagTopics(r, { topics: [spring!, summer!], name: 'dry' }, m))
  garden.do((r, m) => setDates(r, { topics: [spring!, summer!], dates: { start: '2026-05-04', end: null } }, m))
  garden.do((r, m) => setTask(r, { topics: [spring!], task: 'begun', today: '2026-05-04' }, m))
  garden.do((r, m) => setBranchLayout(r, { topics: [spring!], layout: 'down' }, m))
  expect(said('note', spring)).toBe('4 words')
  expect(said('links', spring)).toBe('1')
  expect(said('marks', spring)).toBe('dry')
  expect(said('dates', spring)).toBe(`${sayDays({ start: '2026-05-04', end: null })}, begun`)
  expect(said('layout', spring)).toBe('top down')
  expect([said('note', spring, summer, autumn), said('note', summer, autumn)]).toEqual(['1 of 3', ''])
  expect([said('marks', spring, summer), said('marks', spring, autumn)]).toEqual(['dry', 'different'])
  expect(said('dates', spring, summer)).toBe('different')
})
