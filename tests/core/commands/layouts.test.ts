import { describe, expect, test } from 'vitest'
import { setBranchLayout, setMapLayout, setSpacing, setWidth } from '../../../src/core/commands/layouts'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { sideOf } from '../../../src/core/records/place'
import { CONTEXT, Garden, plot } from '../gardens'

function grown() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas in the long bed by the wall\n  Dig\nSummer')
  const box = (text: string) => layoutMap(garden.records, map, CONTEXT).byKey.get(garden.topic(text))!
  return { garden, map, box }
}

describe('the shape of a map', () => {
  test('is set for the whole, and branches with a layout of their own keep it', () => {
    const { garden, map, box } = grown()
    const spring = garden.topic('Spring')
    garden.do((r, m) => setBranchLayout(r, { topics: [spring], layout: 'down' }, m))
    garden.do((r, m) => setMapLayout(r, { map, layout: 'left' }, m))
    expect(box('Spring').x).toBeLessThan(box('Garden').x)
    expect(box('Dig').y).toBeGreaterThan(box('Spring').y)
    const { change } = garden.do((r, m) => setBranchLayout(r, { topics: [spring], layout: null }, m))
    expect(change.label).toBe('Let Spring follow the layout around it')
    expect(box('Dig').x).toBeLessThan(box('Spring').x)
  })

  test('is drawn further apart, within what the schema allows', () => {
    const { garden, map, box } = grown()
    const distance = () => box('Summer').y - box('Spring').y
    garden.do((r, m) => setMapLayout(r, { map, layout: 'right' }, m))
    const before = distance()
    garden.do((r, m) => setSpacing(r, { map, spacing: 2 }, m))
    expect(distance()).toBeGreaterThan(before)
    expect(() => garden.do((r, m) => setSpacing(r, { map, spacing: 40 }, m))).toThrow()
    expect(garden.records.need('map', map).spacing).toBe(2)
  })

  test('gives texts a width, and takes it away again', () => {
    const { garden, box } = grown()
    const long = 'Sow peas in the long bed by the wall'
    const topics = [garden.topic(long)]
    const free = box(long).width
    garden.do((r, m) => setWidth(r, { topics, width: 60 }, m))
    expect(box(long).width).toBeLessThan(free)
    expect(box(long).text.lines.length).toBeGreaterThan(3)
    garden.do((r, m) => setWidth(r, { topics, width: null }, m))
    expect(box(long).width).toBe(free)
    expect(() => garden.do((r, m) => setWidth(r, { topics: [], width: 60 }, m))).toThrow()
  })
})

test('a branch set to both sides shares its children out; a map remembers its sides', () => {
  const { garden, map } = plot()
  const summer = garden.topic('Spring')
  garden.do((records, newIds) => setBranchLayout(records, { topics: [summer], layout: 'both' }, newIds))
  expect(garden.records.children(summer).map(sideOf)).toEqual(['right', 'left'])
  const sides = () => garden.records.children(garden.topic('Garden')).map(sideOf)
  const before = sides()
  garden.do((records, newIds) => setMapLayout(records, { map, layout: 'down' }, newIds))
  expect(garden.records.need('map', map).layout).toBe('down')
  garden.do((records, newIds) => setMapLayout(records, { map, layout: 'both' }, newIds))
  expect(sides()).toEqual(before)
})
