import { expect, test } from 'vitest'
import { applyEdits, revertEdits } from '../../../src/core/changes/edit'
import { addTopic } from '../../../src/core/commands/add-topic'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { evenOutSides, holdSides, withEvenSides } from '../../../src/core/commands/even-out-sides'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { type Side, sideOf } from '../../../src/core/records/place'
import { contents, Garden } from '../gardens'

const sidesOf = (garden: Garden) =>
  Object.fromEntries(
    garden.records.children(garden.topic('Garden')).map((topic) => [topic.text, sideOf(topic)]),
  ) as Record<string, Side>

test('a branch that is held stays when sides are evened out', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  a\n  b\nSummer\nAutumn\nWinter')
  expect(sidesOf(garden).Spring).toBe('right')
  garden.do((r, m) => holdSides(r, { topics: [garden.topic('Winter')], held: true }, m))
  const before = sidesOf(garden).Winter
  garden.do((r, m) => evenOutSides(r, { map }, m))
  expect(sidesOf(garden).Winter).toBe(before)
})

test('a map that a change would leave lopsided is evened out by the same change, and back by its undo', () => {
  const garden = new Garden()
  garden.grow(`Garden\n${['a', 'b', 'c', 'd'].map((name) => `${name}\n${'  x\n'.repeat(8)}`).join('')}`)
  const left = garden.records.children(garden.topic('Garden')).filter((topic) => sideOf(topic) === 'left')
  const { change } = deleteTopics(garden.records, { topics: left.map(({ id }) => id) }, garden.newIds)
  const before = contents(garden.records)
  const together = withEvenSides(garden.records, change)
  expect(contents(garden.records)).toEqual(before)
  expect(together.change.edits.length).toBeGreaterThan(change.edits.length)
  expect(together.went).toEqual([{ topic: garden.topic('a'), text: 'a', side: 'left' }])
  applyEdits(garden.records, together.change.edits)
  expect(sidesOf(garden)).toEqual({ a: 'left', b: 'right' })
  revertEdits(garden.records, together.change.edits)
  expect(contents(garden.records)).toEqual(before)
})

test('small differences, and branches that somebody puts on a side, are left alone', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  a\nSummer\n  b')
  const added = addTopic(garden.records, { parent: garden.topic('Spring'), after: 'last', text: 'c' }, garden.newIds)
  expect(withEvenSides(garden.records, added.change)).toEqual({ change: added.change, went: [] })
  const large = new Garden()
  large.grow(`Garden\n${['a', 'b'].map((name) => `${name}\n${'  x\n'.repeat(9)}`).join('')}`)
  const moved = moveTopics(
    large.records,
    { topics: [large.topic('b')], parent: large.topic('Garden'), after: 'last', side: 'right' },
    large.newIds,
  )
  expect(withEvenSides(large.records, moved.change)).toEqual({ change: moved.change, went: [] })
})
