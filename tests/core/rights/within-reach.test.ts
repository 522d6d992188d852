import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Edit } from '../../../src/core/changes/edit'
import { Refusal } from '../../../src/core/changes/problem'
import { addTopic } from '../../../src/core/commands/add-topic'
import type { Outcome } from '../../../src/core/commands/command'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import type { RecordByKind } from '../../../src/core/records/kinds'
import { type Grant, reachOf, roleOn } from '../../../src/core/rights/grant'
import { act, perform } from '../acts'
import { contents, Garden } from '../gardens'
import { attempt, forged, forgery, homesOf, idsIn, isOpenTo, shownOn } from '../reach'

const editorOf = (...maps: RecordByKind['map']['id'][]): Grant => ({ role: 'editor', maps, withChildMaps: false })

describe('what grants come to', () => {
  test('child maps are those whose way home leads through the map, and the strongest role counts', () => {
    const garden = new Garden()
    const top = garden.grow('Garden\n- Bed\n  - Rose\n- Path')
    const bed = garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Bed') }, newIds))
    const [bedMap] = [...garden.records.all('map')].map(({ id }) => id).filter((id) => id !== top)
    expect(bed.change.edits.length).toBeGreaterThan(0)
    const homes = homesOf(garden.records)
    const reader: Grant = { role: 'reader', maps: [top], withChildMaps: true }
    expect([top, bedMap!].map((map) => roleOn(reachOf([reader], homes), map))).toEqual(['reader', 'reader'])
    const both = reachOf([reader, editorOf(bedMap!)], homes)
    expect([top, bedMap!].map((map) => roleOn(both, map))).toEqual(['reader', 'editor'])
    expect(roleOn(reachOf([editorOf(top)], homes), bedMap!)).toBe(null)
    const whole: Grant = { role: 'commenter', maps: null, withChildMaps: false }
    expect(roleOn(reachOf([whole, reader], homes), bedMap!)).toBe('commenter')
  })
})

describe('somebody to whom one map is open', () => {
  const setting = () => {
    const garden = new Garden()
    const open = garden.grow('Garden\n- Bed\n  - Rose\n- Gate')
    const shut = garden.grow('Pond\n- Reed\n  - Nest')
    return { garden, open, shut, grants: [editorOf(open)] }
  }
  const edits = ({ garden }: ReturnType<typeof setting>, command: Parameters<Garden['do']>[0]) =>
    command(garden.records, garden.newIds).change.edits

  test('edits that map, also what others have linked with theirs, and no other map', () => {
    const set = setting()
    const { garden, grants } = set
    const link = edits(set, (records, newIds) =>
      addCrosslink(
        records,
        { from: garden.topic('Reed'), to: { kind: 'topic', id: garden.topic('Rose') }, drawn: 'line' },
        newIds,
      ),
    )
    expect(attempt(garden.records, link, grants)).toMatch(/not open to you/)
    expect(attempt(garden.records, link, [{ role: 'owner', maps: null, withChildMaps: false }])).toBe(null)
    const add = (parent: string) =>
      edits(set, (records, newIds) =>
        addTopic(records, { parent: garden.topic(parent), after: 'last', text: 'New' }, newIds),
      )
    expect(attempt(garden.records, add('Rose'), grants)).toBe(null)
    expect(attempt(garden.records, add('Reed'), grants)).toMatch(/not open to you/)
    const note = (topic: string) =>
      edits(set, (records, newIds) =>
        writeNote(records, { topic: garden.topic(topic), base: '', text: 'Words' }, newIds),
      )
    expect(attempt(garden.records, note('Rose'), grants)).toBe(null)
    expect(attempt(garden.records, note('Nest'), grants)).toMatch(/not open to you/)
  })

  test('moves nothing in or out, and makes no map that would not be open to them', () => {
    const set = setting()
    const { garden, grants, open } = set
    const move = (topic: string, parent: string) =>
      edits(set, (records, newIds) =>
        moveTopics(
          records,
          { topics: [garden.topic(topic)], parent: garden.topic(parent), after: 'last', side: null },
          newIds,
        ),
      )
    expect(attempt(garden.records, move('Nest', 'Bed'), grants)).toMatch(/not open to you/)
    expect(attempt(garden.records, move('Rose', 'Reed'), grants)).toMatch(/not open to you/)
    expect(attempt(garden.records, move('Rose', 'Gate'), grants)).toBe(null)
    const split = edits(set, (records, newIds) => splitOff(records, { topic: garden.topic('Gate') }, newIds))
    expect(attempt(garden.records, split, grants)).toMatch(/not open to you/)
    expect(attempt(garden.records, split, [{ role: 'editor', maps: [open], withChildMaps: true }])).toBe(null)
  })

  test('cannot gain a map by moving its doorway under one whose child maps are open', () => {
    const set = setting()
    const { garden, open, shut } = set
    const gate = garden.topic('Gate')
    const doorway: Edit[] = [
      { kind: 'topic', id: gate, before: { opensMap: null }, after: { opensMap: shut } },
      { kind: 'map', id: shut, before: { homeDoorway: null }, after: { homeDoorway: gate } },
    ]
    expect(attempt(garden.records, doorway, [{ role: 'owner', maps: null, withChildMaps: false }])).toBe(null)
    const shed = garden.grow('Shed\n- Shelf')
    const grants = [editorOf(open), { role: 'editor', maps: [shed], withChildMaps: true } as const satisfies Grant]
    const move = edits(set, (records, newIds) =>
      moveTopics(records, { topics: [gate], parent: garden.topic('Shelf'), after: 'last', side: null }, newIds),
    )
    expect(attempt(garden.records, move, grants)).toMatch(/hang maps elsewhere/)
    expect(attempt(garden.records, move, [...grants, editorOf(shut)])).toBe(null)
  })

  test('cannot gain what lies below a map by moving that map, nor open it to others', () => {
    const garden = new Garden()
    const top = garden.grow('Garden\n- Gate\n  - Hinge')
    const pond = garden.grow('Pond\n- Reed')
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Gate') }, newIds))
    const below = [...garden.records.all('map')].at(-1)!.id
    const hang: Edit[] = [
      { kind: 'topic', id: garden.topic('Reed'), before: {}, after: { opensMap: top } },
      { kind: 'map', id: top, before: {}, after: { homeDoorway: garden.topic('Reed') } },
    ]
    const grants = [editorOf(top), { role: 'editor', maps: [pond], withChildMaps: true } as const satisfies Grant]
    expect(attempt(garden.records, hang, grants)).toMatch(/hang maps elsewhere/)
    expect(attempt(garden.records, hang, [editorOf(top, pond)])).toMatch(/hang maps elsewhere/)
    expect(attempt(garden.records, hang, [...grants, editorOf(below)])).toBe(null)
  })

  test('cannot take hold of what is carried elsewhere, under whatever id it is sent', () => {
    const set = setting()
    const { garden, grants } = set
    garden.do((records, newIds) =>
      writeNote(records, { topic: garden.topic('Nest'), base: '', text: 'A secret' }, newIds),
    )
    const { note } = garden.records.need('topic', garden.topic('Nest'))
    const rose = garden.topic('Rose')
    const carry: Edit = { kind: 'topic', id: rose, before: { note: null }, after: { note } }
    expect(attempt(garden.records, [carry], grants)).toMatch(/leads to something/)
    const disguise = { kind: 'weblink', id: note!, before: null } as const
    const after = {
      id: note as never,
      topic: rose,
      url: 'https://folvet.example/',
      title: 'x',
      rank: 'a0',
      trashed: false,
    }
    expect(attempt(garden.records, [{ ...disguise, after }, carry], grants)).toMatch(/leads to something/)
  })
})

// ---- Whatever is tried -------------------------------------------------------------------------------------------

const grant = fc.record({
  role: fc.constantFrom('reader' as const, 'editor' as const),
  maps: fc.uniqueArray(fc.nat(3), { minLength: 1, maxLength: 2 }),
  withChildMaps: fc.boolean(),
})
test('no sequence of acts and forgeries changes a map that is not open for editing, or shows what was not open', () => {
  let made = 0
  fc.assert(
    fc.property(
      fc.array(grant, { minLength: 1, maxLength: 3 }),
      fc.array(
        fc.oneof(
          act.map((chosen) => ({ chosen })),
          forgery.map((forge) => ({ forge })),
        ),
        { maxLength: 30 },
      ),
      (given, tries) => {
        const garden = new Garden()
        const { records, newIds } = garden
        const maps = [
          garden.grow('Garden\n- Bed\n  - Rose\n- Gate\n  - Hinge'),
          garden.grow('Pond\n- Reed\n  - Nest'),
          garden.grow('Shed\n- Shelf\n  - Rake'),
        ]
        for (const topic of ['Rose', 'Nest', 'Rake'])
          garden.do((held, ids) =>
            writeNote(held, { topic: garden.topic(topic), base: '', text: `words on ${topic}` }, ids),
          )
        garden.do((held, ids) => splitOff(held, { topic: garden.topic('Gate') }, ids))
        maps.push([...records.all('map')].at(-1)!.id)
        const grants = given.map((each): Grant => ({ ...each, maps: each.maps.map((i) => maps[i]!) }))
        for (const each of tries) {
          const all = [...records.all('map')].map(({ id }) => id as string)
          const shut = all.filter((map) => !isOpenTo(records, grants, map, ['editor']))
          const were = shut.map((map) => [JSON.stringify(records.need('map', map)), ...shownOn(records, map)])
          const readable = (ids: readonly string[]) =>
            ids
              .filter((map) => isOpenTo(records, grants, map, ['reader', 'editor']))
              .flatMap((map) => shownOn(records, map))
          const seen = new Set(idsIn(readable(all)))
          let edits: readonly Edit[]
          try {
            const outcome: Pick<Outcome['change'], 'edits'> =
              'chosen' in each ? perform(records, newIds, each.chosen).change : { edits: forged(records, each.forge) }
            edits = outcome.edits
          } catch (error) {
            if (error instanceof Refusal || error instanceof RangeError) continue
            throw error
          }
          const before = contents(records)
          const isMade = attempt(records, edits, grants) === null
          if (!isMade) {
            expect(contents(records)).toEqual(before)
            continue
          }
          made++
          expect(shut.map((map) => [JSON.stringify(records.need('map', map)), ...shownOn(records, map)])).toEqual(were)
          for (const { id, before } of edits) if (before === null) seen.add(id)
          const now = [...records.all('map')].map(({ id }) => id as string)
          for (const id of idsIn(readable(now))) expect(seen, `${JSON.stringify(each)} shows ${id}`).toContain(id)
        }
      },
    ),
    { numRuns: 400 },
  )
  // The test would say nothing if everything were refused.
  expect(made).toBeGreaterThan(150)
}, 120_000)
