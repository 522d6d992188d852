import { expect, test } from 'vitest'
import { NewChange } from '../../../src/core/commands/command'
import { splitOff } from '../../../src/core/commands/split-off'
import { trashBranches } from '../../../src/core/commands/trash-branches'
import { plot } from '../gardens'

test('only the heads of branches are marked, and a map whose home doorway goes with them loses it', () => {
  const { garden } = plot()
  const [summer, beans] = [garden.topic('Summer'), garden.topic('Pick beans')]
  garden.do((r, n) => splitOff(r, { topic: beans }, n))
  const child = garden.records.need('topic', beans).opensMap!
  const change = new NewChange(garden.records, garden.newIds)
  trashBranches(change, [change.topic(summer)])
  expect(change.records.need('topic', summer).trashed).toBe(true)
  expect(change.records.need('topic', beans).trashed).toBe(false)
  expect(change.records.need('map', child)).toMatchObject({ homeDoorway: null, trashed: false })
})
