import { describe, expect, test } from 'vitest'
import { addLooseTopic } from '../../../src/core/commands/add-loose-topic'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { hangItems, pourTopics } from '../../../src/core/commands/hang-items'
import { outlineItem } from '../../../src/core/formats/outline'
import { Garden } from '../gardens'

describe('what is poured out', () => {
  test('hangs line by line behind what is there, indented lines on the one above, and shows where it was folded', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Dig\nSummer')
    const topic = garden.topic('Spring')
    garden.do((r, m) => foldTopics(r, { topics: [topic], folded: true }, m))
    const { change, select } = garden.do((r, m) => pourTopics(r, { topic, text: 'Sow\n  peas\n  beans\nWater' }, m))
    expect(garden.text(map)).toBe(
      [
        '- Garden',
        '  - Spring',
        '    - Dig',
        '    - Sow',
        '      - peas',
        '      - beans',
        '    - Water',
        '  - Summer',
      ].join('\n'),
    )
    expect(change.label).toBe('Pour 4 topics')
    expect(select).toEqual([garden.topic('Sow')])
    expect(garden.records.need('topic', topic).folded).toBe(false)
  })

  test('is refused where there is nothing, too much, or nowhere to hang it', () => {
    const garden = new Garden()
    garden.grow('Garden')
    const topic = garden.topic('Garden')
    expect(() => garden.do((r, m) => pourTopics(r, { topic, text: ' \n ' }, m))).toThrow('no text')
    const items = Array.from({ length: 10_001 }, () => outlineItem('x'))
    expect(() => garden.do((r, m) => hangItems(r, { topic, items, act: 'Insert' }, m))).toThrow('at most 10000')
    expect([...garden.records.all('topic')]).toHaveLength(1)
  })

  test('can hang on a loose topic', () => {
    const garden = new Garden()
    const map = garden.grow('Garden')
    const { select } = garden.do((r, m) => addLooseTopic(r, { map, x: 120, y: -40, text: 'Later' }, m))
    garden.do((r, m) => pourTopics(r, { topic: select[0]!, text: 'Hedge' }, m))
    expect(garden.records.looseBranches(map).map(({ place }) => place)).toEqual([
      { kind: 'loose', map, x: 120, y: -40 },
    ])
    expect(garden.records.children(select[0]!).map(({ text }) => text)).toEqual(['Hedge'])
  })
})
