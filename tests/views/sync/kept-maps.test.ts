import * as fake from 'fake-indexeddb'
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest'
import type { ToldChange } from '../../../src/core/changes/edit'
import type { CollectionDigest } from '../../../src/core/records/snapshot'
import {
  forgetKept,
  forgetKeptCollection,
  keepDigest,
  keepMap,
  keepRows,
  keepTold,
  keptCollection,
  keptMap,
} from '../../../src/views/sync/kept-maps'

const digest = (number: number, id = 'Garden', person = 'Ada') =>
  ({ number, collection: { id }, person, maps: [] }) as unknown as CollectionDigest
const told = (number: number, edits: object[] | null = []) => ({ number, edits }) as unknown as ToldChange
const numbersOf = async (collection: string) => (await keptCollection(collection))?.told.map(({ number }) => number)

beforeAll(() => {
  const { default: _, indexedDB, ...types } = fake
  for (const [name, part] of Object.entries({ indexedDB, ...types })) vi.stubGlobal(name, part)
})
afterAll(() => void vi.unstubAllGlobals())
beforeEach(forgetKept)

describe('what a browser keeps of maps', () => {
  test('is found again: the collection, its maps as they were answered, and what was told since, in order', async () => {
    await keepDigest(digest(7))
    await keepMap('Garden', 'beds', '{"number":7}')
    await keepTold('Garden', [told(8), told(9)])
    await keepTold('Garden', [told(10)])
    await keepRows('Garden', [{ id: 'beds' }] as unknown as CollectionDigest['maps'])
    expect(await keptMap('Garden', 'beds')).toBe('{"number":7}')
    expect(await keptMap('Shed', 'beds')).toBeNull()
    expect(await numbersOf('Garden')).toEqual([8, 9, 10])
    expect(await keptCollection('Garden')).toMatchObject({ since: 7, digest: { number: 7, maps: [{ id: 'beds' }] } })
    expect(await keptCollection('Shed')).toBeNull()
  })

  test('keeps a change with its edits where another window was told of it without them', async () => {
    await keepDigest(digest(7))
    await keepTold('Garden', [told(8, [{}])])
    await keepTold('Garden', [told(8, null)])
    expect((await keptCollection('Garden'))?.told[0]?.edits).toHaveLength(1)
    await keepTold('Garden', [told(9, null)])
    await keepTold('Garden', [told(9, [{}])])
    expect((await keptCollection('Garden'))?.told[1]?.edits).toHaveLength(1)
  })

  test('has no gap: what was told before goes when not all of what came after was heard', async () => {
    await keepDigest(digest(7))
    await keepTold('Garden', [told(8), told(9)])
    // Another window has begun, of which this one heard everything so far.
    await keepDigest(digest(9))
    expect(await numbersOf('Garden')).toEqual([8, 9])
    await keepDigest(digest(12))
    expect(await keptCollection('Garden')).toMatchObject({ since: 12, told: [] })
  })

  test('is bounded: the last thousand changes, and the sixty maps that were opened last', async () => {
    await keepDigest(digest(0))
    await keepTold(
      'Garden',
      Array.from({ length: 1_200 }, (_, i) => told(i + 1)),
    )
    const kept = await keptCollection('Garden')
    expect([kept?.since, kept?.told.length, kept?.told[0]?.number]).toEqual([200, 1_000, 201])
    for (let i = 0; i < 62; i++) await keepMap('Garden', `map ${i}`, '{}')
    expect(await Promise.all([0, 1, 2, 61].map((i) => keptMap('Garden', `map ${i}`)))).toEqual([null, null, '{}', '{}'])
  })

  test('is one person’s: what was kept for somebody else goes when another signs in', async () => {
    await keepDigest(digest(7))
    await keepMap('Garden', 'beds', '{}')
    await keepDigest(digest(3, 'Shed', 'Ben'))
    expect(await keptCollection('Garden')).toBeNull()
    expect(await keptMap('Garden', 'beds')).toBeNull()
    expect(await keptCollection('Shed')).not.toBeNull()
  })

  test('of a collection goes alone', async () => {
    await keepDigest(digest(7))
    await keepDigest(digest(7, 'Shed'))
    await keepMap('Garden', 'beds', '{}')
    await keepMap('Shed', 'tools', '{}')
    await keepTold('Garden', [told(8)])
    await forgetKeptCollection('Garden')
    expect([await keptCollection('Garden'), await keptMap('Garden', 'beds')]).toEqual([null, null])
    expect(await keptMap('Shed', 'tools')).toBe('{}')
  })
})
