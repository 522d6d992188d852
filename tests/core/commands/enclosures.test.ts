import { expect, test } from 'vitest'
import { changeEnclosure, encloseTopics, removeEnclosure } from '../../../src/core/commands/enclosures'
import { plot, refusal } from '../gardens'

test('enclosures hold a branch or neighbours with what stands between, inside one another but never crossing', () => {
  const { garden } = plot()
  const [spring, summer, autumn] = ['Spring', 'Summer', 'Autumn'].map((text) => garden.topic(text))
  const enclose = (topics: NonNullable<typeof spring>[], title = '') =>
    garden.do((records, newIds) => encloseTopics(records, { topics, title }, newIds))
  enclose([spring!, autumn!], ' Seasons ')
  const [seasons] = garden.records.enclosuresOf(summer!)
  expect(seasons).toMatchObject({ topics: [spring, summer, autumn], title: 'Seasons' })
  enclose([summer!, autumn!])
  expect(garden.records.enclosuresOf(summer!)).toHaveLength(2)
  expect(refusal(() => enclose([spring!, summer!]))).toBe('This enclosure would cross another one.')
  expect(refusal(() => enclose([spring!, garden.topic('Dwarf')]))).toContain('hang on the same topic')
  garden.do((records, newIds) =>
    changeEnclosure(
      records,
      { enclosure: seasons!.id, title: 'Year', note: 'All of it.', tone: 3, look: { line: 'dashed' } },
      newIds,
    ),
  )
  expect(garden.records.need('enclosure', seasons!.id)).toMatchObject({
    title: 'Year',
    note: 'All of it.',
    tone: 3,
    look: { line: 'dashed' },
  })
  garden.do((records, newIds) => removeEnclosure(records, { enclosure: seasons!.id }, newIds))
  expect(garden.records.enclosuresOf(spring!)).toEqual([])
})
