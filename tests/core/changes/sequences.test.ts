import fc from 'fast-check'
import { expect, test } from 'vitest'
import { revertEdits } from '../../../src/core/changes/edit'
import { prepareChange } from '../../../src/core/changes/prepare'
import { Refusal } from '../../../src/core/changes/problem'
import type { Outcome } from '../../../src/core/commands/command'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { isRoot, parentOf } from '../../../src/core/records/place'
import type { Records } from '../../../src/core/records/records'
import { isInTrash } from '../../../src/core/tree/walk'
import { act, perform } from '../acts'
import { contents, Garden } from '../gardens'

/** What must hold whatever people do; told independently of the checks in core. */
function expectInvariants(records: Records): void {
  for (const map of records.all('map')) {
    if (map.trashed) continue
    expect(records.heads(map.id).filter((topic) => isRoot(topic) && !topic.trashed)).toHaveLength(1)
    const seen = new Set<string>()
    for (
      let at: typeof map | undefined = map;
      at;
      at = records.get('map', records.get('topic', at.homeDoorway)?.place.map ?? null)
    ) {
      expect(seen.has(at.id)).toBe(false)
      seen.add(at.id)
    }
  }
  for (const topic of records.all('topic')) {
    const parent = records.get('topic', parentOf(topic))
    if (parentOf(topic)) expect(parent?.place.map).toBe(topic.place.map)
    if (topic.note) expect(records.get('note', topic.note)).toBeDefined()
    const ranks = records.childrenWithTrashed(topic.id).map((child) => 'rank' in child.place && child.place.rank)
    expect(new Set(ranks).size).toBe(ranks.length)
    const seen = new Set<string>()
    for (let at: typeof topic | undefined = topic; at; at = records.get('topic', parentOf(at))) {
      expect(seen.has(at.id)).toBe(false)
      seen.add(at.id)
    }
  }
  for (const link of records.all('crosslink'))
    expect(records.get('topic', link.from) && records.get(link.to.kind, link.to.id)).toBeDefined()
}

test('whatever people do, the invariants hold and every change inverts exactly', () => {
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 30 }), (acts) => {
      const garden = new Garden()
      garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
      garden.grow('Neighbour\nSpring\n  Prune')
      const { records, newIds } = garden
      for (const chosen of acts) {
        let outcome: Outcome
        try {
          outcome = perform(records, newIds, chosen)
        } catch (error) {
          if (error instanceof Refusal || error instanceof RangeError) continue
          throw error
        }
        const before = contents(records)
        const prepared = prepareChange(records, outcome.change.edits, true)
        if (!prepared.ok) {
          expect(contents(records)).toEqual(before)
          throw new Error(`${JSON.stringify(chosen)} ${outcome.change.label}: ${prepared.problem.message}`)
        }
        const after = contents(records)
        revertEdits(records, prepared.edits)
        expect(contents(records)).toEqual(before)
        expect(prepareChange(records, prepared.edits, true).ok).toBe(true)
        expect(contents(records)).toEqual(after)
        expectInvariants(records)
      }
    }),
    { numRuns: 600 },
  )
}, 120_000)

test('a topic in the trash is found to be there from anywhere below', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas')
  const peas = garden.records.need('topic', garden.topic('Sow peas'))
  garden.do((records, newIds) => deleteTopics(records, { topics: [garden.topic('Spring')] }, newIds))
  expect(isInTrash(garden.records, peas)).toBe(true)
})
