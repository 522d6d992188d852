import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { TopicBox } from '../../../src/core/layout/boxes'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import type { Bend } from '../../../src/core/records/crosslink'
import { CrosslinkId } from '../../../src/core/records/ids'
import { LayoutKind } from '../../../src/core/records/layout'
import { ConnectorForm, PLAIN_MAP_LOOK } from '../../../src/core/records/look'
import type { Point } from '../../../src/core/records/place'
import type { Records } from '../../../src/core/records/records'
import { bendThrough, placeOfBend } from '../../../src/core/scene/bent-line'
import { straightParts } from '../../../src/core/scene/path'
import { buildScene, type Scene, SceneMaker } from '../../../src/core/scene/scene'
import { ENGLISH } from '../../../src/core/text/days'
import { passesThrough } from '../../../src/core/ways/ground'
import { CONTEXT } from '../gardens'
import { MAP, plain, recordsOf, sapling, topicId } from '../layout/forests'

/** Connector lines through topics that they do not join: which line, and through what. */
function crossedByConnectors({ layout, connectors }: Scene): string[] {
  return connectors.flatMap((connector) =>
    connector.hanging.flatMap((child) =>
      crossed(connector.lineTo(child), layout.boxes, [connector.parent, child]).map(
        (text) => `${connector.parent.topic.text} – ${child.topic.text}: ${text}`,
      ),
    ),
  )
}

function crossed(path: string, boxes: Scene['layout']['boxes'], joined: readonly unknown[]): string[] {
  const runs = straightParts(path)
  return boxes
    .filter((box) => !joined.includes(box))
    .filter((box) => runs.some((run) => run.some((point, i) => i > 0 && passesThrough(run[i - 1]!, point, box, -0.5))))
    .map(({ topic }) => topic.text)
}

function styled(layout: LayoutKind, connector: ConnectorForm, saplings: Parameters<typeof recordsOf>[1], spacing = 1) {
  const records = recordsOf({ layout, spacing, numbering: null }, saplings)
  records.put('map', { ...records.need('map', MAP), look: { ...PLAIN_MAP_LOOK, every: { connector } } })
  return records
}

describe('no line runs through words', () => {
  test('no connector, in any layout, whatever is nested in it, kept in its place or loose', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LayoutKind.options),
        fc.constantFrom(...ConnectorForm.options),
        fc.array(sapling, { minLength: 12, maxLength: 60 }),
        fc.constantFrom(0.6, 1, 1.7),
        (layout, connector, saplings, spacing) => {
          expect(crossedByConnectors(buildScene(styled(layout, connector, saplings, spacing), MAP, CONTEXT))).toEqual(
            [],
          )
        },
      ),
      { numRuns: 300 },
    )
  })

  test('no cross-link, wherever its ends stand and however it was bent', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LayoutKind.options),
        fc.array(sapling, { minLength: 12, maxLength: 60 }),
        fc.array(fc.tuple(fc.nat(59), fc.nat(59)), { minLength: 3, maxLength: 12 }),
        fc.option(
          fc.record({ along: fc.double({ min: -1, max: 2, noNaN: true }), aside: fc.integer({ min: -600, max: 600 }) }),
        ),
        (layout, saplings, pairs, bend) => {
          const records = styled(layout, 'curve', saplings)
          link(records, saplings.length, pairs, bend)
          const { layout: placed, crosslinks } = buildScene(records, MAP, CONTEXT)
          for (const line of crosslinks) {
            const ends = [placed.byKey.of(line.link.from), placed.byKey.of(line.link.to.id)]
            const path = pathOf(line)
            expect([ends.map((box) => box!.topic.text), crossed(path, placed.boxes, ends)]).toEqual([
              ends.map((box) => box!.topic.text),
              [],
            ])
          }
        },
      ),
      { numRuns: 200 },
    )
  })
})

test('a line that was bent runs by way of that place, moves with its ends, and goes around what stands in between', () => {
  const saplings = [plain, ...Array.from({ length: 12 }, (_, i) => ({ ...plain, parent: 0, words: i % 4 }))]
  const records = styled('right', 'spine', saplings)
  for (const [along, aside] of [
    [0.5, -300],
    [0.2, -120],
    [0.5, 90],
    [1.2, -80],
  ] as const) {
    link(records, saplings.length, [[2, 11]], { along, aside })
    const { layout, crosslinks } = buildScene(records, MAP, CONTEXT)
    const [from, to] = [2, 11].map((i) => layout.byKey.of(topicId(i))!) as [TopicBox, TopicBox]
    const via = placeOfBend({ along, aside }, from, to)
    expect(bendThrough(via, from, to)).toEqual({ along: expect.closeTo(along), aside })
    const { points } = crosslinks[0]!
    const [nearest] = points
      .slice(1)
      .map((end, i) => awayFrom(via, points[i]!, end))
      .sort((a, b) => a - b)
    expect([along, aside, nearest! < 2]).toEqual([along, aside, true])
  }
})

/** How far a point is from a straight line. */
function awayFrom({ x, y }: Point, a: Point, b: Point): number {
  const [across, down] = [b.x - a.x, b.y - a.y]
  const part = Math.max(0, Math.min(1, ((x - a.x) * across + (y - a.y) * down) / (across ** 2 + down ** 2 || 1)))
  return Math.hypot(x - a.x - across * part, y - a.y - down * part)
}

test('a cross-link stays as it was while nothing comes in its way, moves with its ends, and waits for its way without patience', () => {
  const row = (parent: number, words: number) => ({ ...plain, parent, words })
  const saplings = [plain, row(0, 3), row(0, 0), row(0, 3), row(1, 2), row(1, 9), row(3, 2), row(3, 2)]
  const records = styled('right', 'spine', saplings)
  link(records, saplings.length, [[4, 7]])
  const maker = new SceneMaker(records, CONTEXT, new MapLayouter(records, MAP, CONTEXT))
  const make = (tiles = Number.POSITIVE_INFINITY) => {
    const scene = maker.make(null, ENGLISH, { tiles })
    const ends = [4, 7].map((i) => scene.layout.byKey.of(topicId(i))!)
    return {
      scene,
      line: scene.crosslinks[0]!,
      crossed: crossed(pathOf(scene.crosslinks[0]!), scene.layout.boxes, ends),
    }
  }
  const say = (i: number, text: string) => records.put('topic', { ...records.need('topic', topicId(i)), text })
  const first = make()
  expect(first.crossed).toEqual([])
  say(2, 'of')
  expect(make().line).toBe(first.line)
  // What comes in its way is passed around as soon as there is patience for it.
  say(6, 'a topic that has become very long and that reaches out far to the right of all others, over the line')
  const hurried = make(0)
  expect(hurried.scene.isSettled).toBe(false)
  const settled = make()
  expect([settled.scene.isSettled, settled.crossed]).toEqual([true, []])
  expect(settled.line).not.toBe(hurried.line)
})

test('with little patience at a time all lines are found in the end, as with much of it', () => {
  const saplings = Array.from({ length: 60 }, (_, i) => ({
    ...plain,
    parent: Math.floor(i / 3),
    words: i % 7,
    left: i % 2 === 0,
  }))
  const records = styled('both', 'spine', saplings)
  link(
    records,
    saplings.length,
    Array.from({ length: 12 }, (_, i): [number, number] => [i * 5, 59 - i * 3]),
  )
  const maker = new SceneMaker(records, CONTEXT, new MapLayouter(records, MAP, CONTEXT))
  const make = () => maker.make(null, ENGLISH, { tiles: 400 })
  let scene = make()
  expect(scene.isSettled).toBe(false)
  let rounds = 1
  while (!scene.isSettled && rounds < 50) {
    scene = make()
    rounds++
  }
  expect(rounds).toBeLessThan(50)
  for (const { link: made, ...line } of scene.crosslinks) {
    const ends = [made.from, made.to.id].map((id) => scene.layout.byKey.of(id))
    expect(crossed(pathOf({ link: made, ...line }), scene.layout.boxes, ends)).toEqual([])
  }
})

const pathOf = ({ drawing }: Scene['crosslinks'][number]): string => {
  const [path] = drawing.children
  return typeof path === 'string' ? path : String(path!.attributes.d)
}

function link(
  records: Records,
  count: number,
  pairs: readonly (readonly [number, number])[],
  bend: Bend | null = null,
): void {
  pairs.forEach(([a, b], i) => {
    if (a % count === b % count) return
    records.put('crosslink', {
      id: CrosslinkId.parse(`00000000-0000-7000-8002-${i.toString(16).padStart(12, '0')}`),
      from: topicId(a % count),
      to: { kind: 'topic', id: topicId(b % count) },
      label: '',
      drawn: 'line',
      bothWays: false,
      bend,
      trashed: false,
    })
  })
}
