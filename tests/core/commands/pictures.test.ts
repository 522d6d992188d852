import { expect, test } from 'vitest'
import { firstSize, putPicture, removePicture, resizePicture } from '../../../src/core/commands/pictures'
import { FileId } from '../../../src/core/records/ids'
import { drawnPlot } from '../drawn-plot'
import { overlaps } from '../layout/forests'

test('a picture stands above the text, sized so that the map stays readable, and keeps its form when it is resized', () => {
  const { garden, box, layout, markup } = drawnPlot()
  const topic = garden.topic('Sow peas')
  const file = FileId.parse('00000000-0000-7000-a000-000000000001')
  const natural = { width: 4_000, height: 1_000 }
  const record = { id: file, sha256: 'a'.repeat(64), name: 'peas.png', type: 'image/png', size: 3, trashed: false }
  garden.records.put('file', { ...record, picture: natural })
  const height = box('Sow peas').height
  garden.do((r, m) => putPicture(r, { topic, file, natural }, m))
  expect(garden.records.need('topic', topic).picture).toEqual({ file, width: 240, height: 60 })
  expect(box('Sow peas').height).toBe(height + 60 + 6)
  expect(markup('Sow peas')).toMatch(/<image [^>]*width="240" height="60" href="\/pictures\/[^"]*\?480"/)
  garden.do((r, m) => resizePicture(r, { topic, width: 400 }, m))
  expect(garden.records.need('topic', topic).picture).toMatchObject({ width: 400, height: 100 })
  expect(overlaps(layout())).toEqual([])
  garden.do((r, m) => removePicture(r, { topic }, m))
  expect(box('Sow peas').height).toBe(height)
})

test('a picture is neither blown up at first nor drawn too small to see', () => {
  expect(firstSize({ width: 40, height: 30 })).toEqual({ width: 40, height: 30 })
  expect(firstSize({ width: 10, height: 5_000 })).toEqual({ width: 16, height: 200 })
})

test('a picture must be a file of the collection', () => {
  const { garden } = drawnPlot()
  const picture = { topic: garden.topic('Prune'), file: FileId.parse('00000000-0000-7000-a000-00000000000f') }
  expect(() => garden.do((r, m) => putPicture(r, { ...picture, natural: { width: 9, height: 9 } }, m))).toThrow(
    'The picture is no longer there.',
  )
})
