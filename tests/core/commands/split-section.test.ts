import { expect, test } from 'vitest'
import { splitSection } from '../../../src/core/commands/split-section'
import { writeNote } from '../../../src/core/commands/write-note'
import { Garden } from '../gardens'

const NOTE = 'Sow early.\n\nFrost\n\nCover them.\n'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Peas\nSummer')
  const noteOf = (text: string) => {
    const { note } = garden.records.need('topic', garden.topic(text))
    return note ? garden.records.need('note', note).text : null
  }
  const write = (text: string) =>
    garden.do((r, ids) => writeNote(r, { topic: garden.topic(text), base: '', text: NOTE }, ids))
  const split = (text: string, heading: string) => {
    const args = {
      topic: garden.topic(text),
      base: NOTE,
      before: 'Sow early.\n',
      text: heading,
      after: 'Cover them.\n',
    }
    return garden.do((r, ids) => splitSection(r, args, ids))
  }
  return { garden, map, noteOf, write, split }
}

test('a heading in a note becomes the next topic, with what follows as its note', () => {
  const { garden, map, noteOf, write, split } = planted()
  write('Summer')
  const { change } = split('Summer', 'Frost')
  expect(change.label).toBe('Make Frost a topic')
  expect(garden.text(map)).toBe('- Garden\n  - Spring\n    - Peas\n  - Summer\n  - Frost')
  expect([noteOf('Summer'), noteOf('Frost')]).toEqual(['Sow early.\n', 'Cover them.\n'])
})

test('where others hang on the topic, or it is the root, the new one comes before them', () => {
  const { garden, map, write, split } = planted()
  write('Spring')
  split('Spring', 'Frost')
  write('Garden')
  split('Garden', '')
  expect(garden.text(map)).toBe('- Garden\n  - \n  - Spring\n    - Frost\n    - Peas\n  - Summer')
})

test('without words around it nothing is written', () => {
  const { garden, noteOf } = planted()
  const topic = garden.topic('Peas')
  const { change } = garden.do((r, ids) =>
    splitSection(r, { topic, base: '', before: '', text: 'Beans', after: ' ' }, ids),
  )
  expect(change.edits.map(({ kind }) => kind)).toEqual(['topic'])
  expect([noteOf('Peas'), noteOf('Beans')]).toEqual([null, null])
})
