import { setTimeout as wait } from 'node:timers/promises'
import pg from 'pg'
import { databaseUrl } from '../database'
import { log } from '../http/endpoint'
import { onCommit } from './announce'
import { CHANGE_CHANNEL } from './channel'
import { type Listener, Room } from './hub'

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
  if (!looking) void look()
  return () => {
    room.leave(listener)
    if (room.listeners.size === 0 && rooms.get(room.collection) === room) rooms.delete(room.collection)
  }
}

function wake(room: Room): void {
  room.wake().catch((error: unknown) => log.warn({ error }, 'changes could not be read: tried again in a moment'))
}

onCommit((collection) => {
  const room = rooms.get(collection)
  if (room) wake(room)
})

/** To be called when a session or a membership ended in this process: who may not listen any more is sent away at once. */
export function lookWhoMayListen(): void {
  for (const room of rooms.values()) wake(room)
}

/**
 * As long as anybody listens: hears the notices of other processes, and every two seconds looks by itself, over the same
 * connection. So a notice that was lost, a read that failed and a connection that is open on this side only cost seconds.
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
  client.on('notification', ({ payload }) => {
    const room = rooms.get(payload?.split(':', 1)[0] ?? '')
    if (room) wake(room)
  })
  await client.connect()
  await client.query(`LISTEN ${CHANGE_CHANNEL}`)
  return client
}

async function lookThrough(client: pg.Client): Promise<void> {
  while (rooms.size > 0) {
    await client.query('SELECT 1')
    lookWhoMayListen()
    await wait(LOOK_MS)
  }
}
