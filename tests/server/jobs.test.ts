import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { blankTopic } from '../../src/core/commands/blank-topic'
import { PLAIN_MAP } from '../../src/core/commands/maps'
import { MapId, TopicId } from '../../src/core/records/ids'
import type { ToldJob } from '../../src/core/records/snapshot'
import { closeJob, type HeldJob, holdJob, LostJob, letGoOf, takeJob } from '../../src/server/jobs/job-rows'
import { publishKind } from '../../src/server/jobs/publish-job'
import { keepAddress } from '../../src/server/publications/publication-rows'
import { Caller } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => database.end())

/** A page of so many topics, each with a note. */
const page = (name: string, topics: number) => ({
  path: `${name}.md`,
  text: `# ${name}\n\n${Array.from({ length: topics }, (_, i) => `- Topic ${i}\n\n  Words about topic ${i}.`).join('\n')}`,
})
const large = (pages: number) => Array.from({ length: pages }, (_, i) => page(`page-${i}`, 400))

const mapsOf = async (caller: Caller) => {
  const text = 'SELECT count(*)::int AS count FROM map WHERE collection = $1 AND NOT trashed'
  const { rows } = await database.query<{ count: number }>(text, [caller.collection])
  return rows[0]!.count
}

/** Adds a job as a process left it that ended over it: its lease ran out `ago` seconds before. */
async function leftOver(caller: Caller, kind: string, input: unknown, { fence = 1, ago = 1 } = {}): Promise<string> {
  const id = uuid()
  const { id: person } = (await caller.call('GET', '/api/me')).json as { id: string }
  await database.query(
    `INSERT INTO job (id, collection, person, person_name, kind, label, input, state, fence, lease_until)
     VALUES ($1, $2, $3, 'Guest', $4, 'Left over', $5, 'running', $6, now() - make_interval(secs => $7))`,
    [id, caller.collection, person, kind, JSON.stringify(input), fence, ago],
  )
  return id
}

test('of the jobs of one collection one is taken at a time, however many look at once', async () => {
  for (let round = 0; round < 5; round++) {
    const owner = await Caller.begin()
    await Promise.all(Array.from({ length: 8 }, () => leftOver(owner, 'nothing', {})))
    const taken = await Promise.all(Array.from({ length: 8 }, takeJob))
    const own = taken.flatMap((job) => (job?.collection === owner.collection ? job : []))
    const { rows } = await database.query<{ at: number }>(
      `SELECT count(*)::int AS at FROM job WHERE collection = $1 AND state = 'running' AND lease_until >= now()`,
      [owner.collection],
    )
    expect(Math.max(own.length, rows[0]!.at)).toBeLessThanOrEqual(1)
    await database.query(`UPDATE job SET state = 'failed', finished_at = now() WHERE collection = $1`, [
      owner.collection,
    ])
    for (const job of taken) if (job && job.collection !== owner.collection) await letGoOf(job)
  }
})

describe('a large import', () => {
  test('is committed in parts, told as it goes, and is one step of history that one undo takes back', async () => {
    const owner = await Caller.begin()
    const heard = await owner.listen(0)
    const id = uuid()
    const job = await owner.import(large(10), id)
    expect(job).toMatchObject({ state: 'done', done: 5, total: 5, result: { unread: [] } })
    expect(job.result.maps).toHaveLength(10)
    const told = (await heard.next('jobs'))!.data as ToldJob[]
    expect(told).toMatchObject([{ id, kind: 'import', label: 'Import 10 pages' }])
    const { rows } = await database.query<{ step: string; edits: number }>(
      'SELECT step, jsonb_array_length(edits) AS edits FROM change WHERE collection = $1 ORDER BY number',
      [owner.collection],
    )
    expect(rows.map(({ step }) => step)).toEqual(Array(5).fill(id))
    expect(Math.max(...rows.map(({ edits }) => edits))).toBeLessThanOrEqual(2_000)
    const own = (await owner.call('GET', `/api/collections/${owner.collection}/changes`)).json
    expect(own).toMatchObject([{ id, edits: null }])
    const undone = await owner.command('undo', { change: id })
    expect(undone.status).toBe(200)
    expect(await mapsOf(owner)).toBe(0)
    const undo = (undone.json as { change: { id: string } }).change.id
    expect((await owner.command('undo', { change: undo })).status).toBe(200)
    expect(await mapsOf(owner)).toBe(10)
  }, 60_000)

  test('of somebody who may not add maps any more ends there, and what was brought in is taken back', async () => {
    const owner = await Caller.begin()
    const editor = await owner.invite('editor')
    const id = uuid()
    await editor.send('POST', `/api/collections/${owner.collection}/imports`, { id, pages: large(40) })
    const at = `/api/collections/${owner.collection}/jobs/${id}`
    await expect
      .poll(async () => ((await owner.call('GET', at)).json as ToldJob).done, { timeout: 30_000 })
      .toBeGreaterThan(1)
    await owner.withdraw(editor.grant)
    expect(await owner.ended(id)).toMatchObject({
      state: 'failed',
      message: expect.stringContaining('You may not change this collection any more.'),
    })
    expect(await mapsOf(owner)).toBe(0)
  }, 60_000)

  test('that is cancelled leaves its maps in the trash, and is not for others to cancel', async () => {
    const owner = await Caller.begin()
    const reader = await owner.invite('reader')
    const id = uuid()
    const asked = await owner.send('POST', `/api/collections/${owner.collection}/imports`, { id, pages: large(40) })
    expect(asked.status).toBe(202)
    const at = `/api/collections/${owner.collection}/jobs/${id}`
    await expect
      .poll(async () => ((await owner.call('GET', at)).json as ToldJob).done, { timeout: 30_000 })
      .toBeGreaterThan(1)
    expect((await reader.call('DELETE', at)).status).toBe(409)
    expect(await owner.command('undo', { change: id })).toMatchObject({
      status: 409,
      text: expect.stringContaining('Cancel'),
    })
    expect((await owner.call('DELETE', at)).status).toBe(200)
    const ended = await owner.ended(id)
    expect(ended).toMatchObject({ state: 'cancelled', message: 'This was cancelled.' })
    expect(ended.done).toBeLessThan(ended.total)
    expect(await mapsOf(owner)).toBe(0)
    expect((await owner.call('DELETE', at)).status).toBe(409)
  }, 60_000)
})

describe('a job that a process ended over', () => {
  test('is taken up by another one, which goes on where it was', async () => {
    const owner = await Caller.begin()
    const id = uuid()
    await owner.send('POST', `/api/collections/${owner.collection}/imports`, { id, pages: large(20) })
    const at = `/api/collections/${owner.collection}/jobs/${id}`
    await expect
      .poll(async () => ((await owner.call('GET', at)).json as ToldJob).done, { timeout: 30_000, interval: 20 })
      .toBeGreaterThan(1)
    // As if somebody else had taken it and ended: whoever is at it now has lost it.
    await database.query('UPDATE job SET fence = fence + 1, lease_until = now() WHERE id = $1', [id])
    expect(await owner.ended(id)).toMatchObject({ state: 'done', done: 9, total: 9 })
    expect(await mapsOf(owner)).toBe(20)
    const { rows } = await database.query('SELECT 1 FROM change WHERE collection = $1', [owner.collection])
    expect(rows).toHaveLength(9)
  }, 60_000)

  test('stays with a process for as long as that says it is at it', async () => {
    const owner = await Caller.begin()
    const id = await leftOver(owner, 'import', { pages: [page('more', 3)] }, { ago: -4 })
    await new Promise((resolve) => setTimeout(resolve, 2_500))
    const job = await owner.call('GET', `/api/collections/${owner.collection}/jobs/${id}`)
    expect((job.json as ToldJob).state).toBe('running')
    expect((await owner.ended(id)).state).toBe('done')
  }, 30_000)

  test('is given up after three of them, in words', async () => {
    const owner = await Caller.begin()
    const id = await leftOver(owner, 'import', { pages: [page('never', 3)] }, { fence: 3 })
    expect(await owner.ended(id)).toMatchObject({
      state: 'failed',
      message: expect.stringMatching(/^The import failed/),
    })
    expect(await mapsOf(owner)).toBe(0)
  }, 30_000)
})

test('an import that fails on its way takes back what was made of it, whatever it failed of, and says so', async () => {
  const owner = await Caller.begin()
  const [map, root] = [MapId.parse(uuid()), TopicId.parse(uuid())]
  const edits = [
    { kind: 'map', id: map, before: null, after: { id: map, title: 'Half done', ...PLAIN_MAP, trashed: false } },
    { kind: 'topic', id: root, before: null, after: blankTopic(root, { kind: 'root', map }, 'Half done') },
  ]
  const id = await leftOver(owner, 'import', { pages: [page('half', 1)] }, { ago: -60 })
  const part = { label: 'Import 1 page', undoes: null }
  // The second part is none that could be committed, or refused.
  const parts = [
    { ...part, id, edits },
    { ...part, id: uuid(), edits: [{ kind: 'nonsense' }] },
  ]
  const plan = { parts, result: { maps: [map], select: [], unread: [] } }
  await database.query('UPDATE job SET plan = $2, lease_until = now() WHERE id = $1', [id, JSON.stringify(plan)])
  expect(await owner.ended(id)).toMatchObject({ state: 'failed', message: expect.stringMatching(/^The import failed/) })
  const { rows } = await database.query('SELECT trashed FROM map WHERE id = $1', [map])
  expect(rows).toEqual([{ trashed: true }])
}, 30_000)

test('a collection is published once at a time; a second one waits for nobody and says so', async () => {
  const owner = await Caller.begin()
  for (const text of ['# Garden\n\n- Bed', '# Pond\n\n- Reed']) await owner.grow(text)
  const path = `/api/collections/${owner.collection}/publication`
  const answers = await Promise.all([
    owner.send('POST', path, {}),
    owner.send('POST', path, {}),
    owner.send('POST', path, {}),
  ])
  expect(answers.map(({ status }) => status).sort()).toEqual([202, 409, 409])
  const { job } = answers.find(({ status }) => status === 202)!.json as { job: ToldJob }
  expect(await owner.ended(job.id)).toMatchObject({ state: 'done', kind: 'publish' })
  const site = (await owner.call('GET', path)).json as { publication: { address: string } }
  expect((await Caller.nobody.call('GET', `/site/${site.publication.address}/`)).status).toBe(200)
})

test('nobody has more than ten jobs under way, and is told so', async () => {
  const owner = await Caller.begin()
  for (let i = 0; i < 10; i++) await leftOver(owner, 'import', { pages: [page('none', 1)] }, { ago: -300 })
  const asked = { id: uuid(), pages: [page('more', 1)] }
  const answer = await owner.send('POST', `/api/collections/${owner.collection}/imports`, asked)
  expect([answer.status, answer.text]).toEqual([429, expect.stringContaining('10 jobs under way')])
})

test('whoever lost a job writes nothing of it any more', async () => {
  const owner = await Caller.begin()
  await owner.grow('# Garden\n\n- Bed')
  const id = await leftOver(owner, 'publish', null, { ago: -60 })
  const job = { id, collection: owner.collection, person: '', personName: '', kind: 'publish', label: '', input: null }
  const mine: HeldJob = { ...job, state: 'running', fence: 1, message: '' }
  await database.query('UPDATE job SET fence = 2 WHERE id = $1', [id])
  await keepAddress(owner.collection, `garden-${id}`)
  await expect(publishKind.run(mine, null, () => {})).rejects.toThrow(LostJob)
  expect(await holdJob(mine, { done: 1, total: 2 })).toBeNull()
  await closeJob(mine, 'failed', 'No')
  const told = (await owner.call('GET', `/api/collections/${owner.collection}/jobs/${id}`)).json
  expect(told).toMatchObject({ state: 'running', done: 0, message: '' })
  expect((await Caller.nobody.call('GET', `/site/garden-${id}/`)).status).toBe(404)
})
