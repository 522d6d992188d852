import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { addTopic } from '../../../src/core/commands/add-topic'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { stepTopic } from '../../../src/core/commands/step-topic'
import type { MapLayout, TopicBox } from '../../../src/core/layout/boxes'
import { layoutMap, MapLayouter } from '../../../src/core/layout/map-layout'
import { LayoutKind } from '../../../src/core/records/layout'
import { parentOf } from '../../../src/core/records/place'
import type { Records } from '../../../src/core/records/records'
import { CONTEXT, Garden } from '../gardens'
import { enclose, ground, MAP, overlaps, plain, recordsOf, sapling, standing, topicId } from './forests'

const forest = fc.array(sapling, { minLength: 1, maxLength: 70 })
const enclosures = fc.array(fc.tuple(fc.nat(200), fc.nat(3)), { maxLength: 6 })

const shape = (layout: LayoutKind) => ({ layout, spacing: 1, numbering: null })
const boxOf = (records: Records, i: number): TopicBox => layoutMap(records, MAP, CONTEXT).byKey.get(topicId(i))!

const nearX = (box: TopicBox) => (box.growsLeft ? box.x + box.width : box.x)
const spread = (values: readonly number[]) => (values.length === 0 ? 0 : Math.max(...values) - Math.min(...values))

describe('layout of a map', () => {
  test.each(LayoutKind.options)('set as %s lets no two topics overlap, in any tree', (layout) => {
    fc.assert(
      fc.property(forest, fc.constantFrom(0.6, 1, 1.7), (saplings, spacing) => {
        const simple = saplings.map((one) => ({ ...one, layout: null, byHand: null, loose: false }))
        const records = recordsOf({ layout, spacing, numbering: null }, simple)
        expect(overlaps(layoutMap(records, MAP, CONTEXT))).toEqual([])
      }),
      { numRuns: 120 },
    )
  })

  test('lets no two topics overlap whatever is mixed: layouts in layouts, enclosures, kept places, loose branches', () => {
    fc.assert(
      fc.property(ground, forest, enclosures, (map, saplings, chosen) => {
        const records = recordsOf(map, saplings)
        enclose(records, saplings.length, chosen)
        expect(overlaps(layoutMap(records, MAP, CONTEXT))).toEqual([])
      }),
      { numRuns: 400 },
    )
  })

  test('children of one topic start in one column, whatever encloses some of them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('both', 'right', 'left', 'indented'),
        forest,
        enclosures,
        (kind, saplings, chosen) => {
          const simple = saplings.map((one) => ({ ...one, layout: null, byHand: null, loose: false }))
          const records = recordsOf(shape(kind), simple)
          // Three frames around one topic reach out over what it hangs on.
          enclose(records, simple.length, chosen.slice(0, 2))
          for (const { below } of layoutMap(records, MAP, CONTEXT).boxes) {
            for (const growth of ['right', 'left', 'indented'])
              expect(spread(below.filter((box) => box.growth === growth).map(nearX))).toBeLessThan(0.01)
          }
        },
      ),
      { numRuns: 150 },
    )
  })

  test('shows every topic once, but for those beneath a folded one', () => {
    fc.assert(
      fc.property(ground, forest, (map, saplings) => {
        const records = recordsOf(map, saplings)
        const { boxes } = layoutMap(records, MAP, CONTEXT)
        expect(new Set(boxes.map(({ topic }) => topic.id)).size).toBe(boxes.length)
        const hidden = boxes.reduce((sum, box) => sum + box.hidden, 0)
        expect(boxes.length + hidden).toBe(saplings.length)
      }),
      { numRuns: 200 },
    )
  })

  test('after any small change is exactly what a layout from nothing gives', () => {
    fc.assert(
      fc.property(
        ground,
        forest,
        enclosures,
        fc.array(fc.tuple(fc.nat(200), fc.nat(5)), { maxLength: 6 }),
        (map, saplings, chosen, steps) => {
          const records = recordsOf(map, saplings)
          enclose(records, saplings.length, chosen)
          const layouter = new MapLayouter(records, MAP, CONTEXT)
          layouter.layout(null)
          for (const [at, what] of steps) {
            const topic = records.need('topic', topicId(at % saplings.length))
            if (what === 0) records.put('topic', { ...topic, text: `${topic.text} and one more line of words` })
            else if (what === 1) records.put('topic', { ...topic, folded: !topic.folded })
            else if (what === 2 && parentOf(topic)) records.put('topic', { ...topic, trashed: !topic.trashed })
            else if (what === 3) records.put('topic', { ...topic, layout: 'down' })
            else if (what === 4) records.put('topic', { ...topic, width: 90 })
            else records.put('map', { ...records.need('map', MAP), spacing: 1.2 })
            expect(standing(layouter.layout(null))).toEqual(standing(layoutMap(records, MAP, CONTEXT)))
          }
        },
      ),
      { numRuns: 150 },
    )
  })

  test('gives the very boxes of before where nothing about them changed, and others where something did', () => {
    fc.assert(
      fc.property(
        ground,
        forest,
        fc.array(fc.tuple(fc.nat(200), fc.nat(2)), { maxLength: 8 }),
        (map, saplings, steps) => {
          const records = recordsOf(map, saplings)
          const layouter = new MapLayouter(records, MAP, CONTEXT)
          let before = layouter.layout(null)
          for (const [at, what] of steps) {
            const seen = new Map(before.boxes.map((box) => [box.topic.id, { ...box, below: [...box.below], box }]))
            const topic = records.need('topic', topicId(at % saplings.length))
            if (what === 0) records.put('topic', { ...topic, text: `${topic.text} more` })
            else if (what === 1) records.put('topic', { ...topic, folded: !topic.folded })
            else if (topic.place.kind === 'by hand')
              records.put('topic', { ...topic, place: { ...topic.place, x: at } })
            const after = layouter.layout(null)
            after.boxes.forEach((box, i) => {
              expect(box.index).toBe(i)
              expect(after.byKey.get(box.topic.id)).toBe(box)
              expect(before.byKey.get(box.topic.id)).toBe(seen.get(box.topic.id)?.box)
              expect(after.boxes[box.parent?.index ?? i]).toBe(box.parent ?? box)
              expect(box.below.every((child) => child.parent === box)).toBe(true)
              const old = seen.get(box.topic.id)
              const same = old?.face === box.face && old.x === box.x && old.y === box.y && old.hue === box.hue
              expect([box.topic.id, old?.box === box]).toEqual([box.topic.id, same])
            })
            expect(after.boxes.filter(({ parent }) => parent).length).toBe(
              after.boxes.reduce((sum, { below }) => sum + below.length, 0),
            )
            before = after
          }
        },
      ),
      { numRuns: 150 },
    )
  })

  test('keeps the identity of boxes that stayed as they were', () => {
    const records = recordsOf(shape('right'), [plain, plain, { ...plain, parent: 1 }, plain])
    const layouter = new MapLayouter(records, MAP, CONTEXT)
    const before = layouter.layout(null)
    const leaf = records.need('topic', topicId(2))
    records.put('topic', { ...leaf, text: 'Another' })
    const after = layouter.layout(null)
    expect(after.byKey.get(topicId(2))).not.toBe(before.byKey.get(topicId(2)))
    for (const i of [0, 1, 3]) expect(after.byKey.get(topicId(i))).toBe(before.byKey.get(topicId(i)))
    expect(after.byKey.get(topicId(2))!.parent).toBe(after.byKey.get(topicId(1)))
  })

  test('takes over branches in which nothing changed, also beside a loose branch and topics placed by hand', () => {
    const leaf = { ...plain, words: 2 }
    const records = recordsOf(shape('right'), [
      plain,
      plain,
      { ...leaf, parent: 1 },
      { ...leaf, parent: 1 },
      plain,
      { ...leaf, parent: 4 },
      { ...leaf, byHand: { x: 700, y: 900 } },
      { ...leaf, loose: true },
    ])
    const layouter = new MapLayouter(records, MAP, CONTEXT)
    const before = layouter.layout(null)
    const below = (layout: MapLayout, i: number) => layout.byKey.get(topicId(i))!.below
    const kept = [below(before, 1), below(before, 4)]
    records.put('topic', { ...records.need('topic', topicId(2)), text: 'Another' })
    const after = layouter.layout(null)
    expect(below(after, 1)).not.toBe(kept[0])
    // Had it been placed anew, it would have a list of its own.
    expect(below(after, 4)).toBe(kept[1])
  })

  test.each(['loose', 'by hand'])('takes little time for thousands of topics that are %s at one point', (kind) => {
    const piled = kind === 'loose' ? { ...plain, parent: 500, loose: true } : { ...plain, byHand: { x: 0, y: 0 } }
    const records = recordsOf(shape('both'), [plain, plain, ...Array.from({ length: 3_000 }, () => piled)])
    const start = performance.now()
    const layout = layoutMap(records, MAP, CONTEXT)
    expect(performance.now() - start).toBeLessThan(2_000)
    expect(overlaps(layout)).toEqual([])
  })

  test('is the same after a thousand changes, for which it begins with new numbers in between', () => {
    const records = recordsOf(shape('both'), [
      plain,
      ...Array.from({ length: 30 }, (_, i) => ({ ...plain, parent: i })),
    ])
    const layouter = new MapLayouter(records, MAP, CONTEXT)
    for (let i = 0; i < 1_000; i++) {
      records.put('topic', {
        ...records.need('topic', topicId(20 + (i % 9))),
        text: `Changed ${'again '.repeat(i % 5)}`,
      })
      layouter.layout(null)
    }
    expect(standing(layouter.layout(null))).toEqual(standing(layoutMap(records, MAP, CONTEXT)))
  })

  test('adding a leaf leaves every offset as it was, but for those between it and the root', () => {
    fc.assert(
      fc.property(fc.array(sapling, { minLength: 3, maxLength: 60 }), fc.nat(100), (saplings, under) => {
        const simple = saplings.map((one) => ({ ...one, layout: null, byHand: null, loose: false, folded: false }))
        const before = recordsOf(shape('both'), simple)
        const after = recordsOf(shape('both'), [...simple, { ...plain, parent: under % simple.length }])
        const offsets = (records: Records) =>
          new Map(
            layoutMap(records, MAP, CONTEXT).boxes.flatMap((box) =>
              box.parent
                ? [[box.topic.id as string, { parent: box.parent.topic.id as string, dy: box.y - box.parent.y }]]
                : [],
            ),
          )
        const way = new Set<string>()
        for (let at = after.get('topic', topicId(simple.length)); at; at = after.get('topic', parentOf(at)))
          way.add(at.id)
        const old = offsets(before)
        for (const [id, { parent, dy }] of offsets(after)) {
          if (way.has(parent)) continue
          expect(dy).toBeCloseTo(old.get(id)!.dy, 6)
        }
      }),
      { numRuns: 100 },
    )
  })
})

describe('the kinds of layout', () => {
  const family = [plain, plain, plain, { ...plain, left: true }]

  test('to both sides: first-level topics stand on their side, the root at their middle', () => {
    const records = recordsOf(shape('both'), family)
    const [root, first, second, left] = [0, 1, 2, 3].map((i) => boxOf(records, i))
    expect(first!.x).toBe(root!.x + root!.width + 32)
    expect(first!.x).toBe(second!.x)
    expect(left!.x + left!.width).toBeCloseTo(root!.x - 32)
    expect((first!.y + second!.y + second!.height) / 2).toBeCloseTo(root!.y + root!.height / 2)
    expect(root!.x + root!.width / 2).toBe(0)
  })

  test('right, left, down and up: all children on that side, whatever side is stored', () => {
    for (const [layout, holds] of [
      ['right', (root: TopicBox, child: TopicBox) => child.x >= root.x + root.width],
      ['left', (root: TopicBox, child: TopicBox) => child.x + child.width <= root.x],
      ['down', (root: TopicBox, child: TopicBox) => child.y >= root.y + root.height],
      ['up', (root: TopicBox, child: TopicBox) => child.y + child.height <= root.y],
    ] as const) {
      const records = recordsOf(shape(layout), family)
      for (const i of [1, 2, 3]) expect([layout, holds(boxOf(records, 0), boxOf(records, i))]).toEqual([layout, true])
    }
  })

  test('indented: one under the other, a step to the right of the parent', () => {
    const records = recordsOf(shape('indented'), [plain, plain, { ...plain, parent: 1 }, plain])
    const [root, first, below, second] = [0, 1, 2, 3].map((i) => boxOf(records, i))
    expect(first!.x).toBe(root!.x + 24)
    expect(below!.x).toBe(first!.x + 24)
    expect([root!.y, first!.y, below!.y, second!.y]).toEqual(
      [root!.y, first!.y, below!.y, second!.y].sort((a, b) => a - b),
    )
  })

  test('bottom up: what hangs on the first row stands above it, indented, and reads from top to bottom', () => {
    const records = recordsOf(shape('up'), [plain, plain, { ...plain, parent: 1 }, { ...plain, parent: 1 }])
    const [root, first, above, nearer] = [0, 1, 2, 3].map((i) => boxOf(records, i))
    expect([above!.y, nearer!.y, first!.y, root!.y]).toEqual(
      [above!.y, nearer!.y, first!.y, root!.y].sort((a, b) => a - b),
    )
    for (const box of [above!, nearer!]) expect(box.x).toBe(first!.x + 24)
  })

  test('along time: in the order of days, further apart the more days lie between, undated ones at the end', () => {
    const days = [0, 10, 100, null]
    const records = recordsOf(shape('time'), [plain, ...days.map((day) => ({ ...plain, day }))])
    const xs = [1, 2, 3, 4].map((i) => boxOf(records, i).x)
    expect((xs[1]! - xs[0]!) * 9).toBeCloseTo(xs[2]! - xs[1]!)
    expect(xs[3]).toBeGreaterThan(xs[2]!)
  })

  test('along time: no stem comes down through another branch', () => {
    const day = fc.integer({ min: 0, max: 60 })
    fc.assert(
      fc.property(
        fc.array(fc.tuple(day, fc.integer({ min: 0, max: 4 })), { minLength: 2, maxLength: 12 }),
        (branches) => {
          const specs = branches.flatMap(([day, below], i) => {
            const before = branches.slice(0, i).reduce((sum, [, count]) => sum + count + 1, 1)
            return [{ ...plain, day }, ...Array.from({ length: below }, () => ({ ...plain, parent: before }))]
          })
          const { boxes } = layoutMap(recordsOf(shape('time'), [plain, ...specs]), MAP, CONTEXT)
          const root = boxes[0]!
          for (const head of root.below)
            for (const box of boxes)
              if (box !== root && box !== head && box.parent !== head) {
                const stem = head.x - 8
                const crosses = stem > box.x && stem < box.x + box.width && box.y < head.y && box.y > root.y
                expect(crosses && `${box.topic.text} below ${head.topic.text}`).toBe(false)
              }
        },
      ),
    )
  })

  test('around a centre: clockwise, the right side from the top and the left from the bottom', () => {
    const records = recordsOf(shape('around'), [
      plain,
      plain,
      plain,
      { ...plain, left: true },
      { ...plain, left: true },
    ])
    const ys = [1, 2, 3, 4].map((i) => boxOf(records, i).y)
    expect(ys[0]).toBeLessThan(ys[1]!)
    expect(ys[2]).toBeGreaterThan(ys[3]!)
  })

  test('one inside another: a branch with a kind of its own', () => {
    const records = recordsOf(shape('right'), [
      plain,
      { ...plain, layout: 'down' },
      { ...plain, parent: 1 },
      { ...plain, parent: 1 },
    ])
    const [head, first, second] = [1, 2, 3].map((i) => boxOf(records, i))
    expect(first!.y).toBeGreaterThan(head!.y + head!.height)
    expect(second!.y).toBe(first!.y)
  })
})

describe('places of their own', () => {
  test('a topic placed by hand stands where it was put, and the rest makes room', () => {
    const at = { x: 90, y: 20 }
    const records = recordsOf(shape('right'), [plain, plain, plain, plain, { ...plain, parent: 1, byHand: at }])
    const layout = layoutMap(records, MAP, CONTEXT)
    expect(layout.byKey.get(topicId(4))).toMatchObject(at)
    expect(overlaps(layout)).toEqual([])
  })

  test('a loose branch moves clear of what stands where it was put', () => {
    const records = recordsOf(shape('right'), [plain, { ...plain, loose: true, parent: 500, words: 0 }])
    expect(boxOf(records, 1).y).toBeGreaterThan(boxOf(records, 0).y + boxOf(records, 0).height)
  })

  test('a topic with a width of its own breaks its text to it', () => {
    const records = recordsOf(shape('right'), [plain, { ...plain, words: 12 }])
    const before = boxOf(records, 1)
    records.put('topic', { ...records.need('topic', topicId(1)), width: 80 })
    const after = boxOf(records, 1)
    expect(after.text.width).toBe(80)
    expect(after.height).toBeGreaterThan(before.height)
  })
})

test('a branch keeps its hue when others come before it, go, or change places', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\nSummer\nAutumn')
  const hues = () =>
    Object.fromEntries(layoutMap(garden.records, map, CONTEXT).boxes.map(({ topic, hue }) => [topic.text, hue]))
  expect(hues()).toEqual({ Garden: -1, Spring: 0, Summer: 1, Autumn: 2 })
  garden.do((r, m) => addTopic(r, { parent: garden.topic('Garden'), after: null, text: 'Winter' }, m))
  garden.do((r, m) => stepTopic(r, { topic: garden.topic('Autumn'), step: 'up' }, m))
  garden.do((r, m) => deleteTopics(r, { topics: [garden.topic('Spring')] }, m))
  expect(hues()).toEqual({ Garden: -1, Winter: 3, Autumn: 2, Summer: 1 })
})

test('one branch alone stands where it does on the whole map, as do those of its topics that were placed by hand', () => {
  const by = { byHand: { x: 300, y: 120 } }
  const records = recordsOf(shape('both'), [
    plain,
    plain,
    { ...plain, parent: 1 },
    { ...plain, parent: 1, ...by },
    plain,
  ])
  const alone = new MapLayouter(records, MAP, CONTEXT).layout(topicId(1)).byKey
  const whole = layoutMap(records, MAP, CONTEXT).byKey
  const middle = (box: TopicBox) => [box.x + box.width / 2, box.y + box.height / 2]
  expect(middle(alone.get(topicId(1))!)).toEqual(middle(whole.get(topicId(1))!))
  const [there, here] = [whole.get(topicId(3))!, alone.get(topicId(3))!]
  expect([here.x, here.y]).toEqual([there.x, there.y])
})

test('one branch alone has nothing around it', () => {
  const records = recordsOf(shape('both'), [plain, plain, { ...plain, parent: 1 }, { ...plain, left: true }])
  const { boxes } = new MapLayouter(records, MAP, CONTEXT).layout(topicId(1))
  expect(boxes.map(({ topic, level, growth }) => [topic.id, level, growth])).toEqual([
    [topicId(1), 0, null],
    [topicId(2), 1, 'right'],
  ])
})

describe('enclosures', () => {
  test('take part as space: frames hold what they name and touch nothing else', () => {
    fc.assert(
      fc.property(forest, fc.nat(200), fc.nat(3), (saplings, at, more) => {
        const simple = saplings.map((one) => ({ ...one, layout: null, byHand: null, loose: false }))
        const records = recordsOf(shape('right'), simple)
        enclose(records, simple.length, [[at, more]])
        const layout = layoutMap(records, MAP, CONTEXT)
        for (const frame of layout.enclosures) {
          const named = new Set<string>(records.need('enclosure', frame.enclosure).topics)
          const isNamed = (box: TopicBox | null): boolean =>
            box !== null && (named.has(box.topic.id) || isNamed(box.parent))
          for (const box of layout.boxes) {
            const apart =
              box.x >= frame.x + frame.width ||
              box.x + box.width <= frame.x ||
              box.y >= frame.y + frame.height ||
              box.y + box.height <= frame.y
            expect([box.topic.id, apart]).toEqual([box.topic.id, !isNamed(box)])
          }
        }
      }),
      { numRuns: 150 },
    )
  })
})

test('200 levels, 2,000 siblings and a text of 5,000 letters find their place', () => {
  const deep = Array.from({ length: 200 }, (_, i) => ({ ...plain, parent: Math.max(0, i - 1) }))
  const wide = Array.from({ length: 2_000 }, () => ({ ...plain, parent: 0 }))
  for (const layout of LayoutKind.options) {
    expect(overlaps(layoutMap(recordsOf(shape(layout), deep), MAP, CONTEXT))).toEqual([])
    expect(overlaps(layoutMap(recordsOf(shape(layout), [plain, ...wide]), MAP, CONTEXT))).toEqual([])
  }
  const records = recordsOf(shape('right'), [plain, plain])
  records.put('topic', { ...records.need('topic', topicId(1)), text: 'x'.repeat(5_000) })
  expect(overlaps(layoutMap(records, MAP, CONTEXT))).toEqual([])
}, 30_000)
