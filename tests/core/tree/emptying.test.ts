import fc from 'fast-check'
import { expect, test } from 'vitest'
import { prepareChange } from '../../../src/core/changes/prepare'
import { Refusal } from '../../../src/core/changes/problem'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { makeDoorway } from '../../../src/core/commands/doorways'
import { trashMap } from '../../../src/core/commands/maps'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { kinds, RECORD_KINDS } from '../../../src/core/records/kinds'
import type { Records } from '../../../src/core/records/records'
import { endsOf } from '../../../src/core/records/reference-path'
import { emptying } from '../../../src/core/tree/emptying'
import { act, perform } from '../acts'
import { Garden } from '../gardens'

const trashed = (records: Records) => [...records.all('map')].filter((map) => map.trashed).map(({ id }) => id)

/** Removes as the server does. */
function empty(records: Records) {
  const { letGo, gone } = emptying(records, trashed(records))
  const prepared = prepareChange(records, letGo, true)
  expect(prepared).toMatchObject({ ok: true })
  for (const [kind, ids] of gone) for (const id of ids) records.remove(kind, id)
  return gone
}

/** References of what is there that lead to what is not. */
function* dangling(records: Records) {
  for (const kind of RECORD_KINDS)
    for (const record of records.all(kind))
      for (const reference of kinds[kind].references)
        for (const end of endsOf(record, reference))
          if (!records.get(end.kind as 'topic', end.id)) yield `${kind} ${record.id}: ${reference.path}`
}

test('a map goes with what is on it; what stays lets go of it, and keeps what it shares', () => {
  const garden = new Garden()
  garden.grow('Home\nWay\nIdea')
  const pond = garden.grow('Pond\nReeds\nFrogs')
  const [way, idea, reeds, frogs] = ['Way', 'Idea', 'Reeds', 'Frogs'].map((text) => garden.topic(text))
  garden.do((r, m) => makeDoorway(r, { topic: way!, map: pond }, m))
  garden.do((r, m) => addCrosslink(r, { from: idea!, to: { kind: 'topic', id: reeds! }, drawn: 'line' }, m))
  garden.do((r, m) => addWeblink(r, { topic: reeds!, url: 'https://pond.example', title: 'Pond' }, m))
  garden.do((r, m) => writeNote(r, { topic: frogs!, base: '', text: 'Green.' }, m))
  garden.do((r, m) => writeNote(r, { topic: idea!, base: '', text: 'Shared.' }, m))
  const { note } = garden.records.need('topic', idea!)
  garden.records.put('topic', { ...garden.records.need('topic', reeds!), note })
  expect(emptying(garden.records, [pond]).gone.size).toBe(0)
  garden.do((r, m) => trashMap(r, { map: pond }, m))
  const gone = empty(garden.records)
  expect([...gone].map(([kind, ids]) => `${ids.size} ${kind}`).sort()).toEqual([
    '1 crosslink',
    '1 map',
    '1 note',
    '1 weblink',
    '3 topic',
  ])
  expect(garden.records.need('topic', way!).opensMap).toBeNull()
  expect(garden.records.need('note', note).text).toBe('Shared.')
  expect([...dangling(garden.records)]).toEqual([])
})

test('whatever was done before, nothing that stays leads to what went, and no topic of another map goes', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
      const garden = new Garden()
      garden.grow('Garden\nSpring\n  Sow\n  Prune\nSummer')
      garden.grow('Pond\nReeds\n  North')
      for (const next of acts)
        try {
          garden.do((records, newIds) => perform(records, newIds, next))
        } catch (error) {
          if (!(error instanceof Refusal || error instanceof RangeError)) throw error
        }
      const maps = new Set<string>(trashed(garden.records))
      const stay = [...garden.records.all('topic')].filter(({ place }) => !maps.has(place.map)).map(({ id }) => id)
      empty(garden.records)
      expect([...garden.records.all('topic')].map(({ id }) => id).sort()).toEqual([...stay].sort())
      expect([...dangling(garden.records)]).toEqual([])
    }),
    { numRuns: 150 },
  )
})
