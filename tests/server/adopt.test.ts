import { v7 as uuid } from 'uuid'
import { expect, test } from 'vitest'
import { PLAIN_MAP } from '../../src/core/commands/maps'
import type { MapSnapshot } from '../../src/core/records/snapshot'
import { BARE_TOPIC } from '../../src/core/records/topic'
import { Caller } from './people'

const map = uuid()
const [root, reading, winter] = [uuid(), uuid(), uuid()]
const note = uuid()
const topic = (id: string, place: object, text: string, more = {}) => ({
  kind: 'topic' as const,
  id,
  before: null,
  after: { ...BARE_TOPIC, id, place, text, ...more },
})

/** Somebody with two collections, in the first of which there is a map with a note and a file. */
async function twoCollections() {
  const person = await Caller.begin()
  const { json } = await person.send('POST', '/api/collections', { title: 'Second' })
  const second = (json as { collection: string }).collection
  const below = (rank: string) => ({ kind: 'arranged', map, parent: root, rank, side: 'right' })
  const made = await person.change([
    {
      kind: 'map',
      id: map,
      before: null,
      after: { ...PLAIN_MAP, id: map, title: 'Wells', trashed: false },
    },
    topic(root, { kind: 'root', map }, 'Wells'),
    topic(reading, below('a0'), 'Reading', { note }),
    topic(winter, below('a1'), 'Winter'),
    {
      kind: 'note',
      id: note,
      before: null,
      after: { id: note, text: 'Once a fortnight.', joinedInto: null, trashed: false },
    },
  ] as never)
  expect(made.text).toContain('"ok":true')
  const file = `/api/collections/${person.collection}/files?topic=${winter}&name=frost.txt`
  expect((await person.call('POST', file, 'Frost on 40 days.')).status).toBe(201)
  const adopt = (into: string, from: string, of: string, id = uuid(), who = person) =>
    who.send('POST', `/api/collections/${into}/adopted`, { id, from, map: of })
  const seen = async (collection: string, of: string) =>
    (await person.call('GET', `/api/collections/${collection}/maps/${of}`)).json as MapSnapshot
  return { person, second, adopt, seen }
}

test('a map comes into another collection with all that is on it, once, and only for those to whom it is open', async () => {
  const { person, second, adopt, seen } = await twoCollections()
  const id = uuid()
  const first = await adopt(second, person.collection, map, id)
  expect(first).toMatchObject({ status: 200 })
  const { map: copy } = first.json as { map: string }
  expect((await adopt(second, person.collection, map, id)).json).toMatchObject({ map: copy })
  const { records } = await seen(second, copy)
  expect(records.topic?.map(({ text }) => text).sort()).toEqual(['Reading', 'Wells', 'Winter'])
  expect(records.note).toMatchObject([{ text: 'Once a fortnight.' }])
  const [file] = records.file ?? []
  expect(file!.name).toBe('frost.txt')
  const content = await person.call('GET', `/api/collections/${second}/files/${file!.id}`)
  expect(content.text).toBe('Frost on 40 days.')

  const stranger = await Caller.begin()
  const refused = await adopt(stranger.collection, person.collection, map, uuid(), stranger)
  expect(refused.status).toBe(404)
  expect((await adopt(second, second, copy)).status).toBe(400)
  expect((await adopt(second, person.collection, uuid())).status).toBe(404)
})

test('a copy that was changed elsewhere comes back, and only what was changed there is taken', async () => {
  const { person, second, adopt, seen } = await twoCollections()
  const { map: away } = (await adopt(second, person.collection, map)).json as { map: string }
  const theirs = (await seen(second, away)).records
  const there = theirs.topic!.find(({ text }) => text === 'Winter')!
  const reworded = { kind: 'topic', id: there.id, before: { text: 'Winter' }, after: { text: 'Under ice' } }
  expect((await person.change([reworded as never], uuid(), second)).status).toBe(200)
  const mine = { kind: 'topic', id: reading, before: { text: 'Reading' }, after: { text: 'Dipping' } }
  expect((await person.change([mine as never])).status).toBe(200)
  const { map: back } = (await adopt(person.collection, second, away)).json as { map: string }
  const plan = await person.send('POST', `/api/collections/${person.collection}/merge-plan`, {
    target: map,
    sources: [back],
    way: 'combined',
  })
  const { decisions } = (plan.json as { plan: { decisions: { act: string; into: string; choice?: object }[] } }).plan
  expect(decisions.map(({ act, into }) => [act, into]).sort()).toEqual(
    [root, reading, winter].map((at) => ['join', at]).sort(),
  )
  expect((await person.command('merge', { plan: (plan.json as { plan: object }).plan })).status).toBe(200)
  const texts = (await seen(person.collection, map)).records.topic!.map(({ text }) => text)
  expect(texts.sort()).toEqual(['Dipping', 'Under ice', 'Wells'])
})
