import { describe, expect, test } from 'vitest'
import { contentWords, keyPhrases } from '../../../src/core/drafting/key-phrases'
import { computedProposer, type RelatedTopic } from '../../../src/core/drafting/proposer'
import { countItems } from '../../../src/core/formats/outline'

const REPORT = `The water table fell by twenty centimetres last summer. Where the ditches were blocked with peat dams, the
water table stayed within ten centimetres of the surface. Peat dams on the northern ditches need repair before the winter
rain. Volunteers read the dipwells every second week. Two dipwells were lost to the fire in May. Volunteers asked for new
boots and for a second spade. The northern ditches carry water from the farm upstream.`

const propose = (wish: string, text = '', related: RelatedTopic[] = []) =>
  computedProposer.propose({ wish, text, related })

describe('key phrases', () => {
  test('are the words that a text is about, without sharing a half of their words', () => {
    const phrases = keyPhrases(REPORT, 5).map(({ text }) => text.toLowerCase())
    expect(phrases).toEqual(expect.arrayContaining(['water table', 'peat dams', 'northern ditches']))
    expect(new Set(phrases.flatMap((phrase) => phrase.split(' '))).size).toBe(phrases.join(' ').split(' ').length)
    expect(keyPhrases('', 5)).toEqual([])
    expect(keyPhrases('and of the', 5)).toEqual([])
  })

  test('words are compared as stems without what carries no matter', () => {
    expect(contentWords('The dipwells of our ditches, and their ponies')).toEqual(['dipwell', 'ditche', 'pony'])
  })
})

describe('a draft', () => {
  test('of a text has a branch for each key phrase, with the sentences about it, long ones whole in the note', async () => {
    const items = await propose('', REPORT)
    const water = items.find(({ text }) => text === 'Water table')!
    expect(water.children.map(({ text }) => text)).toContain('The water table fell by twenty centimetres last summer.')
    const long = items.flatMap(({ children }) => children).find(({ text }) => text.endsWith('…'))!
    expect(long.text.length).toBeLessThan(80)
    expect(long.note).toContain(long.text.slice(0, 40))
    expect(items.every(({ children }) => children.length > 0)).toBe(true)
  })

  test('of a page or a list keeps the structure that is there', async () => {
    const page = await propose('', '# Season\n\n## Spring\n\nSow.\n\n## Autumn\n\nReap.\n\n# Tools\n')
    expect(page.map(({ text, children }) => [text, children.map((child) => child.text)])).toEqual([
      ['Season', ['Spring', 'Autumn']],
      ['Tools', []],
    ])
    expect((await propose('', 'Water\n  Dams\n  Wells\nPeat')).map(({ text }) => text)).toEqual(['Water', 'Peat'])
  })

  test('for a wish begins with what the collection knows, and a template whose words fit', async () => {
    const related = [
      { id: '00000000-0000-7000-8000-000000000001', text: 'Volunteer days', children: ['Food', 'Tools'] },
    ]
    const items = await propose('plan a field season with volunteers', '', related)
    expect(items[0]).toMatchObject({
      text: 'Volunteer days',
      note: 'See [Volunteer days](folvet:topic/00000000-0000-7000-8000-000000000001)',
    })
    expect(items[0]!.children.map(({ text }) => text)).toEqual(['Food', 'Tools'])
    expect(countItems(items)).toBeGreaterThan(8)
    expect(JSON.stringify(items)).not.toContain('@+')
  })

  test('for a wish of which nothing is known asks what any undertaking must answer; for nothing it is empty', async () => {
    expect((await propose('xyzzy')).map(({ text }) => text)).toContain('What could go wrong')
    expect(await propose('  ', ' ')).toEqual([])
  })

  test('of a megabyte of one sentence is made in seconds and bounded memory', { timeout: 20_000 }, async () => {
    const sentence = 'The water table of the northern dome fell by twenty centimetres last summer. '
    const before = process.memoryUsage().heapUsed
    const start = performance.now()
    const items = await propose('', sentence.repeat(Math.ceil(1_000_000 / sentence.length)))
    expect(performance.now() - start).toBeLessThan(10_000)
    expect((process.memoryUsage().heapUsed - before) / 2 ** 20).toBeLessThan(600)
    expect(items.length).toBeGreaterThan(0)
  })
})
