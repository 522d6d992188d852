import { expect, test } from 'vitest'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { arrangeAgain, arrangeMap, detachTopics, placeByHand } from '../../../src/core/commands/places'
import { plot, refusal } from '../gardens'

test('a topic keeps its place until it is arranged again, or hung onto its parent', () => {
  const { garden, map } = plot()
  const peas = garden.topic('Sow peas')
  const place = () => garden.records.need('topic', peas).place
  const byHand = () =>
    garden.do((records, newIds) =>
      placeByHand(records, { topics: [{ topic: peas, at: { x: 300, y: -80 }, side: 'right' }] }, newIds),
    )
  byHand()
  expect(place()).toMatchObject({ x: 300, y: -80, parent: garden.topic('Spring') })
  garden.do((records, newIds) => arrangeAgain(records, { topics: [garden.topic('Spring')] }, newIds))
  expect(place().kind).toBe('arranged')
  byHand()
  garden.do((records, newIds) => arrangeMap(records, { map }, newIds))
  expect(place().kind).toBe('arranged')
  byHand()
  garden.do((records, newIds) =>
    moveTopics(records, { topics: [peas], parent: garden.topic('Spring'), after: 'last', side: null }, newIds),
  )
  expect(place().kind).toBe('arranged')
  expect(refusal(() => garden.do((r, m) => arrangeMap(r, { map }, m)))).toBe('Nothing here was placed by hand.')
})

test('a detached branch stands alone with all below it, and hangs on again', () => {
  const { garden, map } = plot()
  const beans = garden.topic('Pick beans')
  garden.do((records, newIds) => detachTopics(records, { topics: [{ topic: beans, at: { x: 500, y: 90 } }] }, newIds))
  expect(garden.records.looseBranches(map).map(({ text }) => text)).toEqual(['Pick beans'])
  expect(garden.records.children(beans).map(({ text }) => text)).toEqual(['Dwarf', 'Climbing'])
  garden.do((records, newIds) =>
    moveTopics(records, { topics: [beans], parent: garden.topic('Spring'), after: 'last', side: null }, newIds),
  )
  expect(garden.records.looseBranches(map)).toEqual([])
  expect(
    refusal(() =>
      garden.do((r, m) => detachTopics(r, { topics: [{ topic: garden.topic('Garden'), at: { x: 0, y: 0 } }] }, m)),
    ),
  ).toBe('The root of a map stays in its middle.')
})
