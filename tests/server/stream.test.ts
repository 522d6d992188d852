import { createHash } from 'node:crypto'
import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { ToldChange } from '../../src/core/changes/edit'
import { CrosslinkId, NoteId } from '../../src/core/records/ids'
import type { MapDigest } from '../../src/core/records/snapshot'
import { closeDatabase } from '../../src/server/database'
import { type Listener, Room } from '../../src/server/telling/room'
import { Outlet } from '../../src/server/telling/serve-stream'
import { Caller } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => Promise.all([database.end(), closeDatabase()]))

/** A collection of two maps, and a way to write into each of them. */
async function planted() {
  const owner = await Caller.begin()
  const [garden, pond] = [await owner.grow('# Garden\n\n- Spring'), await owner.grow('# Pond\n\n- Reed')]
  const { number } = await owner.map(pond)
  const write = async (map: string, text: string) => {
    const { topics } = await owner.map(map)
    const { id, text: before } = topics.find(({ place }) => place.kind === 'arranged')!
    return owner.change([{ kind: 'topic', id, before: { text: before }, after: { text } }])
  }
  return { owner, garden, pond, number, write }
}

describe('the change stream', () => {
  test('brings what others do, in order: whole on open maps, elsewhere only that it was', async () => {
    const { owner, garden, pond, number, write } = await planted()
    const listening = await owner.listen(number, [garden])
    await write(garden, 'Summer')
    await write(pond, 'Rush')
    await write(garden, 'Autumn')
    const changes = await listening.changes(3)
    expect(changes.map((change) => change.number - number)).toEqual([1, 2, 3])
    expect(changes.map(({ edits, maps }) => [edits?.length ?? null, maps])).toEqual([
      [1, [garden]],
      [null, [pond]],
      [1, [garden]],
    ])
    await listening.close()
    const resumed = await owner.listen(number + 2, [garden])
    expect((await resumed.changes(1)).map((change) => change.number)).toEqual([number + 3])
    await resumed.close()
  })

  test('tells whoever joins while it is read for others the same, with its edits', async () => {
    const { owner, garden, number, write } = await planted()
    await write(garden, 'Summer')
    const session = createHash('sha256').update(owner.cookie!.split('=')[1]!).digest()
    const { rows } = await database.query('SELECT person FROM session WHERE token_hash = $1', [session])
    const room = new Room(owner.collection)
    const told: ToldChange[] = []
    const listener = (isSecond: boolean): Listener => ({
      collection: owner.collection,
      // It is looked who may listen: just then somebody else comes.
      get person() {
        if (!isSecond && room.listeners.size === 1) room.listeners.add(listener(true))
        return rows[0].person
      },
      session,
      maps: new Set([garden]),
      reach: null,
      seen: number,
      rowsSeen: number,
      tell: (changes) => void (isSecond && told.push(...changes.map((change): ToldChange => JSON.parse(change)))),
      tellRows: () => {},
      tellJobs: () => {},
      resync: () => {},
      end: () => {},
    })
    room.listeners.add(listener(false))
    await room.wake()
    expect(room.listeners.size).toBe(2)
    await room.wake()
    expect(told.map(({ edits, maps }) => [edits?.length, maps])).toEqual([[1, [garden]]])
  })

  test('tells what is shown on an open map with its edits, wherever it was altered from', async () => {
    const { owner, garden, pond, number } = await planted()
    const listening = await owner.listen(number, [garden])
    const [spring, reed] = [
      (await owner.map(garden)).topics.find(({ text }) => text === 'Spring')!,
      (await owner.map(pond)).topics.find(({ text }) => text === 'Reed')!,
    ]
    const note = uuid()
    await owner.change([
      {
        kind: 'note',
        id: note,
        before: null,
        after: { id: NoteId.parse(note), text: 'One', joinedInto: null, trashed: false },
      },
      { kind: 'topic', id: spring.id, before: { note: null }, after: { note: NoteId.parse(note) } },
    ])
    // The note of a topic, which the edit does not name.
    await owner.change([{ kind: 'note', id: note, before: { text: 'One' }, after: { text: 'Two' } }])
    const link = uuid()
    const end = { kind: 'topic' as const, id: reed.id }
    const after = {
      id: CrosslinkId.parse(link),
      from: spring.id,
      to: end,
      label: '',
      drawn: 'line' as const,
      trashed: false,
    }
    await owner.change([{ kind: 'crosslink', id: link, before: null, after }])
    // The far end of a link shows its name here.
    await owner.change([{ kind: 'topic', id: reed.id, before: { text: 'Reed' }, after: { text: 'Rush' } }])
    const changes = await listening.changes(4)
    expect(changes.map(({ edits }) => edits?.length ?? null)).toEqual([2, 1, 1, 1])
    expect(changes.map(({ maps }) => maps?.length)).toEqual([1, 1, 2, 2])
    await listening.close()
  })

  test('tells the digest rows that were altered, and only those, in less than 4 kB', async () => {
    const { owner, pond, number } = await planted()
    const listening = await owner.listen(number)
    const [root] = (await owner.map(pond)).topics
    await owner.send('POST', `/api/collections/${owner.collection}/files?topic=${root!.id}&name=a.txt`, {})
    await owner.grow('# Meadow\n\n- Sedge\n- Moss')
    const heard = await listening.next('maps')
    const rows = heard!.data as MapDigest[]
    expect(rows.map(({ title, topics }) => [title, topics])).toEqual([['Meadow', 3]])
    expect(JSON.stringify(rows).length).toBeLessThan(4_000)
    await listening.close()
    // Somebody whose connection ended between a change and its rows comes back knowing the change alone.
    const { number: newest } = await owner.map(pond)
    const missed = await owner.call(
      'GET',
      `/api/collections/${owner.collection}/changes?after=${newest}&rows=${number}`,
    )
    expect(missed.json).toMatchObject({ changes: [], rows: [{ title: 'Meadow' }] })
    const resumed = await owner.listen(newest, [], undefined, number)
    expect((await resumed.next('maps'))!.data).toMatchObject([{ title: 'Meadow', topics: 3 }])
    await resumed.close()
  })

  test('tells whoever is too far behind, or ahead of all there is, to ask for everything anew', async () => {
    const { owner, number } = await planted()
    await database.query('UPDATE collection_counter SET last = last + 5000 WHERE collection = $1', [owner.collection])
    for (const since of [number, number + 9_999]) {
      const listening = await owner.listen(since)
      expect(await listening.next('resync')).toMatchObject({ data: number + 5_000 })
      await listening.close()
    }
    const missed = await owner.call('GET', `/api/collections/${owner.collection}/changes?after=${number}`)
    expect(missed.json).toMatchObject({ resync: true, changes: [] })
  })

  test('ends with the session, with the membership and with the collection, before anything more is told', async () => {
    const { owner, garden, number, write } = await planted()
    const guest = await owner.invite('reader')
    const member = await guest.listen(number, [garden])
    await owner.withdraw(guest.grant)
    await write(garden, 'Secret')
    expect(await member.next('changes')).toBeNull()

    const other = await owner.invite('reader')
    const signedOut = await other.listen(number + 1, [garden])
    const before = Date.now()
    await other.call('DELETE', '/api/sessions')
    expect(await signedOut.next('changes')).toBeNull()
    expect(Date.now() - before).toBeLessThan(5_000)

    const listening = await owner.listen(number + 1)
    await owner.call('DELETE', '/api/me')
    expect(await listening.next('changes')).toBeNull()
  })

  test('cannot be had with a session that has ended', async () => {
    const { owner, number } = await planted()
    await database.query(`UPDATE session SET expires_at = now() - interval '1 second' WHERE token_hash = $1`, [
      createHash('sha256').update(owner.cookie!.split('=')[1]!).digest(),
    ])
    await new Promise((resolve) => setTimeout(resolve, 2_100))
    expect((await owner.listen(number)).response.status).toBe(401)
  })
})

test('a slow reader costs a bounded part of memory, and asks for everything anew when they read on', async () => {
  const outlet = new Outlet({ highWaterMark: 1_000_000 })
  const data = JSON.stringify(['x'.repeat(100_000)])
  for (let number = 1; number <= 100; number++) outlet.event('changes', data, number)
  expect(outlet.readableLength).toBeLessThan(1_200_000)
  let text = ''
  outlet.on('data', (piece: Buffer) => {
    text += piece.toString()
  })
  await new Promise((resolve) => setTimeout(resolve, 250))
  expect(text.slice(-40)).toMatch(/id: 100\nevent: resync\ndata: 100\n\n$/)
  outlet.event('changes', '[]', 101)
  await new Promise((resolve) => setTimeout(resolve, 50))
  expect(text.slice(-40)).toMatch(/id: 101\nevent: changes\ndata: \[\]\n\n$/)
})
