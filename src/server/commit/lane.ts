import { type Client, database } from '../database'

/** A connection that is held for one collection as long as anything is on its way there. */
interface Lane {
  client: Promise<Client>
  users: number
}

const lanes = new Map<string, Lane>()

/** Runs work on the lane of a collection: what is sent there first is done first, and nobody waits for an answer in between. */
export async function inLane<Result>(collection: string, work: (client: Client) => Promise<Result>): Promise<Result> {
  let lane = lanes.get(collection)
  if (!lane) lanes.set(collection, (lane = { client: database().connect(), users: 0 }))
  lane.users++
  let client: Client | null = null
  try {
    client = await lane.client
    return await work(client)
  } finally {
    if (--lane.users === 0) {
      lanes.delete(collection)
      client?.release()
    }
  }
}
