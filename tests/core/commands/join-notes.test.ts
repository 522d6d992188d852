import { expect, test } from 'vitest'
import { NewChange } from '../../../src/core/commands/command'
import { joinNotes } from '../../../src/core/commands/join-notes'
import { writeNote } from '../../../src/core/commands/write-note'
import type { TopicId } from '../../../src/core/records/ids'
import { plot } from '../gardens'

test.each([
  ['one that has none takes the other', null, 'Early.', 'Early.'],
  ['two are joined with an empty line between', 'Hot.', 'Early.', 'Hot.\n\nEarly.'],
  ['equal ones are there once', 'Early.', ' Early. \n', 'Early.'],
  ['an empty one adds nothing', 'Hot.', '  \n', 'Hot.'],
])('%s', (_, own, other, joined) => {
  const { garden } = plot()
  const [spring, summer] = [garden.topic('Spring'), garden.topic('Summer')]
  const write = (topic: TopicId, text: string) => garden.do((r, n) => writeNote(r, { topic, base: '', text }, n))
  if (own !== null) write(spring, own)
  write(summer, other)
  const before = garden.records.need('topic', spring).note
  const change = new NewChange(garden.records, garden.newIds)
  joinNotes(change, change.topic(spring), change.topic(summer))
  const { note } = change.topic(spring)
  expect(change.records.need('note', note).text).toBe(joined)
  if (before) expect(note).toBe(before)
})
