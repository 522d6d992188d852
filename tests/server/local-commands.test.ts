import { beforeAll, expect, test } from 'vitest'
import type { Outcome } from '../../src/core/commands/command'
import { addCrosslink, drawCrosslinks } from '../../src/core/commands/crosslinks'
import { keepClipping } from '../../src/core/commands/keep-clipping'
import { setDates } from '../../src/core/commands/set-dates'
import { setTask } from '../../src/core/commands/set-task'
import { tellApart } from '../../src/core/commands/tell-apart'
import type { CrosslinkId, MapId, TopicId } from '../../src/core/records/ids'
import { RECORD_KINDS } from '../../src/core/records/kinds'
import type { Records } from '../../src/core/records/records'
import { mapsAround, wholeCollection } from '../../src/server/collections'
import { Caller } from './people'

/** Many maps, of which two are linked. */
const MAPS = 40
let owner: Caller
let maps: string[]
let whole: Records
let [peas, beans, heron]: TopicId[] = []
let link: CrosslinkId
beforeAll(async () => {
  owner = await Caller.begin()
  const pages = Array.from({ length: MAPS }, (_, i) => ({
    path: `page-${i}.md`,
    text: `# Bed ${i}\n\n- Peas ${i}\n\n  Sow [beside](page-${(i + 1) % MAPS}.md).\n- Beans ${i}\n  - Poles ${i}`,
  }))
  maps = (await owner.import(pages)).result.maps
  ;({ records: whole } = await wholeCollection(owner.collection))
  const named = (text: string) => [...whole.all('topic')].find((topic) => topic.text === text)!.id
  ;[peas, beans, heron] = [named('Peas 3'), named('Beans 3'), named('Poles 9')]
  await owner.command('link', { from: peas, to: { kind: 'topic', id: heron }, drawn: 'line' })
  ;({ records: whole } = await wholeCollection(owner.collection))
  link = [...whole.all('crosslink')].find(({ to }) => to.id === heron)!.id
})

/** Ids that are the same each time. */
const counting = () => {
  let last = 0
  return { newId: () => `00000000-0000-7000-8000-${(++last).toString().padStart(12, '0')}` }
}

const COMMANDS: Record<string, () => { named: string[]; run(records: Records): Outcome }> = {
  'set-dates': () => ({
    named: [peas!, heron!],
    run: (records) =>
      setDates(records, { topics: [peas!, heron!], dates: { start: '2026-04-01', end: null } }, counting()),
  }),
  'set-task': () => ({
    named: [peas!],
    run: (records) => setTask(records, { topics: [peas!], task: 'done', today: '2026-04-01' }, counting()),
  }),
  'tell-apart': () => ({
    named: [peas!, heron!],
    run: (records) => tellApart(records, { a: peas!, b: heron! }, counting()),
  }),
  'draw-links': () => ({
    named: [link],
    run: (records) => drawCrosslinks(records, { crosslinks: [link], drawn: 'quiet' }, counting()),
  }),
  link: () => ({
    named: [beans!, maps[9]!],
    run: (records) =>
      addCrosslink(records, { from: beans!, to: { kind: 'map', id: maps[9] as MapId }, drawn: 'line' }, counting()),
  }),
  'keep-clipping': () => ({
    named: [beans!],
    run: (records) =>
      keepClipping(
        records,
        { at: { topic: beans! }, text: 'Net', note: 'A fine one.', quote: '', address: '' },
        counting(),
      ),
  }),
}

test.each(Object.entries(COMMANDS))(
  '%s does with the maps of what it names what it does with the whole collection',
  async (_, made) => {
    const { named, run } = made()
    const { records } = await mapsAround(owner.collection, named)
    expect(run(records).change.edits).toEqual(run(whole).change.edits)
    const size = (of: Records) => RECORD_KINDS.reduce((sum, kind) => sum + of.count(kind), 0)
    expect(size(records)).toBeLessThan(size(whole) / 4)
  },
)

test('of what stands on many maps the whole collection is read at once', async () => {
  const { records } = await mapsAround(owner.collection, maps)
  expect(records.count('topic')).toBe(whole.count('topic'))
})
