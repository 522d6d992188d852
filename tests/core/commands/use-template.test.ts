import { expect, test } from 'vitest'
import { insertTemplate, makeMapFrom } from '../../../src/core/commands/use-template'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { TEMPLATES } from '../../../src/core/templates/templates'
import { COLLECTION, CONTEXT, Garden } from '../gardens'
import { overlaps } from '../layout/forests'

test.each(TEMPLATES.map(({ id, name }) => [name, id]))(
  '%s becomes a map in which nothing overlaps',
  (name, template) => {
    const garden = new Garden()
    const args = { collection: COLLECTION, title: name, template, today: '2026-03-01' }
    const { select } = garden.do((records, newIds) => makeMapFrom(records, args, newIds))
    const { map } = garden.records.need('topic', select[0]!).place
    const layout = layoutMap(garden.records, map, CONTEXT)
    expect(layout.boxes.length).toBeGreaterThan(4)
    expect(overlaps(layout)).toEqual([])
    expect(layout.boxes.filter(({ topic }) => topic.text.includes('@'))).toEqual([])
    expect(garden.records.need('map', map).layout).toBe(TEMPLATES.find(({ id }) => id === template)!.layout)
  },
)

test('there are twelve, each known by its own name', () => {
  expect(new Set(TEMPLATES.flatMap(({ id, name }) => [id, name])).size).toBe(24)
})

test('dates are counted from the day on which it is made, and a template can be hung onto any topic', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring')
  garden.do((records, newIds) =>
    insertTemplate(records, { topic: garden.topic('Spring'), template: 'season-plan', today: '2026-12-20' }, newIds),
  )
  const ready = garden.records.need('topic', garden.topic('Get ready'))
  expect(ready.dates).toEqual({ start: '2027-01-03', end: null })
  expect(garden.text(map)).toContain('    - Get ready\n      - Check tools')
})
