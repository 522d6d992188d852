import { describe, expect, test } from 'vitest'
import { prepareChange } from '../../../src/core/changes/prepare'
import { areAsSeen, leavesOut, undoChange } from '../../../src/core/changes/undo'
import { addTopic } from '../../../src/core/commands/add-topic'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { setText } from '../../../src/core/commands/set-text'
import { writeNote } from '../../../src/core/commands/write-note'
import { ChangeId } from '../../../src/core/records/ids'
import { plot } from '../gardens'

const setUp = () => {
  const { garden } = plot()
  const peas = garden.topic('Sow peas')
  const undoOf = (change: Parameters<typeof undoChange>[1]) =>
    undoChange(garden.records, change, ChangeId.parse(garden.newIds.newId()))
  return { garden, peas, undoOf }
}
const textOf = ({ garden, peas }: ReturnType<typeof setUp>) => garden.records.get('topic', peas)!.text

describe('what others have done since an undo was made is theirs when it is committed', () => {
  test('a newer text stays, and an undo of nothing else is refused', () => {
    const at = setUp()
    const { garden, peas, undoOf } = at
    const made = garden.do((r, ids) => setText(r, { topic: peas, text: 'Sow early peas' }, ids))
    const { change: undo } = undoOf(made.change)
    garden.do((r, ids) => setText(r, { topic: peas, text: 'Sow late peas' }, ids))
    expect(prepareChange(garden.records, undo!.edits, true, true)).toMatchObject({
      ok: false,
      problem: { code: 'gone' },
    })
    expect(textOf(at)).toBe('Sow late peas')
  })

  test('words of others elsewhere in the same text stay, and one’s own are taken out of them', () => {
    const at = setUp()
    const { garden, peas, undoOf } = at
    garden.do((r, ids) => setText(r, { topic: peas, text: 'Peas\nLeeks\nBeans' }, ids))
    const made = garden.do((r, ids) => setText(r, { topic: peas, text: 'Early peas\nLeeks\nBeans' }, ids))
    const { change: undo } = undoOf(made.change)
    garden.do((r, ids) => setText(r, { topic: peas, text: 'Early peas\nLeeks\nLate beans' }, ids))
    expect(prepareChange(garden.records, undo!.edits, true, true).ok).toBe(true)
    expect(textOf(at)).toBe('Peas\nLeeks\nLate beans')
  })

  test('a note that somebody else has gone on with stays, with its topic', () => {
    const { garden, peas, undoOf } = setUp()
    const made = garden.do((r, ids) => writeNote(r, { topic: peas, base: '', text: 'Mine.' }, ids))
    const { change: undo } = undoOf(made.change)
    garden.do((r, ids) => writeNote(r, { topic: peas, base: 'Mine.', text: 'Mine.\n\nA page of theirs.' }, ids))
    expect(prepareChange(garden.records, undo!.edits, true, true).ok).toBe(false)
    const { note } = garden.records.get('topic', peas)!
    expect(garden.records.get('note', note)).toMatchObject({ text: 'Mine.\n\nA page of theirs.', trashed: false })
  })
})

describe('what was made and has got other work since is left, and said', () => {
  test('a note with words of others', () => {
    const { garden, peas, undoOf } = setUp()
    const made = garden.do((r, ids) => writeNote(r, { topic: peas, base: '', text: 'Mine.' }, ids))
    const { note } = garden.records.get('topic', peas)!
    garden.do((r, ids) => writeNote(r, { topic: peas, base: 'Mine.', text: 'Mine.\n\nTheirs.' }, ids))
    const { change, leftAlone } = undoOf(made.change)
    expect(change).toBeNull()
    expect(leftAlone.map(({ id }) => id)).toEqual(expect.arrayContaining([note, peas]))
  })

  test('topics below which others have written, and those in which these stand; the rest goes', () => {
    const { garden, peas, undoOf } = setUp()
    const add = (parent: typeof peas, text: string) =>
      garden.do((r, ids) => addTopic(r, { parent, after: 'last', text }, ids))
    const [outer, inner, other] = ['Beds', 'North', 'South'].map((text) => ({ text, made: add(peas, text) }))
    // As one change, as when a branch is pasted.
    const edits = [outer!, inner!, other!].flatMap(({ made }) => made.change.edits)
    const [bed, north, south] = [outer!, inner!, other!].map(({ made }) => made.select[0]!)
    garden.do((r, ids) => addTopic(r, { parent: north!, after: 'last', text: 'Of somebody else' }, ids))
    const { change, leftAlone } = undoOf({ ...outer!.made.change, edits })
    expect(leftAlone.map(({ id }) => id)).toEqual([north])
    expect(change!.edits.map(({ id }) => id).sort()).toEqual([bed, south].sort())
  })

  test('what was put there and trashed again keeps nothing', () => {
    const { garden, peas, undoOf } = setUp()
    const made = garden.do((r, ids) => addTopic(r, { parent: peas, after: 'last', text: 'Beds' }, ids))
    const child = garden.do((r, ids) => addTopic(r, { parent: made.select[0]!, after: 'last', text: 'North' }, ids))
    garden.do((r, ids) => deleteTopics(r, { topics: child.select }, ids))
    expect(undoOf(made.change)).toMatchObject({ leftAlone: [], change: { edits: [{ after: { trashed: true } }] } })
  })
})

test('a change that was worked out on what is not there any more is known', () => {
  const { garden, peas } = setUp()
  const { change } = setText(garden.records, { topic: peas, text: 'Sow early peas' }, garden.newIds)
  const dated = [{ kind: 'topic', id: peas, before: { task: null }, after: { task: 'open' } }] as typeof change.edits
  expect(areAsSeen(garden.records, dated)).toBe(true)
  garden.do((r, ids) => setText(r, { topic: peas, text: 'Sow late peas' }, ids))
  // Words are joined.
  expect(areAsSeen(garden.records, change.edits)).toBe(true)
  expect(areAsSeen(garden.records, [{ ...dated[0]!, before: { task: 'done' } }] as typeof change.edits)).toBe(false)
})

test('that something was left out when a change was stored is known, also of one with many edits', () => {
  const { garden, peas } = setUp()
  const { change } = setText(garden.records, { topic: peas, text: 'Sow early peas' }, garden.newIds)
  expect(leavesOut(change, change)).toBe(false)
  expect(leavesOut(change, { ...change, edits: [] })).toBe(true)
  const edits = Array.from({ length: 50_000 }, (_, i) => ({ ...change.edits[0]!, id: `${i}` })) as typeof change.edits
  const start = performance.now()
  expect(leavesOut({ ...change, edits }, { ...change, edits })).toBe(false)
  expect(performance.now() - start).toBeLessThan(2_000)
})
