import fc from 'fast-check'
import { expect, test } from 'vitest'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { placeByHand } from '../../../src/core/commands/places'
import type { Bounds, TopicBox } from '../../../src/core/layout/boxes'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { CONTEXT, Garden } from '../gardens'

const NAMES = Array.from({ length: 14 }, (_, i) => `Row ${i}`)
const PADDING = 10
const TITLE = 40

/** A map whose topics were placed by hand, some of them in an enclosure. */
function enclosed(points: readonly { x: number; y: number }[], chosen: readonly string[]) {
  const garden = new Garden()
  const map = garden.grow(`Garden\n${NAMES.map((name, i) => `${i % 4 === 3 ? '  ' : ''}${name}`).join('\n')}`)
  NAMES.forEach((name, i) => {
    const place = { topic: garden.topic(name), at: points[i]!, side: 'right' as const }
    garden.do((r, ids) => placeByHand(r, { topics: [place] }, ids))
  })
  const topics = chosen.map((name) => garden.topic(name))
  garden.do((r, ids) => encloseTopics(r, { topics, title: 'Beds' }, ids))
  const { boxes, enclosures } = layoutMap(garden.records, map, CONTEXT)
  const isInside = (box: TopicBox | null): boolean =>
    box !== null && (topics.includes(box.topic.id) || isInside(box.parent))
  return { boxes, enclosures, isInside }
}

const touches = (a: Bounds, b: Bounds) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

/** A frame without the room around what is in it, which may reach what stands close by. */
const core = ({ x, y, width, height, isTitled }: Bounds & { isTitled: boolean }): Bounds => {
  const title = isTitled ? TITLE : 0
  return { x: x + PADDING, y: y + PADDING + title, width: width - 2 * PADDING, height: height - 2 * PADDING - title }
}

test('topics placed by hand beside one another have one frame; where another stands between them, as many as it takes', () => {
  const near = NAMES.map((_, i) => ({ x: 400, y: i * 60 }))
  const [one] = [enclosed(near, ['Row 0', 'Row 1'])]
  expect(one.enclosures).toHaveLength(1)
  const apart = enclosed(near, ['Row 0', 'Row 1', 'Row 4'])
  expect(apart.enclosures.map(({ isTitled }) => isTitled)).toEqual([true, false])
})

test('frames hold what is in the enclosure and nothing else, wherever a person put it', () => {
  const point = fc.record({ x: fc.integer({ min: -600, max: 600 }), y: fc.integer({ min: -400, max: 400 }) })
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 14, maxLength: 14 }),
      fc.uniqueArray(fc.constantFrom(...NAMES.filter((_, i) => i % 4 !== 3)), { minLength: 1, maxLength: 6 }),
      (points, chosen) => {
        const { boxes, enclosures, isInside } = enclosed(points, chosen)
        for (const box of boxes)
          if (isInside(box)) expect(enclosures.some((frame) => touches(frame, box))).toBe(true)
          else expect(enclosures.filter((frame) => touches(core(frame), box))).toEqual([])
        expect(enclosures.filter(({ isTitled }) => isTitled)).toHaveLength(1)
        expect(new Set(enclosures.map(({ key }) => key)).size).toBe(enclosures.length)
      },
    ),
    { numRuns: 200 },
  )
})
