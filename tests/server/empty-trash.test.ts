import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { CrosslinkId } from '../../src/core/records/ids'
import type { CollectionDigest } from '../../src/core/records/snapshot'
import { forgetInHistory } from '../../src/server/forgetting'
import { Caller } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => database.end())

test('what lay in the trash is nowhere any more; everybody hears of it, and nothing leads there or brings it back', async () => {
  const owner = await Caller.begin()
  const [garden, pond] = [await owner.grow('# Garden\n\n- Spring'), await owner.grow('# Pond\n\n- Heron\n\n  Shy.')]
  const [spring, heron] = [
    (await owner.map(garden)).topics.find(({ text }) => text === 'Spring')!,
    (await owner.map(pond)).topics.find(({ text }) => text === 'Heron')!,
  ]
  const link = CrosslinkId.parse(uuid())
  const to = { kind: 'topic' as const, id: heron.id }
  const after = { id: link, from: spring.id, to, label: '', drawn: 'line' as const, trashed: false }
  await owner.change([{ kind: 'crosslink', id: link, before: null, after }])
  const at = `/api/collections/${owner.collection}`
  expect((await owner.call('DELETE', `${at}/trash`)).status).toBe(404)
  expect((await owner.call('DELETE', `${at}/trash?map=${pond}`)).status).toBe(404)

  const trashing = uuid()
  await owner.send('POST', `${at}/commands/trash-maps`, { id: trashing, args: { maps: [pond] } })
  const { number } = await owner.map(garden)
  const listening = await owner.listen(number, [garden])
  expect(await owner.call('DELETE', `${at}/trash`)).toMatchObject({ status: 200, json: { maps: 1, topics: 2 } })
  expect((await listening.changes(1))[0]).toMatchObject({
    edits: [{ kind: 'crosslink', id: link, after: { trashed: true } }],
  })
  expect(await listening.next('resync')).not.toBeNull()
  await listening.close()

  const digest = (await owner.call('GET', at)).json as CollectionDigest
  expect(digest.maps.map(({ id, linked }) => [id, linked.length])).toEqual([[garden, 0]])
  expect((await owner.call('GET', `${at}/maps/${pond}`)).status).toBe(404)
  const { crosslinks, topics } = await owner.map(garden)
  expect(crosslinks).toEqual([])
  const { rows } = await database.query('SELECT label || edits::text AS said FROM change WHERE collection = $1', [
    owner.collection,
  ])
  const history = rows.map(({ said }) => said).join()
  expect(history).toContain('Spring')
  expect(history).not.toMatch(/Heron|Shy|Pond/)
  const undone = await owner.command('undo', { change: trashing })
  expect(undone.status).toBe(409)
  const { id } = topics.find(({ text }) => text === 'Spring')!
  const written = await owner.change([{ kind: 'topic', id, before: { text: 'Spring' }, after: { text: 'Summer' } }])
  expect(written).toMatchObject({ status: 200 })
})

test('what was removed for good goes from a long history in parts, and others go on working meanwhile', async () => {
  const owner = await Caller.begin()
  const [garden, pond] = [await owner.grow('# Garden\n\n- Spring'), await owner.grow('# Pond\n\n- Heron')]
  const at = `/api/collections/${owner.collection}`
  const heron = (await owner.map(pond)).topics.find(({ text }) => text === 'Heron')!
  for (let i = 0; i < 1_200; i += 100) {
    const changes = Array.from({ length: 100 }, (_, k) => ({
      id: uuid(),
      label: `Call it Heron ${i + k}`,
      undoes: null,
      edits: [{ kind: 'topic', id: heron.id, before: { text: '' }, after: { text: `Heron ${i + k}` } }],
    }))
    expect((await owner.send('POST', `${at}/changes`, { changes })).status).toBe(200)
  }
  await owner.send('POST', `${at}/commands/trash-maps`, { id: uuid(), args: { maps: [pond] } })
  const spring = (await owner.map(garden)).topics.find(({ text }) => text === 'Spring')!
  // Somebody writes elsewhere all the while: neither waits for the other for long, and neither fails.
  const emptied = owner.call('DELETE', `${at}/trash`)
  const written = Array.from({ length: 20 }, (_, i) =>
    owner.change([{ kind: 'topic', id: spring.id, before: { task: null }, after: { task: i % 2 ? 'open' : 'done' } }]),
  )
  for (const { status } of await Promise.all(written)) expect(status).toBe(200)
  expect(await emptied).toMatchObject({ status: 200, json: { maps: 1 } })
  const said =
    "SELECT count(*)::int FROM change WHERE collection = $1 AND (edits::text LIKE '%Heron%' OR label LIKE '%Heron%')"
  expect((await database.query(said, [owner.collection])).rows).toEqual([{ count: 0 }])
  const left = 'SELECT 1 FROM forgetting WHERE collection = $1'
  expect((await database.query(left, [owner.collection])).rows).toEqual([])
})

test('what was still to be forgotten at a stop is forgotten later, from where that was', async () => {
  const owner = await Caller.begin()
  const garden = await owner.grow('# Garden\n\n- Spring\n- Leeks')
  const { topics, number } = await owner.map(garden)
  const spring = topics.find(({ text }) => text === 'Spring')!
  await owner.change([{ kind: 'topic', id: spring.id, before: { text: 'Spring' }, after: { text: 'Spring again' } }])
  // As a server leaves it that ended after it had looked through the first changes.
  await database.query('INSERT INTO forgetting (collection, records, maps, done, last) VALUES ($1, $2, $3, $4, $5)', [
    owner.collection,
    [spring.id],
    [garden],
    number,
    number + 1,
  ])
  await forgetInHistory(null)
  const { rows } = await database.query(
    'SELECT number::int, label || edits::text AS said FROM change WHERE collection = $1',
    [owner.collection],
  )
  const withSpring = rows.filter(({ said }) => said.includes('Spring')).map((row) => row.number)
  expect(withSpring.length).toBeGreaterThan(0)
  expect(Math.max(...withSpring)).toBeLessThanOrEqual(number)
})
