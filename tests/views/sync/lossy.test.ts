import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Change, Edit } from '../../../src/core/changes/edit'
import { isPacked } from '../../../src/core/changes/packed'
import { Refusal } from '../../../src/core/changes/problem'
import { undoChange } from '../../../src/core/changes/undo'
import { addTopic } from '../../../src/core/commands/add-topic'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { setText } from '../../../src/core/commands/set-text'
import { writeNote } from '../../../src/core/commands/write-note'
import { ChangeId, type MapId } from '../../../src/core/records/ids'
import type { Records } from '../../../src/core/records/records'
import { HeldState } from '../../../src/views/sync/held-state'
import { COLLECTION, Garden } from '../../core/gardens'
import { Server } from './server-in-memory'

/** One person's browser on a bad line: answers and notices get lost, come late, or come without what they are about. */
class Client {
  held = new HeldState()
  private underway: Change[] = []
  private seen = 0
  private readonly incomplete = new Set<MapId>()
  /** Topics that this person made and the server has not refused. */
  readonly made = new Set<string>()
  private readonly done: Change[] = []

  constructor(
    private readonly server: Server,
    private readonly maps: readonly MapId[],
  ) {
    this.reload()
  }

  do(change: Change): void {
    if (!this.held.perform(change).ok) return
    this.underway.push(change)
    this.done.push(change)
    for (const { kind, id, before } of change.edits) if (kind === 'topic' && before === null) this.made.add(id)
  }

  undo(id: string): void {
    const last = this.done.pop()
    const known = this.server.committed.find((change) => change.id === last?.id)
    const stored = last && known && !isPacked(known.edits) ? { ...last, edits: known.edits as Edit[] } : last
    if (!stored?.edits.every(({ kind, id: record }) => this.held.records.get(kind, record))) return
    const { change } = undoChange(this.held.records, stored, ChangeId.parse(id))
    if (change && this.held.perform(change).ok) this.underway.push(change)
  }

  /** The server gets this client's oldest change; its answer may be lost, and then it gets it again. */
  send(isAnswered: boolean): void {
    const [change] = this.underway
    if (!change) return
    const stored = this.server.commit(change)
    if (!isAnswered) return
    this.underway.shift()
    if (stored) this.held.answered(change.id, stored)
    else {
      this.held.drop(change.id)
      for (const { id, before } of change.edits) if (before === null) this.made.delete(id)
    }
  }

  /** What was committed since is told, up to `count` changes, with their edits or without. */
  receive(count: number, isBare: boolean): void {
    const changes = this.server.committed.slice(this.seen, this.seen + count)
    this.seen += changes.length
    const told = isBare ? changes.map((change) => ({ ...change, edits: null })) : changes
    this.await(this.held.commit(told))
  }

  private await(incomplete: Iterable<string>): void {
    for (const map of incomplete) this.incomplete.add(map as MapId)
  }

  /** A map comes of which more was needed. */
  fetch(): boolean {
    const [map] = this.incomplete
    if (!map) return false
    this.incomplete.delete(map)
    this.await(this.held.open(this.server.snapshot(map)))
    return true
  }

  /** So much has happened that all is asked for anew. */
  resync(): void {
    this.seen = this.server.committed.length
    for (const map of this.maps) this.await(this.held.open(this.server.snapshot(map)))
  }

  /** The page is loaded anew: what is not acknowledged was kept. */
  reload(): void {
    this.held = new HeldState()
    this.held.records.put('collection', this.server.records.need('collection', COLLECTION))
    for (const change of this.underway) this.held.restore(change)
    this.resync()
  }

  settle(): void {
    while (this.underway.length > 0) this.send(true)
    this.receive(Number.POSITIVE_INFINITY, false)
    while (this.fetch());
  }

  get isOver(): boolean {
    return this.server.committed.every(({ id }) => !this.held.isPending(id))
  }
}

/** What somebody does in writing: topics, their texts and notes, the trash, and moves. */
function write(records: Records, garden: Garden, which: number, a: number, b: number): Change {
  const all = [...records.all('topic')].sort((x, y) => (x.id < y.id ? -1 : 1))
  const [topic, other] = [all[a % all.length]!, all[b % all.length]!]
  const args = { topic: topic.id, base: topic.text, text: `text ${b % 7}` }
  const note = records.get('note', topic.note)?.text ?? ''
  switch (which) {
    case 0:
      return setText(records, args, garden.newIds).change
    case 1:
      return writeNote(records, { ...args, base: note, text: wordsAfter(note, a, b) }, garden.newIds).change
    case 2:
      return deleteTopics(records, { topics: [topic.id] }, garden.newIds).change
    case 3:
      return restoreTopic(records, { topic: topic.id }, garden.newIds).change
    case 4:
      return moveTopics(records, { topics: [topic.id], parent: other.id, after: 'last', side: null }, garden.newIds)
        .change
    default:
      return addTopic(records, { parent: topic.id, after: 'last', text: `topic ${b % 7}` }, garden.newIds).change
  }
}

const PAGE = 'Sow the peas early, and water them late in the day.\n\n'.repeat(30)

/** A line more at the beginning or the end of a note, which is short or a page. */
const wordsAfter = (note: string, a: number, b: number): string =>
  a % 2 === 0 ? `${note || PAGE}\n\nline ${b % 7}` : `line ${b % 7}\n\n${note}`

const WAYS = ['do', 'do', 'do', 'undo', 'send', 'send', 'lose', 'receive', 'bare', 'fetch', 'resync', 'reload'] as const
const step = fc.tuple(fc.nat(2), fc.constantFrom(...WAYS), fc.nat(6), fc.nat(999), fc.nat(999))

test('whatever is lost on the way, what was written stays in sight, all end with the same, and nothing stays pending', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 4, maxLength: 60 }), (steps) => {
      const garden = new Garden()
      const maps = [garden.grow('Garden\nSpring\n  Peas\nSummer'), garden.grow('Neighbour\nSpring')]
      const server = new Server(garden.records)
      const clients = [new Client(server, maps), new Client(server, maps)]
      for (const [who, way, which, a, b] of steps) {
        const client = clients[who % 2]!
        if (way === 'send' || way === 'lose') client.send(way === 'send')
        else if (way === 'receive' || way === 'bare') client.receive(1 + (a % 3), way === 'bare')
        else if (way === 'undo') client.undo(garden.newIds.newId())
        else if (way === 'do')
          try {
            client.do(write(client.held.records, garden, which, a, b))
          } catch (error) {
            if (!(error instanceof Refusal)) throw error
          }
        else client[way]()
        for (const each of clients)
          for (const id of each.made) if (!server.hasMoved(id)) expect(each.held.records.get('topic', id)).toBeDefined()
      }
      for (const client of clients) client.settle()
      for (const client of clients) client.receive(Number.POSITIVE_INFINITY, false)
      for (const client of clients) {
        while (client.fetch());
        expect(client.isOver).toBe(true)
        for (const map of maps)
          expect(sorted(client.held.records.topicsOf(map))).toEqual(sorted(server.records.topicsOf(map)))
        for (const note of server.records.all('note')) expect(client.held.records.get('note', note.id)).toEqual(note)
      }
    }),
    { numRuns: RUNS },
  )
}, 600_000)

/** More with `npm run roam`. */
const RUNS = process.env.FOLVET_SEED === 'new' ? 10_000 : 300

const sorted = <Record extends { id: string }>(records: Iterable<Record>) =>
  [...records].sort((a, b) => (a.id < b.id ? -1 : 1))
