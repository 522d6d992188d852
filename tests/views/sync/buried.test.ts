import { expect, test } from 'vitest'
import type { ToldChange } from '../../../src/core/changes/edit'
import { addTopic } from '../../../src/core/commands/add-topic'
import type { Outcome } from '../../../src/core/commands/command'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { restoreTopic } from '../../../src/core/commands/restore-topic'
import { writeNote } from '../../../src/core/commands/write-note'
import { Buried } from '../../../src/views/sync/buried'
import { plot } from '../../core/gardens'

const setUp = () => {
  const { garden } = plot()
  const peas = garden.topic('Sow peas')
  const here = new Set<string>()
  let number = 0
  const buried = new Buried(
    garden.records,
    'Ada',
    () => true,
    (change) => here.has(change),
  )
  const told = (person: string, { change }: Outcome): ToldChange =>
    ({ ...change, number: ++number, person, personName: person, at: '', maps: null, step: null }) as ToldChange
  const add = (text: string) => garden.do((r, ids) => addTopic(r, { parent: peas, after: 'last', text }, ids))
  const trash = () => garden.do((r, ids) => deleteTopics(r, { topics: [peas] }, ids))
  const note = () => garden.do((r, ids) => writeNote(r, { topic: peas, base: '', text: 'In rows.' }, ids))
  return { garden, peas, here, buried, told, add, trash, note }
}

test('what is written below something that another has put into the trash is found, whichever came first', () => {
  for (const isFirst of [true, false]) {
    const { peas, buried, told, add, trash } = setUp()
    const acts = [() => told('Ada', add('In April')), () => told('Ben', trash())]
    const [one, two] = isFirst ? acts : acts.toReversed()
    // Without a connection the one is made while the other is not known yet.
    const changes = [one!(), two!()]
    expect(buried.look(changes)).toMatchObject([{ head: peas, by: 'Ben', topics: [expect.any(String)] }])
    expect(buried.look([])).toEqual([])
  }
})

test('a note is found as well, and nothing is said of what one has put there oneself, or what came back', () => {
  const other = setUp()
  expect(other.buried.look([other.told('Ada', other.note()), other.told('Ben', other.trash())])).toHaveLength(1)
  const own = setUp()
  const changes = [own.told('Ada', own.add('In April')), own.told('Ada', own.trash())]
  own.here.add(changes[1]!.id)
  expect(own.buried.look(changes)).toEqual([])
  // In another window it is out of sight as well.
  const elsewhere = setUp()
  const early = elsewhere.told('Ada', elsewhere.add('In April'))
  const trash = elsewhere.told('Ada', elsewhere.trash())
  const late = elsewhere.told('Ada', elsewhere.add('In May'))
  expect(elsewhere.buried.look([early, trash, late])).toMatchObject([{ by: 'you', topics: [late.edits![0]!.id] }])
  const back = setUp()
  const restored = [
    back.told('Ada', back.add('In April')),
    back.told('Ben', back.trash()),
    back.told(
      'Ben',
      back.garden.do((r, ids) => restoreTopic(r, { topic: back.peas }, ids)),
    ),
  ]
  expect(back.buried.look(restored)).toEqual([])
})

test('what was written long ago, or by others, is not one’s own', () => {
  const { buried, told, add, trash } = setUp()
  buried.look([told('Ada', add('In April')), told('Ben', add('In May'))], 0)
  expect(buried.look([told('Ben', trash())], 11 * 60_000)).toEqual([])
})
