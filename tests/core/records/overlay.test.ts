import fc from 'fast-check'
import { expect, test } from 'vitest'
import { RECORD_KINDS, type RecordKind } from '../../../src/core/records/kinds'
import { Overlay } from '../../../src/core/records/overlay'
import { parentOf } from '../../../src/core/records/place'
import { Records } from '../../../src/core/records/records'
import { act, perform } from '../acts'
import { contents, Garden } from '../gardens'

const copyOf = (records: Records): Records => {
  const copy = new Records()
  const putAll = <K extends RecordKind>(kind: K) => {
    for (const record of records.all(kind)) copy.put(kind, record)
  }
  for (const kind of RECORD_KINDS) putAll(kind)
  return copy
}

/** Everything that can be looked up, for comparing. */
const lookedUp = (records: Records) => ({
  contents: contents(records),
  topics: [...records.all('topic')]
    .map(({ id, place, note }) => ({
      id,
      children: records.childrenWithTrashed(id).map((child) => child.id),
      shown: records.children(id).map((child) => child.id),
      out: records.crosslinksFrom(id),
      in: records.crosslinksTo('topic', id),
      enclosures: records.enclosuresOf(id),
      arriving: records.mapsArrivingBy(id),
      carriers:
        note &&
        records
          .carriersOf(note)
          .map((carrier) => carrier.id)
          .sort(),
      loose: records.looseBranches(place.map),
      root: records.root(place.map),
    }))
    .sort((a, b) => (a.id < b.id ? -1 : 1)),
})

test('records over others read like a copy to which the same was put, and leave the others alone', () => {
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), fc.nat(8), (acts, early) => {
      const garden = new Garden()
      garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
      garden.grow('Neighbour\nSpring\n  Prune')
      const puts: [RecordKind, never][] = []
      for (const [i, chosen] of acts.entries())
        try {
          const { change } = garden.do((records, newIds) => perform(records, newIds, chosen))
          if (i >= early)
            for (const { kind, id } of change.edits) puts.push([kind, garden.records.need(kind, id) as never])
        } catch {
          // Refused acts are no matter here.
        }
      const base = new Garden()
      base.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
      base.grow('Neighbour\nSpring\n  Prune')
      const before = contents(base.records)
      const [over, copy] = [new Overlay(base.records), copyOf(base.records)]
      for (const [kind, record] of puts) {
        over.put(kind, record)
        copy.put(kind, record)
        // Asking in between fills what is kept for the next question.
        for (const topic of over.all('topic')) over.children(parentOf(topic) ?? topic.id)
      }
      expect(lookedUp(over)).toEqual(lookedUp(copy))
      expect(contents(base.records)).toEqual(before)
    }),
    { numRuns: 150 },
  )
}, 60_000)
