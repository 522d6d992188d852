import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { linksInto } from '../../../src/core/network/leads-into'
import { plot } from '../gardens'

test('links into a branch are told, those within it are not', () => {
  const { garden } = plot()
  const link = (from: string, to: string) =>
    garden.do((r, m) =>
      addCrosslink(r, { from: garden.topic(from), to: { kind: 'topic', id: garden.topic(to) }, drawn: 'quiet' }, m),
    )
  link('Sow peas', 'Dwarf')
  link('Climbing', 'Dwarf')
  link('Dwarf', 'Sow peas')
  const heads = [garden.records.need('topic', garden.topic('Pick beans'))]
  expect(linksInto(garden.records, heads).map(({ from }) => garden.records.need('topic', from).text)).toEqual([
    'Sow peas',
  ])
})
