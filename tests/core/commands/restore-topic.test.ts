import { expect, test } from 'vitest'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { plot } from '../gardens'

test('what was put into the trash with its head comes back with it', () => {
  const { garden, map } = plot()
  const summer = garden.topic('Summer')
  const before = garden.text(map)
  const { select } = garden.do((records, newIds) =>
    deleteTopics(records, { topics: [summer, garden.topic('Dwarf')] }, newIds),
  )
  expect(select).toEqual([garden.topic('Autumn')])
  expect(garden.text(map)).not.toContain('Dwarf')
  garden.do((records, newIds) => restoreTopic(records, { topic: summer }, newIds))
  expect(garden.text(map)).toBe(before)
})
