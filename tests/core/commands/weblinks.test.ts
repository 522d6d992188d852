import { expect, test } from 'vitest'
import { addWeblink, changeWeblink, removeWeblink } from '../../../src/core/commands/weblinks'
import { nameFromAddress } from '../../../src/core/records/weblink'
import { Garden, refusal } from '../gardens'

test('web links are made whole, changed, and refused in words where they can be no address', () => {
  const garden = new Garden()
  garden.grow('Garden')
  const topic = garden.topic('Garden')
  garden.do((r, m) => addWeblink(r, { topic, url: ' example.org/peas ', title: ' Peas ' }, m))
  const [link] = garden.records.weblinks(topic)
  expect(link).toMatchObject({ url: 'https://example.org/peas', title: 'Peas' })
  garden.do((r, m) => changeWeblink(r, { weblink: link!.id, url: 'http://example.org', title: '' }, m))
  expect(garden.records.weblinks(topic)[0]).toMatchObject({ url: 'http://example.org', title: '' })
  for (const url of ['not an address', 'javascript:alert(1)', ''])
    expect(refusal(() => garden.do((r, m) => addWeblink(r, { topic, url, title: '' }, m)))).toContain(
      'This is not a web address.',
    )
  garden.do((r, m) => removeWeblink(r, { weblink: link!.id }, m))
  expect(garden.records.weblinks(topic)).toEqual([])
})

test('a mail address becomes a link too, and a name is proposed from an address', () => {
  const garden = new Garden()
  garden.grow('Garden')
  const topic = garden.topic('Garden')
  garden.do((r, m) => addWeblink(r, { topic, url: 'warden@example.org', title: '' }, m))
  expect(garden.records.weblinks(topic)[0]).toMatchObject({ url: 'mailto:warden@example.org' })
  const names = {
    'https://www.example.org/peat/depth-survey_2025.html?page=2': 'Depth survey 2025',
    'example.org/Moor%20grass/': 'Moor grass',
    'https://example.org/': 'example.org',
    'https://example.org/page/48213': 'example.org',
    'https://example.org/6f1ed002ab5595859014ebf0951522d9': 'example.org',
    'https://example.org/%E0%A4%A': 'example.org',
    'mailto:warden@example.org': 'warden@example.org',
    'no address': '',
    'https://': '',
  }
  for (const [address, name] of Object.entries(names)) expect(nameFromAddress(address), address).toBe(name)
})
