import { expect, test } from 'vitest'
import { attachFiles, removeAttachment } from '../../../src/core/commands/attachments'
import { FileId } from '../../../src/core/records/ids'
import { Garden } from '../gardens'

test('files hang on topics in the order given, and are named when they are taken off', () => {
  const garden = new Garden()
  garden.grow('Garden')
  const topic = garden.topic('Garden')
  const files = ['plan.csv', 'map.svg'].map((name, i) => {
    const id = FileId.parse(`00000000-0000-7000-a000-00000000000${i + 1}`)
    garden.records.put('file', {
      id,
      sha256: 'a'.repeat(64),
      name,
      type: 'text/plain',
      size: 3,
      picture: null,
      trashed: false,
    })
    return id
  })
  garden.do((r, m) => attachFiles(r, { topic, files }, m))
  const attached = garden.records.attachments(topic)
  expect(attached.map(({ file }) => file)).toEqual(files)
  const { change } = garden.do((r, m) => removeAttachment(r, { attachment: attached[0]!.id }, m))
  expect(change.label).toBe('Remove plan.csv')
  expect(garden.records.attachments(topic)).toHaveLength(1)
})
