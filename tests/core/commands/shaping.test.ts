import { describe, expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { bringBack } from '../../../src/core/commands/bring-back'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { mapsAbove } from '../../../src/core/commands/home-doorways'
import { renameMap } from '../../../src/core/commands/maps'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { setText } from '../../../src/core/commands/set-text'
import { evenSides } from '../../../src/core/commands/sides'
import { splitOff } from '../../../src/core/commands/split-off'
import { stepTopic } from '../../../src/core/commands/step-topic'
import { writeNote } from '../../../src/core/commands/write-note'
import { sideOf } from '../../../src/core/records/place'
import { contents, Garden } from '../gardens'

const plot = () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf\n    Climbing\nAutumn')
  return { garden, map }
}

describe('moving branches', () => {
  test('hangs them behind the sibling that is named, in the order given', () => {
    const { garden, map } = plot()
    const topics = [garden.topic('Climbing'), garden.topic('Autumn')]
    garden.do((records, newIds) =>
      moveTopics(
        records,
        { topics, parent: garden.topic('Spring'), after: garden.topic('Sow peas'), side: null },
        newIds,
      ),
    )
    expect(garden.text(map)).toBe(
      '- Garden\n  - Spring\n    - Sow peas\n    - Climbing\n    - Autumn\n    - Prune\n  - Summer\n    - Pick beans\n      - Dwarf',
    )
  })

  test('refuses to hang a topic below itself and to move the root', () => {
    const { garden } = plot()
    const move = (topic: string, parent: string) => () =>
      garden.do((records, newIds) =>
        moveTopics(
          records,
          { topics: [garden.topic(topic)], parent: garden.topic(parent), after: null, side: null },
          newIds,
        ),
      )
    expect(move('Summer', 'Dwarf')).toThrow('A topic cannot hang below itself.')
    expect(move('Garden', 'Dwarf')).toThrow('The root of a map stays where it is.')
  })

  test('steps up, out, in and to the other side', () => {
    const { garden, map } = plot()
    const step = (topic: string, direction: Parameters<typeof stepTopic>[1]['step']) =>
      garden.do((records, newIds) => stepTopic(records, { topic: garden.topic(topic), step: direction }, newIds))
    step('Prune', 'up')
    step('Dwarf', 'out')
    step('Climbing', 'out')
    step('Climbing', 'in')
    expect(garden.text(map)).toContain(
      '  - Spring\n    - Prune\n    - Sow peas\n  - Summer\n    - Pick beans\n      - Climbing\n    - Dwarf',
    )
    const before = sideOf(garden.records.need('topic', garden.topic('Spring')))
    step('Spring', before === 'left' ? 'right' : 'left')
    expect(sideOf(garden.records.need('topic', garden.topic('Spring')))).not.toBe(before)
    expect(() => step('Garden', 'up')).toThrow('hangs on nothing')
  })

  test('keeps both sides about even as first-level topics are added', () => {
    const garden = new Garden()
    const map = garden.grow('Root')
    let last = garden.topic('Root')
    for (let i = 0; i < 12; i++)
      [last] = garden.do((records, newIds) =>
        addTopic(records, { parent: garden.topic('Root'), after: i === 0 ? 'last' : last, text: `${i}` }, newIds),
      ).select as [typeof last]
    const sides = garden.records.children(garden.records.root(map)!.id).map(sideOf)
    expect(Math.abs(sides.filter((side) => side === 'left').length - 6)).toBeLessThanOrEqual(2)
    expect(evenSides([5, 1, 1, 3])).toEqual(['right', 'left', 'left', 'left'])
    expect(evenSides([])).toEqual([])
  })
})

describe('deleting and restoring', () => {
  test('trashes the head alone and brings everything back with it', () => {
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

  test('keeps the root of a map', () => {
    const { garden } = plot()
    expect(() =>
      garden.do((records, newIds) => deleteTopics(records, { topics: [garden.topic('Garden')] }, newIds)),
    ).toThrow('A map keeps its root topic.')
  })
})

describe('splitting off and bringing back', () => {
  test('moves the branch with its ids and makes the topic the home doorway', () => {
    const { garden, map } = plot()
    const summer = garden.topic('Summer')
    const beans = garden.topic('Pick beans')
    garden.do((records, newIds) =>
      addCrosslink(records, { from: garden.topic('Prune'), to: { kind: 'topic', id: beans }, drawn: 'line' }, newIds),
    )
    garden.do((records, newIds) => splitOff(records, { topic: summer }, newIds))
    const child = garden.records.need('topic', summer).opensMap!
    expect(garden.text(map)).not.toContain('Pick beans')
    expect(garden.text(child)).toBe('- Summer\n  - Pick beans\n    - Dwarf\n    - Climbing')
    expect(garden.records.need('topic', beans).place.map).toBe(child)
    expect(garden.records.need('map', child)).toMatchObject({ title: 'Summer', homeDoorway: summer })
    expect(mapsAbove(garden.records, child)).toEqual([map])
    expect(garden.records.crosslinksTo('topic', beans)).toHaveLength(1)
  })

  test('brings everything back as it was', () => {
    const { garden, map } = plot()
    const before = garden.text(map)
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
    const doorway = [...garden.records.all('topic')].find((topic) => topic.opensMap)!
    garden.do((records, newIds) =>
      writeNote(records, { topic: garden.records.root(doorway.opensMap!)!.id, base: '', text: 'Hot.' }, newIds),
    )
    garden.do((records, newIds) => bringBack(records, { topic: doorway.id }, newIds))
    expect(garden.text(map)).toBe(before)
    expect(garden.records.need('note', garden.records.need('topic', doorway.id).note).text).toBe('Hot.')
    expect(garden.records.need('map', doorway.opensMap!).trashed).toBe(true)
  })

  test('refuses what makes no sense, and changes nothing', () => {
    const { garden } = plot()
    const before = contents(garden.records)
    const split = (text: string) => () =>
      garden.do((records, newIds) => splitOff(records, { topic: garden.topic(text) }, newIds))
    expect(split('Garden')).toThrow('The root of a map cannot be split off')
    expect(split('Dwarf')).toThrow('nothing below')
    expect(contents(garden.records)).toEqual(before)
  })

  test('renames map, root and doorway together while they carry one name', () => {
    const { garden } = plot()
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
    const map = [...garden.records.all('map')].find(({ title }) => title === 'Summer')!
    garden.do((records, newIds) => renameMap(records, { map: map.id, title: 'High summer' }, newIds))
    expect(garden.records.root(map.id)!.text).toBe('High summer')
    expect(garden.records.need('topic', map.homeDoorway).text).toBe('High summer')
    garden.do((records, newIds) =>
      setText(records, { topic: garden.records.root(map.id)!.id, text: 'Midsummer' }, newIds),
    )
    expect(garden.records.need('map', map.id).title).toBe('Midsummer')
  })

  test('never closes a loop of home doorways', () => {
    const { garden } = plot()
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
    const child = [...garden.records.all('map')].find(({ title }) => title === 'Summer')!
    const intoItself = () =>
      garden.do((records, newIds) =>
        moveTopics(
          records,
          { topics: [child.homeDoorway!], parent: garden.topic('Pick beans'), after: null, side: null },
          newIds,
        ),
      )
    expect(intoItself).toThrow('This branch opens the map Summer, so it cannot move into it.')
  })
})
