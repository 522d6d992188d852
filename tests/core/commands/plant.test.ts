import { describe, expect, test } from 'vitest'
import { NewChange } from '../../../src/core/commands/command'
import { MAX_PLANTED, plant, plantHead, plantOnRoot, sizeToPlant } from '../../../src/core/commands/plant'
import { outlineItem } from '../../../src/core/formats/outline'
import { MAX_TOPIC_TEXT } from '../../../src/core/records/text'
import { plot } from '../gardens'

describe('items of an outline', () => {
  const made = () => {
    const { garden, map } = plot()
    return { garden, map, change: new NewChange(garden.records, garden.newIds) }
  }

  test('become topics behind the last child, with notes and those web links that can be followed', () => {
    const { garden, change } = made()
    const spring = garden.topic('Spring')
    const item = {
      ...outlineItem('Mulch'),
      note: 'Thickly.',
      links: [
        { address: 'https://example.org/mulch', title: 'How' },
        { address: 'javascript:alert(1)', title: 'Not this' },
      ],
      children: [outlineItem('Straw'), outlineItem('Leaves')],
    }
    const planted = plant(change, change.topic(spring), [item, outlineItem('Water')])
    const children = change.records.children(spring)
    expect(children.map(({ text }) => text)).toEqual(['Sow peas', 'Prune', 'Mulch', 'Water'])
    const mulch = children[2]!
    expect(planted.find(({ topic }) => topic.id === mulch.id)?.item).toBe(item)
    expect(change.records.children(mulch.id).map(({ text }) => text)).toEqual(['Straw', 'Leaves'])
    expect(change.records.need('note', mulch.note).text).toBe('Thickly.')
    expect(change.records.weblinks(mulch.id).map(({ url }) => url)).toEqual(['https://example.org/mulch'])
  })

  test('that are too long, or hold what no record may hold, keep their words', () => {
    const { garden, change } = made()
    const long = 'pea'.repeat(MAX_TOPIC_TEXT)
    const head = plantHead(change, outlineItem(`a\u0000b${long}`), {
      kind: 'loose',
      map: garden.records.need('topic', garden.topic('Garden')).place.map,
      x: 0,
      y: 0,
    })
    expect(head.text.length).toBeLessThanOrEqual(MAX_TOPIC_TEXT)
    expect(head.text.endsWith('…')).toBe(true)
    expect(change.records.need('note', head.note).text).toBe(`a\uFFFDb${long}`)
  })

  test('dress a root, which keeps its own text where they have none', () => {
    const { garden, change } = made()
    const root = change.topic(garden.topic('Garden'))
    expect(plantOnRoot(change, root, { ...outlineItem('  '), note: 'All of it.' }).text).toBe('Garden')
    expect(change.records.need('note', change.topic(root.id).note).text).toBe('All of it.')
  })

  test('are counted before any is made', () => {
    expect(sizeToPlant([outlineItem('a'), { ...outlineItem('b'), children: [outlineItem('c')] }], 'paste')).toBe(3)
    expect(() => sizeToPlant([], 'paste')).toThrow('There is no text to paste.')
    const many = Array.from({ length: MAX_PLANTED + 1 }, () => outlineItem('a'))
    expect(() => sizeToPlant(many, 'paste')).toThrow(`at most ${MAX_PLANTED}`)
  })
})
