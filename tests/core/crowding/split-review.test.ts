import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { splitOffAll, splitOffRow } from '../../../src/core/commands/split-off'
import { judge } from '../../../src/core/crowding/legibility'
import { figuresOf, moveCut, proposeRow, rowsOfParts, toggleBranch } from '../../../src/core/crowding/split-review'
import { CONTEXT, Garden, refusal } from '../gardens'

function planted() {
  const garden = new Garden()
  const map = garden.grow(
    'Garden\nSpring\n  Peas\n    Early\n    Late\n  Beans\n    Dwarf\nSummer\n  Water\n  Weed\nAutumn',
  )
  const row = (text: string) => rowsOfParts([{ topic: garden.topic(text), name: text }])[0]!
  const names = (rows: ReturnType<typeof rowsOfParts>) => rows.map(({ part, isTaken }) => `${part.name} ${isTaken}`)
  return { garden, map, row, names }
}

test('a cut is moved up to the topic above and down to those below that have something below them', () => {
  const { garden, row, names } = planted()
  const spring = row('Spring')
  const lower = moveCut(garden.records, [spring, row('Summer')], spring, 'down')
  expect(names(lower)).toEqual(['Peas true', 'Beans true', 'Summer true'])
  expect(names(moveCut(garden.records, lower, lower[0]!, 'up'))).toEqual(['Spring true', 'Beans true', 'Summer true'])
  // Above the first level there is nothing to be cut off.
  expect(moveCut(garden.records, [spring], spring, 'up')).toEqual([spring])
  const summer = row('Summer')
  expect(moveCut(garden.records, [summer], summer, 'down')).toEqual([summer])
})

test('a branch is proposed by hand, and left again; what cannot be split off is not', () => {
  const { garden, row, names } = planted()
  const more = toggleBranch(garden.records, [row('Spring')], garden.topic('Summer'))
  expect(names(more)).toEqual(['Spring true', 'Summer true'])
  expect(names(toggleBranch(garden.records, more, garden.topic('Spring')))).toEqual(['Spring false', 'Summer true'])
  expect(toggleBranch(garden.records, more, garden.topic('Autumn'))).toEqual(more)
  expect(toggleBranch(garden.records, more, garden.topic('Garden'))).toEqual(more)
})

test('branches that are drawn over become one map, from wherever below them the line begins and ends', () => {
  const { garden, row, names } = planted()
  const draw = (rows: ReturnType<typeof rowsOfParts>, from: string, to: string) =>
    proposeRow(garden.records, rows, garden.topic(from), garden.topic(to))
  const drawn = draw([row('Spring')], 'Dwarf', 'Early')
  expect(names(drawn)).toEqual(['Spring true', 'Peas to Beans true'])
  expect(names(draw(drawn, 'Autumn', 'Early'))).toEqual(['Spring true', 'Peas to Beans true', 'Spring to Autumn true'])
  expect(names(draw(draw([], 'Spring', 'Summer'), 'Summer', 'Autumn'))).toEqual(['Summer to Autumn true'])
  // Nothing is between a topic and what hangs on it.
  expect(draw(drawn, 'Spring', 'Early')).toEqual(drawn)
  expect(draw(drawn, 'Garden', 'Early')).toEqual(drawn)
})

test('of a part it is told how many topics, how much of the map, and which links it takes along', () => {
  const { garden, map, row } = planted()
  const link = {
    from: garden.topic('Early'),
    to: { kind: 'topic', id: garden.topic('Water') },
    label: '',
    drawn: 'quiet',
  }
  garden.do((r, ids) => addCrosslink(r, link as never, ids))
  const { layout } = judge(garden.records, map, CONTEXT)
  const { topics, share, leaving } = figuresOf(garden.records, row('Spring').part, layout)
  expect(topics).toBe(6)
  expect(share).toBeGreaterThan(0.35)
  expect(share).toBeLessThan(0.5)
  expect(leaving.map(({ from }) => from)).toEqual([garden.topic('Early')])
})

test('several branches, one within another, and a row of siblings become maps in one change', () => {
  const { garden, map } = planted()
  const [spring, peas] = [garden.topic('Spring'), garden.topic('Peas')]
  const row = [garden.topic('Water'), garden.topic('Weed')]
  const parts = [{ topic: spring, name: 'The spring' }, { topic: peas }, { row, name: 'Every day' }]
  const { doorways, change } = garden.do((r, ids) => splitOffAll(r, { parts }, ids))
  expect(change.label).toBe('Split off 3 branches')
  const opened = doorways.map((id) => garden.records.need('map', garden.records.need('topic', id).opensMap))
  expect(opened.map(({ title }) => title)).toEqual(['The spring', 'Peas', 'Every day'])
  expect(garden.text(map)).toBe('- Garden\n  - Spring\n  - Summer\n    - Every day\n  - Autumn')
  expect(garden.text(opened[0]!.id)).toBe('- Spring\n  - Peas\n  - Beans\n    - Dwarf')
  expect(garden.text(opened[1]!.id)).toBe('- Peas\n  - Early\n  - Late')
  expect(garden.text(opened[2]!.id)).toBe('- Every day\n  - Water\n  - Weed')
  expect(opened[1]!.homeDoorway).toBe(peas)
})

test('only siblings become a map together', () => {
  const { garden } = planted()
  const row = [garden.topic('Water'), garden.topic('Early')]
  expect(refusal(() => splitOffRow(garden.records, { row, name: 'Both' }, garden.newIds))).toMatch(
    /hang on the same topic/,
  )
  expect(refusal(() => splitOffAll(garden.records, { parts: [] }, garden.newIds))).toMatch(/Choose the branches/)
})
