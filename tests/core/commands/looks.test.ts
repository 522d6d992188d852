import { expect, test } from 'vitest'
import { changeLook, copyLook, type LookTarget, removeLook, saveLook } from '../../../src/core/commands/looks'
import { layoutMap } from '../../../src/core/layout/map-layout'
import type { Look, LookField } from '../../../src/core/records/look'
import { CONTEXT, plot } from '../gardens'

function planted() {
  const { garden, map } = plot()
  const style = (text: string) => layoutMap(garden.records, map, CONTEXT).byKey.of(garden.topic(text))!.style
  return { garden, map, style }
}

test('a look is kept under a name, replaced under the same name, and removed', () => {
  const { garden } = planted()
  const saved = () => [...garden.records.all('look')].filter((look) => !look.trashed)
  garden.do((r, m) => saveLook(r, { name: ' Warning ', look: { fill: '#c4532f', bold: true } }, m))
  garden.do((r, m) => saveLook(r, { name: 'Warning', look: { fill: '#a8431f' } }, m))
  expect(saved()).toMatchObject([{ name: 'Warning', look: { fill: '#a8431f' } }])
  expect(() => garden.do((r, m) => saveLook(r, { name: 'Empty', look: {} }, m))).toThrow('nothing in this look')
  garden.do((r, m) => removeLook(r, { look: saved()[0]!.id }, m))
  expect(saved()).toEqual([])
})

test('values are set and taken back on topics, branches, maps and levels, each by an act with a name', () => {
  const { garden, map, style } = planted()
  const topics = [garden.topic('Prune')]
  const change = (target: LookTarget, set: Look, clear: readonly LookField[] = []) =>
    garden.do((r, n) => changeLook(r, { target, set, clear }, n)).change.label
  expect(change({ kind: 'topics', topics }, { bold: true, size: 30 })).toBe('Change the look of Prune')
  expect(style('Prune').size).toBe(30)
  change({ kind: 'topics', topics }, {}, ['bold', 'size'])
  expect(garden.records.need('topic', topics[0]!).look).toBeNull()
  expect(change({ kind: 'map', map, level: 2 }, { size: 22 })).toBe('Change the look of the map')
  expect([style('Prune').size, style('Dwarf').size === 22]).toEqual([22, false])
  change({ kind: 'map', map, level: 2 }, {}, ['size'])
  expect(style('Prune').size).not.toBe(22)
  expect(() => change({ kind: 'topics', topics }, { size: 900 })).toThrow()
})

test('a look goes over to others as it is, for the topic and for its branch', () => {
  const { garden, style } = planted()
  const [summer, spring] = [garden.topic('Summer'), garden.topic('Spring')]
  garden.do((r, n) =>
    changeLook(r, { target: { kind: 'branches', topics: [summer] }, set: { font: 'hand' }, clear: [] }, n),
  )
  garden.do((r, n) => copyLook(r, { from: summer, to: [spring] }, n))
  expect(style('Prune').face).toBe(style('Dwarf').face)
  expect(garden.records.need('topic', spring).branchLook).toEqual({ font: 'hand' })
})
