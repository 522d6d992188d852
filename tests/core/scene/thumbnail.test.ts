import { expect, test } from 'vitest'
import { buildScene } from '../../../src/core/scene/scene'
import { Thumbnail, thumbnailOf } from '../../../src/core/scene/thumbnail'
import { CONTEXT } from '../gardens'
import { MAP, plain, recordsOf } from '../layout/forests'

const shape = { layout: 'both' as const, spacing: 1, numbering: null }
const thumbnail = (parents: readonly number[]) =>
  thumbnailOf(
    buildScene(
      recordsOf(shape, [plain, ...parents.map((parent, i) => ({ ...plain, parent, left: i % 2 === 1 }))]),
      MAP,
      CONTEXT,
    ),
  )
const count = (path: string) => path.split('M').length - 1

test('a thumbnail has a bar for each topic in its hue and a line to each child, all of it within its raster', () => {
  const made = Thumbnail.parse(thumbnail([0, 0, 1, 1, 2]))
  expect(made.bars.reduce((sum, { d }) => sum + count(d), 0)).toBe(6)
  expect(made.bars.length).toBe(3)
  expect(count(made.lines)).toBe(5)
  const numbers = [...made.lines.matchAll(/-?\d+/g)].map(Number)
  expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0)
  expect(Math.max(...numbers)).toBeLessThanOrEqual(Math.max(made.width, made.height))
  expect(Math.max(made.width, made.height)).toBe(360)
})

test('a map of 20,000 topics has a thumbnail no larger than its raster allows', () => {
  const large = thumbnail(Array.from({ length: 20_000 }, (_, i) => Math.floor(i / 4)))
  expect(JSON.stringify(large).length).toBeLessThan(200_000)
})
