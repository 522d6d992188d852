import { expect, test } from 'vitest'
import { addWeblink, changeWeblink, removeWeblink } from '../../../src/core/commands/weblinks'
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
