import pg from 'pg'
import type { CommittedChange } from '../../core/changes/edit'
import { database, databaseUrl } from '../database'
import { onCommit } from './announce'
import { CHANGE_CHANNEL } from './channel'
import { changesAfter } from './commit-changes'

/** Somebody who wants every change of a collection after the last one they saw, in order. */
interface Reader {
  collection: string
  seen: number
  reading: boolean
  again: boolean
  send(changes: CommittedChange[]): void
}

const readers = new Set<Reader>()
let listener: pg.Client | null = null
let connecting: Promise<void> | null = null

/** Most changes that are read from the table at once. */
const MOST_CHANGES_AT_ONCE = 200
const RETRY_MS = 1_000

/**
 * Calls `send` with the changes after `since` and then with each as it is committed, by this process or another one
 * on the same database. Returns a function that ends it. Notices only wake the reader: what it gets is read from the
 * table, so nothing is missed when a notice is lost or the connection breaks.
 */
export function followChanges(
  collection: string,
  since: number,
  send: (changes: CommittedChange[]) => void,
): () => void {
  const reader: Reader = { collection, seen: since, reading: false, again: false, send }
  readers.add(reader)
  void ensureListening().then(() => read(reader))
  return () => readers.delete(reader)
}

onCommit((collection) => {
  for (const reader of readers) if (reader.collection === collection) void read(reader)
})

function ensureListening(): Promise<void> {
  connecting ??= listen().catch(() => {
    connecting = null
    setTimeout(() => {
      if (readers.size > 0) void ensureListening().then(readAll)
    }, RETRY_MS)
  })
  return connecting
}

async function listen(): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl() })
  client.on('notification', ({ payload }) => {
    const collection = payload?.split(':', 1)[0]
    for (const reader of readers) if (reader.collection === collection) void read(reader)
  })
  const lost = () => {
    if (listener !== client) return
    listener = null
    connecting = null
    setTimeout(() => void ensureListening().then(readAll), RETRY_MS)
  }
  client.on('error', lost)
  client.on('end', lost)
  await client.connect()
  await client.query(`LISTEN ${CHANGE_CHANNEL}`)
  listener = client
}

function readAll(): void {
  for (const reader of readers) void read(reader)
}

async function read(reader: Reader): Promise<void> {
  if (reader.reading) {
    reader.again = true
    return
  }
  reader.reading = true
  try {
    do {
      reader.again = false
      const client = await database().connect()
      let changes: CommittedChange[]
      try {
        changes = await changesAfter(client, reader.collection, reader.seen, MOST_CHANGES_AT_ONCE)
      } finally {
        client.release()
      }
      if (changes.length > 0 && readers.has(reader)) {
        reader.seen = changes.at(-1)!.number
        reader.send(changes)
      }
      if (changes.length === MOST_CHANGES_AT_ONCE) reader.again = true
    } while (reader.again && readers.has(reader))
  } catch {
    // The database is away: the next notice, or the listener coming back, reads again from the same number.
  } finally {
    reader.reading = false
  }
}
