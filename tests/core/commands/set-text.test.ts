import { expect, test } from 'vitest'
import { setText } from '../../../src/core/commands/set-text'
import { Garden } from '../gardens'

test('a text that is nothing but an address becomes a web link, and what is left to read of it the text', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring')
  const topic = garden.topic('Spring')
  const write = (text: string) => garden.do((r, m) => setText(r, { topic, text }, m))
  write(' https://www.example.org/peas/ ')
  expect(garden.records.need('topic', topic).text).toBe('example.org/peas')
  expect(garden.records.weblinks(topic).map(({ url }) => url)).toEqual(['https://www.example.org/peas/'])
  write('https://www.example.org/peas/')
  expect(garden.records.weblinks(topic)).toHaveLength(1)
  write('ines@example.org')
  expect(garden.records.need('topic', topic).text).toBe('ines@example.org')
  expect(garden.records.weblinks(topic).map(({ url }) => url)).toContain('mailto:ines@example.org')
  write('see https://example.org')
  expect(garden.records.need('topic', topic).text).toBe('see https://example.org')
  expect(garden.records.weblinks(topic)).toHaveLength(2)
})
