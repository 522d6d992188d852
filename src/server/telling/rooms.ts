import { setTimeout as wait } from 'node:timers/promises'
import pg from 'pg'
import { databaseUrl } from '../database'
import { log } from '../http/endpoint'
import { onJobs } from '../jobs/announce-jobs'
import { onCommit } from './announce'
import { CHANGE_CHANNEL, JOB_CHANNEL } from './channel'
import { type Listener, Room } from './room'

/** How often everybody who listens is looked after even without a notice, and how long an answer may take, in ms. */
const LOOK_MS = 2_000
const ANSWER_MS = 3_000

const rooms = new Map<string, Room>()
let looking = false

/** Lets somebody listen; returns a function that ends it. */
export function listen(listener: Listener): () => void {
  let room = rooms.get(listener.collection)
  if (!room) rooms.set(listener.collection, (room = new Room(listener.collection)))
  room.listeners.add(listener)
  wake(room)
  wakeJobs(room)
  if (!looking) void look()
  return () => {
    room.leave(listener)
    if (room.listeners.size === 0 && rooms.get(room.collection) === room) rooms.delete(room.collection)
  }
}

function wake(room: Room): void {
  room.wake().catch((error: unknown) => log.warn({ error }, 'changes could not be read: tried again in a moment'))
}

function wakeJobs(room: Room): void {
  room.wakeJobs().catch((error: unknown) => log.warn({ error }, 'jobs could not be read: tried again in a moment'))
}

const wakeOf = (collection: string, how: (room: Room) => void) => {
  const room = rooms.get(collection)
  if (room) how(room)
}
onCommit((collection) => wakeOf(collection, wake))
onJobs((collection) => wakeOf(collection, wakeJobs))

/** To be called when a session or a grant ended in this process: who may not listen any more is sent away at once. */
export function lookWhoMayListen(): void {
  for (const room of rooms.values()) wake(room)
}

/**
 * As long as anybody listens: hears the notices of other processes, and every two seconds looks by itself, over the same
 * connection and for all at once. So a notice that was lost, a read that failed and a connection that is open on this side only cost seconds.
 */
async function look(): Promise<void> {
  looking = true
  while (rooms.size > 0) {
    let client: pg.Client | null = null
    try {
      client = await connect()
      await lookThrough(client)
    } catch (error) {
      log.warn({ error }, 'the database does not answer those who listen: trying again')
      await wait(1_000)
    } finally {
      client?.end().catch(() => {})
    }
  }
  looking = false
}

async function connect(): Promise<pg.Client> {
  const client = new pg.Client({
    connectionString: databaseUrl(),
    connectionTimeoutMillis: ANSWER_MS,
    query_timeout: ANSWER_MS,
  })
  client.on('error', () => {})
  client.on('notification', ({ channel, payload = '' }) =>
    wakeOf(payload.split(':', 1)[0]!, channel === JOB_CHANNEL ? wakeJobs : wake),
  )
  await client.connect()
  await client.query(`LISTEN ${CHANGE_CHANNEL}; LISTEN ${JOB_CHANNEL}`)
  return client
}

const NEWER = `
  SELECT c.collection FROM unnest($1::uuid[], $2::bigint[]) AS room(collection, last)
  JOIN collection_counter c ON c.collection = room.collection WHERE c.last > room.last`

/** Those who listen and may not any more: their session has ended, or nothing of the collection is open to them. */
const GONE = `
  SELECT position FROM unnest($1::uuid[], $2::uuid[], $3::bytea[]) WITH ORDINALITY AS asked(collection, person, session, position)
  WHERE NOT EXISTS (SELECT 1 FROM session s WHERE s.token_hash = asked.session AND s.expires_at > now())
    OR NOT EXISTS (SELECT 1 FROM open_grant g WHERE g.person = asked.person AND g.collection = asked.collection)`

/** The rooms with something new, found for all of them at once; and those where what is open to somebody can change. */
async function roomsToWake(client: pg.Client): Promise<Set<Room>> {
  const all = [...rooms.values()]
  const listeners = all.flatMap((room) => [...room.listeners])
  const [newer, gone] = await Promise.all([
    client.query<{ collection: string }>(NEWER, [all.map((room) => room.collection), all.map(({ last }) => last)]),
    client.query<{ position: number }>(GONE, [
      listeners.map(({ collection }) => collection),
      listeners.map(({ person }) => person),
      listeners.map(({ session }) => session),
    ]),
  ])
  const collections = newer.rows.map(({ collection }) => collection)
  for (const { position } of gone.rows) collections.push(listeners[position - 1]!.collection)
  const woken = new Set(all.filter((room) => room.isLimited))
  for (const collection of collections) {
    const room = rooms.get(collection)
    if (room) woken.add(room)
  }
  return woken
}

async function lookThrough(client: pg.Client): Promise<void> {
  while (rooms.size > 0) {
    for (const room of await roomsToWake(client)) wake(room)
    for (const room of rooms.values()) if (room.isAtWork) wakeJobs(room)
    await wait(LOOK_MS)
  }
}
