import { v7 as uuid } from 'uuid'
import { prepareChange } from '../src/core/changes/prepare'
import { makeMap } from '../src/core/commands/maps'
import { rewriteOutline } from '../src/core/commands/rewrite-outline'
import { linesBelow, writeOutlineText } from '../src/core/formats/outline-text'
import { CollectionId } from '../src/core/records/ids'
import { Records } from '../src/core/records/records'
import { type Measurement, median, seededRandom } from './measure'

const LINES = 2_000
const ROUNDS = 40

/** One line of an outline text of 2,000 lines is changed: the time until the edits are there, and how many they are. */
export function measureTextSync(): Measurement {
  const records = new Records()
  const newIds = { newId: uuid }
  const collection = CollectionId.parse(uuid())
  records.put('collection', { id: collection, title: 'Bench', homeMap: null, look: null, limits: null, trashed: false })
  const made = makeMap(records, { collection, title: 'Outline' }, newIds)
  prepareChange(records, made.change.edits, true)
  const head = made.select[0]!
  const random = seededRandom(7)
  const lines = Array.from({ length: LINES }, (_, i) => ({
    level: Math.floor(random() * 4),
    text: `line ${i} of the bench`,
  }))
  const first = rewriteOutline(records, { head, base: [], text: writeOutlineText(lines) }, newIds)
  prepareChange(records, first.change.edits, true)
  const times: number[] = []
  let edits = 0
  for (let round = 0; round < ROUNDS; round++) {
    const base = linesBelow(records, head)
    const text = writeOutlineText(base).replace(`line ${round * 37} of`, `line ${round * 37} again of`)
    const start = performance.now()
    const { change } = rewriteOutline(records, { head, base, text }, newIds)
    times.push(performance.now() - start)
    edits = Math.max(edits, change.edits.length)
    prepareChange(records, change.edits, true)
  }
  const value = median(times)
  return {
    name: 'text-sync-2k',
    value,
    unit: 'ms',
    peer: null,
    peerValue: null,
    ratio: null,
    limit: 20,
    ok: value < 20 && edits === 1,
    note: `${edits} ${edits === 1 ? 'edit' : 'edits'}`,
  }
}
