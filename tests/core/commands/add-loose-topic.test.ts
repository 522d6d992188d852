import { expect, test } from 'vitest'
import { addLooseTopic } from '../../../src/core/commands/add-loose-topic'
import { addTopic } from '../../../src/core/commands/add-topic'
import { MapId } from '../../../src/core/records/ids'
import { plot } from '../gardens'

test('a loose topic stands at its point, hangs on nothing, and carries a branch of its own', () => {
  const { garden, map } = plot()
  const { select } = garden.do((r, n) => addLooseTopic(r, { map, x: 40, y: -12, text: 'Later' }, n))
  const [later] = garden.records.looseBranches(map)
  expect(later).toMatchObject({ id: select[0], text: 'Later', place: { kind: 'loose', map, x: 40, y: -12 } })
  garden.do((r, n) => addTopic(r, { parent: later!.id, after: 'last', text: 'A shed' }, n))
  expect(garden.records.children(later!.id).map(({ text }) => text)).toEqual(['A shed'])
})

test('a loose topic is refused on a map that is not there, and at no point at all', () => {
  const { garden, map } = plot()
  const at = (args: { map: MapId; x: number; y: number }) => () =>
    garden.do((r, n) => addLooseTopic(r, { ...args, text: 'Later' }, n))
  expect(at({ map: MapId.parse('00000000-0000-7000-8000-00000000dead'), x: 0, y: 0 })).toThrow()
  expect(at({ map, x: Number.NaN, y: 0 })).toThrow()
  expect(garden.records.looseBranches(map)).toEqual([])
})
