import { expect, test } from 'vitest'
import { writeNote } from '../../../src/core/commands/write-note'
import { plot } from '../gardens'

test('the first words make the note, later ones change it, and it tells what they began with', () => {
  const { garden } = plot()
  const topic = garden.topic('Prune')
  const write = (base: string, text: string) => garden.do((r, n) => writeNote(r, { topic, base, text }, n))
  const noteOf = () => garden.records.need('note', garden.records.need('topic', topic).note)
  write('', 'Late winter.')
  const { id } = noteOf()
  write('Late winter.', 'Late winter, dry.\n')
  expect(noteOf()).toMatchObject({ id, text: 'Late winter, dry.\n' })
  // Somebody who began before that keeps theirs, and leaves the other's.
  write('Late winter.', 'Late winter.\nNot the plum.')
  expect(noteOf().text).toContain('Not the plum.')
  expect(noteOf().text).toContain('dry')
})
