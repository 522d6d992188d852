import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Edit } from '../../../src/core/changes/edit'
import { inParts } from '../../../src/core/changes/in-parts'
import { prepareChange } from '../../../src/core/changes/prepare'
import { undoChange } from '../../../src/core/changes/undo'
import { importPages } from '../../../src/core/commands/import-pages'
import { ChangeId } from '../../../src/core/records/ids'
import { act, perform } from '../acts'
import { COLLECTION, contents, Garden } from '../gardens'

const WORDS = ['Bed', 'Rose', 'Path', 'Gate']

/** Pages that open, link and quote one another in whatever way. */
const pages = fc
  .array(fc.array(fc.tuple(fc.nat(2), fc.nat(3), fc.nat(7), fc.boolean()), { minLength: 1, maxLength: 12 }), {
    minLength: 1,
    maxLength: 5,
  })
  .map((all) =>
    all.map((lines, page) => ({
      path: `page-${page}.md`,
      text: [
        `# Page ${page}`,
        ...lines.map(([depth, word, to, isNote]) => {
          const link = to < all.length ? `[${WORDS[word]}](page-${to}.md)` : `${WORDS[word]} ${to}`
          return isNote ? `\nWords about ${link}.\n` : `${'  '.repeat(depth)}- ${link}`
        }),
      ].join('\n'),
    })),
  )

const apply = (garden: Garden, parts: readonly (readonly Edit[])[]) => {
  for (const part of parts) {
    const prepared = prepareChange(garden.records, part, true)
    if (!prepared.ok) throw new Error(prepared.problem.message)
  }
}

test('the parts of an import can each stand, come to the same as the whole, and are taken back as one', () => {
  fc.assert(
    fc.property(pages, fc.integer({ min: 1, max: 9 }), (given, most) => {
      const [whole, cut] = [new Garden(), new Garden()]
      const { change } = importPages(
        whole.records,
        { collection: COLLECTION, pages: given, files: new Map() },
        whole.newIds,
      )
      const nothing = contents(cut.records)
      apply(whole, [change.edits])
      const parts = inParts(change.edits, most)
      apply(cut, parts)
      expect(contents(cut.records)).toEqual(contents(whole.records))
      expect(parts.flat()).toHaveLength(change.edits.length)
      const undone = undoChange(cut.records, change, ChangeId.parse(cut.newIds.newId())).change!
      apply(cut, [undone.edits])
      expect([...cut.records.all('map')].every(({ trashed }) => trashed)).toBe(true)
      expect(contents(cut.records).collection).toEqual(nothing.collection)
    }),
    { numRuns: 300 },
  )
})

test('a whole collection, whatever has been done in it, can be brought in by parts', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 40 }), fc.integer({ min: 1, max: 9 }), (acts, most) => {
      const [made, cut] = [new Garden(), new Garden()]
      made.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
      made.grow('Neighbour\nSpring\n  Prune')
      for (const chosen of acts)
        try {
          made.do((records, newIds) => perform(records, newIds, chosen))
        } catch (error) {
          if (!(error instanceof Error)) throw error
        }
      const {
        collection: [own],
        ...rest
      } = contents(made.records)
      const created = Object.entries(rest).flatMap(([kind, records]) =>
        records.map((record) => ({ kind, id: record.id, before: null, after: record }) as Edit),
      )
      const { id, homeMap } = own!
      const edits: Edit[] = [...created, { kind: 'collection', id, before: {}, after: { homeMap } }]
      apply(cut, inParts(edits, most))
      expect(contents(cut.records)).toEqual(contents(made.records))
    }),
    { numRuns: 200 },
  )
}, 60_000)

test('a map of ten thousand topics is cut in parts of no more than was asked, in a moment', () => {
  const garden = new Garden()
  const text = `# Large\n\n${Array.from({ length: 9_999 }, (_, i) => `${'  '.repeat(i % 4)}- Topic ${i}`).join('\n')}`
  const { change } = importPages(
    garden.records,
    { collection: COLLECTION, pages: [{ path: 'large.md', text }], files: new Map() },
    garden.newIds,
  )
  const parts = inParts(change.edits, 1_000)
  expect(Math.max(...parts.map(({ length }) => length))).toBe(1_000)
  expect(parts).toHaveLength(Math.ceil(change.edits.length / 1_000))
  apply(garden, parts)
  expect(garden.records.count('topic')).toBe(10_000)
})
