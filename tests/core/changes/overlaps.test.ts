import { expect, test } from 'vitest'
import { overlapsIn } from '../../../src/core/changes/overlaps'
import { prepareChange } from '../../../src/core/changes/prepare'
import { setText } from '../../../src/core/commands/set-text'
import { writeNote } from '../../../src/core/commands/write-note'
import { plot } from '../gardens'

/** What is stored of a note, or of a topic's text, that one person writes over what another has written meanwhile. */
function meeting(base: string, theirs: string, mine: string, write: typeof setText | typeof writeNote = writeNote) {
  const { garden } = plot()
  const topic = garden.topic('Sow peas')
  garden.do((r, ids) => write(r, { topic, base: write === setText ? 'Sow peas' : '', text: base }, ids))
  const { change: sent } = write(garden.records, { topic, base, text: mine }, garden.newIds)
  garden.do((r, ids) => write(r, { topic, base, text: theirs }, ids))
  const prepared = prepareChange(garden.records, sent.edits, true)
  if (!prepared.ok) throw new Error(prepared.problem.message)
  return overlapsIn(sent, { ...sent, edits: prepared.edits })
}

test('who writes into lines that somebody else has changed meanwhile gets to know both versions', () => {
  const [overlap] = meeting('boots\n\nnet', 'high boots\n\nnet', 'low boots\n\nnet')
  expect(overlap).toMatchObject({ theirs: 'high boots\n\nnet', mine: 'low boots\n\nnet' })
  expect(overlap!.joined).toContain('high boots')
  expect(overlap!.joined).toContain('low boots')
})

test.each([
  ['nobody else wrote', 'boots', 'boots', 'low boots'],
  ['others wrote elsewhere in it', 'boots\n\nnet', 'boots\n\na long net', 'low boots\n\nnet'],
  ['both wrote the same', 'boots', 'low boots', 'low boots'],
])('nothing is told where %s', (_, base, theirs, mine) => {
  expect(meeting(base, theirs, mine)).toEqual([])
})

test('who rewords a topic that somebody else has reworded meanwhile keeps both, one below the other, and gets to know', () => {
  const [overlap] = meeting('Sow peas', 'Sow early peas', 'Sow late peas', setText)
  expect(overlap).toMatchObject({ kind: 'topic', theirs: 'Sow early peas', joined: 'Sow early peas\nSow late peas' })
  expect(meeting('Peas\nLeeks\nBeans', 'Early peas\nLeeks\nBeans', 'Peas\nLeeks\nLate beans', setText)).toEqual([])
})
