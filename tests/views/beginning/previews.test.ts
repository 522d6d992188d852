import { expect, test } from 'vitest'
import { TEMPLATES } from '../../../src/core/templates/templates'
import { previewImport, previewTemplate } from '../../../src/views/beginning/previews'
import { COLLECTION, contents, Garden } from '../../core/gardens'

test('templates and imports are seen as they would be, and nothing is made', () => {
  const { records } = new Garden()
  const before = contents(records)
  for (const { id, name } of TEMPLATES) {
    const preview = previewTemplate(records, COLLECTION, id, name)!
    expect(preview.title).toBe(name)
    expect(preview.topics).toBeGreaterThan(4)
    expect(preview.records.root(preview.map)?.text).toBe(name)
  }
  expect(previewTemplate(records, COLLECTION, 'none', 'None')).toBe(null)
  const pages = [
    { path: 'garden.md', text: '# Garden\n\n- [Pond](pond.md)\n- [Gone](gone.md)' },
    { path: 'pond.md', text: '# Pond\n\n- Nest' },
  ]
  expect(previewImport(records, COLLECTION, pages, [])).toMatchObject({
    shown: [
      { title: 'Garden', topics: 3 },
      { title: 'Pond', topics: 2 },
    ],
    maps: 2,
    topics: 5,
    unread: 1,
  })
  // What leads to a file that came along leads somewhere.
  expect(previewImport(records, COLLECTION, pages, ['gone.md'])).toMatchObject({ unread: 0 })
  expect(previewImport(records, COLLECTION, [{ path: 'empty.md', text: '  \n' }], [])).toBe('empty.md holds no text.')
  expect(contents(records)).toEqual(before)
})
