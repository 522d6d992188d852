import { v7 as uuid } from 'uuid'
import { beforeAll, expect, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { database } from '../../src/server/database'
import { catchUp } from '../../src/server/search/search-index'
import { Caller } from './people'

let owner: Caller
let bog = ''
beforeAll(async () => {
  owner = await Caller.begin()
  bog = await owner.grow('# Raised bog\n\n- Dipwells\n  - Reading through ice\n- Café at the hut\n- Straße')
})

const search = async (parameters: Record<string, string>) => {
  const path = `/api/collections/${owner.collection}/search?${new URLSearchParams(parameters)}`
  return (await owner.call('GET', path)).json as {
    rows: { kind: string; text: string; way: string[]; mapTitle: string }[]
    words: string[]
    isPartial: boolean
  }
}
const texts = async (words: string) => (await search({ words })).rows.map(({ text }) => text)
const topicNamed = async (text: string) => (await owner.map(bog)).topics.find((topic) => topic.text === text)!
const set = async (text: string, after: object) => {
  const { id } = await topicNamed(text)
  await owner.change([{ kind: 'topic', id, before: {}, after } as unknown as Edit])
}

test('beginnings of words are found in any order, whatever their accents, with the way to where they stand', async () => {
  const { rows } = await search({ words: 'ICE read' })
  expect(rows).toMatchObject([
    { kind: 'topic', text: 'Reading through ice', mapTitle: 'Raised bog', way: ['Raised bog', 'Dipwells'] },
  ])
  expect(await texts('cafe')).toEqual(['Café at the hut'])
  expect(await texts('strasse')).toEqual(['Straße'])
})

test('parts of words and mistyped ones count where little else was found, and the words that were meant are told', async () => {
  expect(await texts('wells')).toEqual(['Dipwells'])
  expect((await search({ words: 'dipwelss' })).words).toEqual(['dipwelss', 'dipwells'])
  // A letter too few, too many, another one, two exchanged.
  for (const words of ['dpwells', 'dippwells', 'dipwolls', 'dipewlls', 'thruogh'])
    expect(await texts(words), words).toHaveLength(1)
  expect(await texts('zebra')).toEqual([])
})

test('what was just written is found, and what is gone is not', async () => {
  await set('Café at the hut', { text: 'Kitchen at the hut' })
  expect([await texts('kitchen'), await texts('café')]).toEqual([['Kitchen at the hut'], []])
  await set('Dipwells', { trashed: true })
  expect(await texts('dipwells ice')).toEqual([])
  expect(await texts('ice')).toEqual([])
  await set('Dipwells', { trashed: false })
  expect(await texts('ice')).toEqual(['Reading through ice'])
})

test('kinds, one map and one tag narrow what is found; a tag alone gives all that carries it', async () => {
  const other = await owner.grow('# Hut\n\n- Ice box')
  const tag = uuid()
  const { id } = (await owner.map(other)).topics.find(({ text }) => text === 'Ice box')!
  await owner.change([
    { kind: 'tag', id: tag, before: null, after: { id: tag, name: 'icy', tone: null, trashed: false } },
    { kind: 'topic', id, before: { tags: [] }, after: { tags: [tag] } },
  ] as unknown as Edit[])
  expect(new Set(await texts('ice'))).toEqual(new Set(['Ice box', 'Reading through ice']))
  const only = async (parameters: Record<string, string>) => (await search(parameters)).rows.map(({ text }) => text)
  expect(await only({ words: 'ice', map: bog })).toEqual(['Reading through ice'])
  expect(await only({ words: 'ice', tag })).toEqual(['Ice box'])
  expect(await only({ words: '', tag })).toEqual(['Ice box'])
  expect(await only({ words: 'ic', kinds: 'tag' })).toEqual(['icy'])
  const answer = await owner.call('GET', `/api/collections/${owner.collection}/search?words=ice&kinds=person`)
  expect(answer.status).toBe(400)
})

test('signs that mean something to the database are words or nothing', async () => {
  for (const words of ["'", "ice' | 'bog", 'ice:* & !bog', '\\', '<->', '(((', 'ice\u0000', '%', 'a'.repeat(200)])
    expect(
      (await owner.call('GET', `/api/collections/${owner.collection}/search?words=${encodeURIComponent(words)}`))
        .status,
    ).toBe(200)
})

test('what is removed for good is in no index any more, and two who search at once make one', async () => {
  const gone = await owner.grow('# Quagmire\n\n- Unmistakable')
  expect(await texts('unmistakable')).toEqual(['Unmistakable'])
  expect((await owner.command('trash-maps', { maps: [gone] })).status).toBe(200)
  expect((await owner.call('DELETE', `/api/collections/${owner.collection}/trash`)).status).toBe(200)
  const { rows } = await database().query('SELECT word FROM search_word WHERE collection = $1', [owner.collection])
  expect(rows).toEqual([])
  await Promise.all([catchUp(owner.collection), texts('ice'), texts('bog'), catchUp(owner.collection)])
  expect(await texts('unmistakable')).toEqual([])
  expect(await texts('reading')).toEqual(['Reading through ice'])
  const words = await database().query('SELECT word FROM search_word WHERE collection = $1', [owner.collection])
  expect(words.rows.map(({ word }) => word)).not.toContain('unmistakable')
})
