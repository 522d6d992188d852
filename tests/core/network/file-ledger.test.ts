import { expect, test } from 'vitest'
import { attachFiles } from '../../../src/core/commands/attachments'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { renameFile, trashFiles } from '../../../src/core/commands/files'
import { putPicture } from '../../../src/core/commands/pictures'
import { fileLedger } from '../../../src/core/network/file-ledger'
import { FileId } from '../../../src/core/records/ids'
import { plot } from '../gardens'

test('every file is told with where it is, and what is nowhere can be removed', () => {
  const { garden, map } = plot()
  const file = (name: string, sha256: string) => {
    const id = FileId.parse(garden.newIds.newId())
    garden.records.put('file', {
      id,
      sha256: sha256.repeat(64),
      name,
      type: 'text/plain',
      size: 5,
      picture: null,
      trashed: false,
    })
    return id
  }
  const [plan, copy, sketch, stray] = [
    file('plan.txt', 'a'),
    file('plan (copy).txt', 'a'),
    file('sketch.png', 'b'),
    file('stray.txt', 'c'),
  ]
  const [peas, beans] = [garden.topic('Sow peas'), garden.topic('Pick beans')]
  garden.do((r, m) => attachFiles(r, { topic: peas, files: [plan, copy] }, m))
  garden.do((r, m) => attachFiles(r, { topic: beans, files: [plan] }, m))
  garden.do((r, m) => putPicture(r, { topic: beans, file: sketch, natural: { width: 40, height: 40 } }, m))
  const ledger = (isOpen = true) => fileLedger(garden.records, () => isOpen, isOpen)
  const told = () =>
    ledger().map(({ name, uses, same }) => [name, uses.map(({ how, text }) => `${how} ${text}`).sort(), same])
  expect(told()).toEqual([
    ['plan (copy).txt', ['file Sow peas'], 1],
    ['plan.txt', ['file Pick beans', 'file Sow peas'], 1],
    ['sketch.png', ['picture Pick beans'], 0],
    ['stray.txt', [], 0],
  ])
  expect(ledger()[1]!.uses[0]!.map).toBe(map)
  expect(ledger(false)).toEqual([])

  garden.do((r, m) => renameFile(r, { file: stray, name: ' found.txt ' }, m))
  expect(() => garden.do((r, m) => trashFiles(r, { files: [sketch] }, m))).toThrow(
    'sketch.png is still there: Pick beans.',
  )
  garden.do((r, m) => deleteTopics(r, { topics: [beans] }, m))
  garden.do((r, m) => trashFiles(r, { files: [sketch, stray] }, m))
  expect(told()).toEqual([
    ['plan (copy).txt', ['file Sow peas'], 1],
    ['plan.txt', ['file Sow peas'], 1],
  ])
})
