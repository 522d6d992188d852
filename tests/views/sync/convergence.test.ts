import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Change } from '../../../src/core/changes/edit'
import { Refusal } from '../../../src/core/changes/problem'
import type { MapId } from '../../../src/core/records/ids'
import { HeldState } from '../../../src/views/sync/held-state'
import { act, perform } from '../../core/acts'
import { COLLECTION, contents, Garden } from '../../core/gardens'
import { Server } from './server-in-memory'

/** One person's browser: what is held, what is on its way to the server, and what has come back. */
class Client {
  readonly held = new HeldState()
  private readonly underway: Change[] = []
  private seen = 0

  constructor(
    private readonly server: Server,
    maps: readonly MapId[],
  ) {
    this.held.records.put('collection', server.records.need('collection', COLLECTION))
    for (const map of maps) this.held.open(server.snapshot(map))
  }

  do(change: Change): void {
    if (this.held.perform(change).ok) this.underway.push(change)
  }

  /** The server gets this client's oldest change. */
  send(): void {
    const change = this.underway.shift()
    if (change && this.server.commit(change) === null) this.held.drop(change.id)
  }

  /** The client gets what was committed since, up to `count` changes. */
  receive(count: number): void {
    const changes = this.server.committed.slice(this.seen, this.seen + count)
    this.seen += changes.length
    this.held.commit(changes)
  }

  settle(): void {
    while (this.underway.length > 0) this.send()
  }
}

const step = fc.tuple(fc.nat(2), fc.constantFrom('do', 'do', 'do', 'send', 'send', 'receive', 'receive'), act)

test.each([2, 3])(
  '%i people who work at once end with equal records',
  (people) => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 4, maxLength: 50 }), (steps) => {
        const garden = new Garden()
        const maps = [
          garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf'),
          garden.grow('Neighbour\nSpring\n  Prune'),
        ]
        const server = new Server(garden.records)
        const clients = Array.from({ length: people }, () => new Client(server, maps))
        for (const [who, what, chosen] of steps) {
          const client = clients[who % people]!
          if (what === 'send') client.send()
          else if (what === 'receive') client.receive(1 + (chosen[1] % 3))
          else
            try {
              client.do(perform(client.held.records, garden.newIds, chosen).change)
            } catch (error) {
              if (!(error instanceof Refusal) && !(error instanceof RangeError)) throw error
            }
        }
        for (const client of clients) client.settle()
        for (const client of clients) client.receive(Number.POSITIVE_INFINITY)
        for (const client of clients) expect(contents(client.held.records)).toEqual(contents(server.records))
      }),
      { numRuns: 250 },
    )
  },
  120_000,
)
