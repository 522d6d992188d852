import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Refusal } from '../../../src/core/changes/problem'
import { addTopic } from '../../../src/core/commands/add-topic'
import type { IdSource, Outcome } from '../../../src/core/commands/command'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { arrangeMap, detachTopics, placeByHand, setFree } from '../../../src/core/commands/places'
import { setText } from '../../../src/core/commands/set-text'
import { withKeptPlaces } from '../../../src/core/free/kept-places'
import { layoutMap } from '../../../src/core/layout/map-layout'
import type { MapId, TopicId } from '../../../src/core/records/ids'
import { isRoot } from '../../../src/core/records/place'
import type { Records } from '../../../src/core/records/records'
import { isFree } from '../../../src/core/tree/free'
import { act, perform } from '../acts'
import { CONTEXT, Garden, plot } from '../gardens'
import { overlaps } from '../layout/forests'
import { mixedPlot, mixing, seenTopics } from '../mixed-plot'

type Act = (records: Records, newIds: IdSource) => Outcome

/** Does what a person does, with the places that it takes. */
const keeping = (garden: Garden, act: Act) =>
  garden.do((records, newIds) => {
    const { change, select } = act(records, newIds)
    return { select, change: withKeptPlaces(records, change, CONTEXT) }
  })

const standing = (garden: Garden, map: MapId) =>
  new Map(layoutMap(garden.records, map, CONTEXT).boxes.map(({ key, x, y }) => [key, { x, y }]))

/** Those that stand elsewhere than before, by more than rounding makes up. */
const moved = (before: ReturnType<typeof standing>, after: ReturnType<typeof standing>) =>
  [...before].flatMap(([id, { x, y }]) => {
    const now = after.get(id)
    return now && Math.hypot(now.x - x, now.y - y) > 0.1 ? [id] : []
  })

function freePlot(): { garden: Garden; map: MapId; root: TopicId } {
  const { garden, map } = plot()
  const root = garden.records.root(map)!.id
  keeping(garden, (r, ids) => setFree(r, { topic: root, free: true }, ids))
  return { garden, map, root }
}

describe('a free map', () => {
  test('stands as it stood when it became free, and every topic has its place', () => {
    const { garden, map } = plot()
    const before = standing(garden, map)
    const root = garden.records.root(map)!.id
    keeping(garden, (r, ids) => setFree(r, { topic: root, free: true }, ids))
    expect(moved(before, standing(garden, map))).toEqual([])
    for (const topic of garden.records.all('topic')) expect(topic.place.kind).toBe(isRoot(topic) ? 'root' : 'by hand')
    keeping(garden, (r, ids) => setFree(r, { topic: root, free: false }, ids))
    for (const topic of garden.records.all('topic')) expect(topic.place.kind).toBe(isRoot(topic) ? 'root' : 'arranged')
    expect(moved(before, standing(garden, map))).toEqual([])
  })

  test('moves nothing when topics are added, one after the other, below one and below the next', () => {
    const { garden, map } = freePlot()
    for (let i = 0; i < 40; i++) {
      const before = standing(garden, map)
      const parent = garden.topic(['Spring', 'Pick beans', 'Garden'][i % 3]!)
      keeping(garden, (r, ids) => addTopic(r, { parent, after: 'last', text: `Sow row ${i}` }, ids))
      expect(moved(before, standing(garden, map))).toEqual([])
      expect(overlaps(layoutMap(garden.records, map, CONTEXT))).toEqual([])
    }
  })

  test('puts a new topic behind the sibling before it, and a first one beside its parent', () => {
    const { garden, map } = freePlot()
    const peas = garden.topic('Sow peas')
    const at = (text: string) => layoutMap(garden.records, map, CONTEXT).byKey.get(garden.topic(text))!
    keeping(garden, (r, ids) => addTopic(r, { parent: peas, after: 'last', text: 'In rows' }, ids))
    const [parent, first] = [at('Sow peas'), at('In rows')]
    expect(first.growsLeft ? first.x + first.width < parent.x : first.x > parent.x + parent.width).toBe(true)
    keeping(garden, (r, ids) => addTopic(r, { parent: peas, after: 'last', text: 'Deep' }, ids))
    const second = at('Deep')
    expect(second.y).toBeGreaterThan(first.y)
    expect(
      Math.abs(second.growsLeft ? second.x + second.width - first.x - first.width : second.x - first.x),
    ).toBeLessThan(1)
  })

  test('a branch comes along when it is dragged, hung elsewhere or detached, and folds and unfolds where it was', () => {
    const { garden, map } = freePlot()
    const beans = garden.topic('Pick beans')
    const below = ['Dwarf', 'Climbing'].map((text) => garden.topic(text))
    const offsets = () => {
      const boxes = standing(garden, map)
      const head = boxes.get(beans)!
      return below.map((id) => ({
        x: Math.round(boxes.get(id)!.x - head.x),
        y: Math.round(boxes.get(id)!.y - head.y),
      }))
    }
    const first = offsets()
    const from = standing(garden, map).get(beans)!
    keeping(garden, (r, ids) =>
      placeByHand(r, { topics: [{ topic: beans, at: { x: 900, y: 500 }, from, side: 'right' }] }, ids),
    )
    expect(standing(garden, map).get(beans)).toEqual({ x: 900, y: 500 })
    expect(offsets()).toEqual(first)
    const before = standing(garden, map)
    keeping(garden, (r, ids) => foldTopics(r, { topics: [beans], folded: true }, ids))
    keeping(garden, (r, ids) => foldTopics(r, { topics: [beans], folded: false }, ids))
    expect(moved(before, standing(garden, map))).toEqual([])
    keeping(garden, (r, ids) =>
      moveTopics(r, { topics: [beans], parent: garden.topic('Spring'), after: 'last', side: null }, ids),
    )
    expect(offsets()).toEqual(first)
    expect(overlaps(layoutMap(garden.records, map, CONTEXT))).toEqual([])
    keeping(garden, (r, ids) => detachTopics(r, { topics: [{ topic: beans, at: { x: -900, y: 700 } }] }, ids))
    expect(offsets()).toEqual(first)
  })

  test('what is arranged again keeps what the layout made of it', () => {
    const { garden, map, root } = freePlot()
    const tidy = standing(garden, map)
    const from = tidy.get(garden.topic('Spring'))!
    keeping(garden, (r, ids) =>
      placeByHand(r, { topics: [{ topic: garden.topic('Spring'), at: { x: 700, y: 900 }, from, side: 'right' }] }, ids),
    )
    keeping(garden, (r, ids) => arrangeMap(r, { map }, ids))
    expect(moved(tidy, standing(garden, map))).toEqual([])
    expect(garden.records.need('topic', root).free).toBe(true)
    expect(garden.records.need('topic', garden.topic('Spring')).place.kind).toBe('by hand')
  })

  test('a free branch in an arranged map is left behind by what leaves it', () => {
    const { garden, map } = plot()
    const summer = garden.topic('Summer')
    keeping(garden, (r, ids) => setFree(r, { topic: summer, free: true }, ids))
    const beans = garden.topic('Pick beans')
    expect(garden.records.need('topic', summer).place.kind).toBe('arranged')
    expect(garden.records.need('topic', beans).place.kind).toBe('by hand')
    keeping(garden, (r, ids) =>
      moveTopics(r, { topics: [beans], parent: garden.topic('Spring'), after: 'last', side: null }, ids),
    )
    for (const text of ['Pick beans', 'Dwarf', 'Climbing'])
      expect(garden.records.need('topic', garden.topic(text)).place.kind).toBe('arranged')
    expect(overlaps(layoutMap(garden.records, map, CONTEXT))).toEqual([])
  })

  test('what goes to another map begins there arranged', () => {
    const { garden } = freePlot()
    const pond = garden.grow('Pond\nInflow')
    const beans = garden.topic('Pick beans')
    keeping(garden, (r, ids) =>
      moveTopics(r, { topics: [beans], parent: garden.topic('Inflow'), after: 'last', side: null }, ids),
    )
    for (const text of ['Pick beans', 'Dwarf', 'Climbing']) {
      const { place } = garden.records.need('topic', garden.topic(text))
      expect(place).toMatchObject({ kind: 'arranged', map: pond })
    }
  })

  test('whatever is done to any map, nothing overlaps, and all of a free region has a place', () => {
    fc.assert(
      fc.property(mixing, fc.nat(99), fc.array(act, { maxLength: 8 }), (kinds, n, acts) => {
        const garden = mixedPlot(kinds)
        const topics = seenTopics(garden.records)
        const head = topics[n % topics.length]!
        keeping(garden, (r, ids) => setFree(r, { topic: head.id, free: true }, ids))
        for (const seeds of acts)
          try {
            keeping(garden, (r, ids) => perform(r, ids, seeds))
          } catch (error) {
            if (!(error instanceof Refusal || error instanceof RangeError)) throw error
          }
        for (const { id } of [...garden.records.all('map')].filter(({ trashed }) => !trashed)) {
          const layout = layoutMap(garden.records, id, CONTEXT)
          expect(overlaps(layout)).toEqual([])
          for (const { topic } of layout.boxes)
            if (isFree(garden.records, topic)) expect(topic.place.kind).not.toBe('arranged')
        }
      }),
      { numRuns: 60 },
    )
  })

  test('two thousand topics stay where they were', () => {
    const garden = new Garden()
    const lines = Array.from({ length: 2_000 }, (_, i) => `${'  '.repeat(i % 4)}Row ${i} ${'of beans '.repeat(i % 5)}`)
    const map = garden.grow(`Garden\n${lines.join('\n')}`)
    const before = standing(garden, map)
    const root = garden.records.root(map)!.id
    keeping(garden, (r, ids) => setFree(r, { topic: root, free: true }, ids))
    expect(moved(before, standing(garden, map))).toEqual([])
    keeping(garden, (r, ids) => setText(r, { topic: [...garden.records.all('topic')][8]!.id, text: 'Row' }, ids))
    expect(moved(before, standing(garden, map))).toEqual([])
  })
})
