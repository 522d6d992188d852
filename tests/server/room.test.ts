import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { expect, test, vi } from 'vitest'
import { ChangeId, FolderId } from '../../src/core/records/ids'
import { createCollection } from '../../src/server/collections'
import { commitChanges, unlimited } from '../../src/server/commit/commit-changes'
import * as history from '../../src/server/commit/history'
import { database, transaction } from '../../src/server/database'
import { createGuest } from '../../src/server/people/people'
import { openSession } from '../../src/server/people/sessions'
import { type Listener, Room } from '../../src/server/telling/room'

const { changesAfter } = await vi.importActual<typeof history>('../../src/server/commit/history')
vi.mock('../../src/server/commit/history', { spy: true })

test('who is shut out while changes are being read is not told of them', async () => {
  const [owner, guest] = [await transaction(createGuest), await transaction(createGuest)]
  const collection = await transaction((client) => createCollection(client, owner.id, 'Garden'))
  const grant = uuid()
  await database().query('INSERT INTO access_grant (id, collection, person, role) VALUES ($1, $2, $3, $4)', [
    grant,
    collection,
    guest.id,
    'reader',
  ])
  const room = new Room(collection)
  const told = { owner: 0, guest: 0, ended: [] as string[] }
  const listen = async (who: 'owner' | 'guest', person: string) => {
    const listener: Listener = {
      collection,
      person,
      session: createHash('sha256')
        .update(await openSession(person))
        .digest(),
      maps: new Set(),
      reach: null,
      seen: 0,
      rowsSeen: 0,
      tell: (changes) => void (told[who] += changes.length),
      tellRows: () => {},
      tellJobs: () => {},
      resync: () => {},
      end: () => void told.ended.push(who),
    }
    room.listeners.add(listener)
  }
  await listen('owner', owner.id)
  await listen('guest', guest.id)
  const commit = async (name: string) => {
    const id = FolderId.parse(uuid())
    const after = { id, title: name, parent: null, trashed: false }
    const change = {
      id: ChangeId.parse(uuid()),
      label: name,
      undoes: null,
      edits: [{ kind: 'folder' as const, id, before: null, after }],
    }
    const [result] = await commitChanges(collection, [{ change, author: unlimited(owner) }])
    expect(result).toEqual({ ok: true, change: expect.anything() })
  }
  await commit('Beds')
  await room.wake()
  expect(told).toEqual({ owner: 1, guest: 1, ended: [] })
  // Between the reading of what is new and the telling.
  vi.mocked(history.changesAfter).mockImplementationOnce(async (...asked) => {
    const changes = await changesAfter(...asked)
    await database().query('DELETE FROM access_grant WHERE id = $1', [grant])
    return changes
  })
  await commit('Hidden')
  await room.wake()
  expect(told).toEqual({ owner: 2, guest: 1, ended: ['guest'] })
})
