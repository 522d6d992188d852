import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { planMerge } from '../../../src/core/matching/merge-plan'
import { normalText } from '../../../src/core/matching/normal-text'
import { contents, Garden } from '../gardens'

test('texts agree when case, accents, punctuation and plural aside they are the same', () => {
  expect(normalText('Dipwells – reading!')).toBe(normalText('dipwell: Reading'))
  expect(normalText('Ditches')).toBe(normalText('ditch'))
  expect(normalText('Moss')).not.toBe(normalText('Mos'))
  expect(normalText('Crème brûlée')).toBe('creme brulee')
})

const two = () => {
  const garden = new Garden()
  const target = garden.grow('Wells\nThe network\n  Well 23\nReading\n  Through ice')
  const source = garden.grow(
    'Notes on wells\nthe Network\n  Well 31\nReadings\n  Through ice!\n    Use hot water\nWishes',
  )
  return { garden, target, source }
}

describe('merging', () => {
  test('combined joins what agrees and adds the rest where it belongs; the source stays', () => {
    const { garden, target, source } = two()
    const before = garden.text(source)
    const { report } = garden.do((records, newIds) =>
      mergeMaps(records, { plan: planMerge(records, target, [source], 'combined') }, newIds),
    )
    expect(garden.text(target)).toBe(
      '- Wells\n  - The network\n    - Well 23\n    - Well 31\n  - Reading\n    - Through ice\n      - Use hot water\n  - Wishes',
    )
    expect(garden.text(source)).toBe(before)
    expect(report.counts).toMatchObject({ joined: 4, added: 3 })
  })

  test('side by side adds each source as a branch', () => {
    const { garden, target, source } = two()
    garden.do((records, newIds) => mergeMaps(records, { plan: planMerge(records, target, [source], 'beside') }, newIds))
    expect(garden.text(target)).toContain('  - Notes on wells\n    - the Network\n      - Well 31')
  })

  test('keeps equal notes once, sets different ones after one another with their origin, and unites links', () => {
    const { garden, target, source } = two()
    const [ours, theirs] = [garden.topic('The network'), garden.topic('the Network')]
    const note = (topic: typeof ours, text: string) =>
      garden.do((records, newIds) => writeNote(records, { topic, base: '', text }, newIds))
    note(ours, 'Seven lines.')
    note(theirs, 'Well 31 stands in a puddle.')
    note(garden.topic('Through ice'), 'Bore.')
    note(garden.topic('Through ice!'), 'Bore.')
    for (const topic of [ours, theirs])
      garden.do((records, newIds) => addWeblink(records, { topic, url: 'example.org', title: 'Data' }, newIds))
    garden.do((records, newIds) =>
      addCrosslink(
        records,
        { from: garden.topic('Well 31'), to: { kind: 'topic', id: garden.topic('Use hot water') }, drawn: 'line' },
        newIds,
      ),
    )
    const { report } = garden.do((records, newIds) =>
      mergeMaps(records, { plan: planMerge(records, target, [source], 'combined') }, newIds),
    )
    expect(report.counts).toMatchObject({ notesCombined: 1, notesEqual: 1, weblinks: 0, crosslinks: 1 })
    expect(garden.records.need('note', garden.records.need('topic', ours).note).text).toBe(
      'Seven lines.\n\n*From Notes on wells:*\n\nWell 31 stands in a puddle.',
    )
    const copy = garden.records.children(ours).find(({ text }) => text === 'Well 31')!
    expect(garden.records.need('topic', garden.records.crosslinksFrom(copy.id)[0]!.to.id).place.map).toBe(target)
  })

  test('takes several sources, and refuses itself without a trace', () => {
    const { garden, target, source } = two()
    const third = garden.grow('More\nWishes\nThe network\n  Well 31')
    garden.do((records, newIds) =>
      mergeMaps(records, { plan: planMerge(records, target, [source, third], 'combined') }, newIds),
    )
    expect(garden.text(target).match(/Well 31/g)).toHaveLength(2)
    const before = contents(garden.records)
    expect(() =>
      garden.do((records, newIds) =>
        mergeMaps(records, { plan: planMerge(records, target, [target], 'combined') }, newIds),
      ),
    ).toThrow('itself')
    expect(contents(garden.records)).toEqual(before)
  })
})
