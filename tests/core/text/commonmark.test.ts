import { readdirSync, readFileSync } from 'node:fs'
import { tests as examples } from 'commonmark-spec'
import { describe, expect, test } from 'vitest'
import { inlineWords, isTooMuch, readCommonMark } from '../../../src/core/text/commonmark'
import { readNote, writeNote } from '../../../src/core/text/note-document'
import { noteHtml } from '../../../src/site/note-html'
import { normalised, specHtml } from './spec-html'

const source = (markdown: string) => markdown.replaceAll('→', '\t')
const unchanged = (text: string) => {
  const note = readNote(text)
  return writeNote(note, note.blocks, note.blocks)
}

/** Bare addresses are links by the extensions of GFM; in plain CommonMark they are text. */
const BARE = new Set([602, 608, 611, 612])

describe('the 652 examples of CommonMark 0.31', () => {
  test('give the HTML that the specification says', () => {
    expect(examples).toHaveLength(652)
    const wrong = examples
      .filter(({ number }) => !BARE.has(number))
      .flatMap(({ number, markdown, html }) => {
        const made = normalised(specHtml(readCommonMark(source(markdown))))
        return made === normalised(source(html)) ? [] : [{ number, made, html: normalised(source(html)) }]
      })
    expect(wrong).toEqual([])
  })

  test('are the same to the letter after the editor, where nothing was changed', () => {
    for (const { number, markdown } of examples)
      expect([number, unchanged(source(markdown))]).toEqual([
        number,
        source(markdown).trim() === '' ? '' : source(markdown),
      ])
  })

  test('bring no markup of their own onto a page', () => {
    for (const { markdown } of examples) {
      const { markup } = noteHtml(source(markdown), 1, () => undefined)
      expect(markup).not.toMatch(/<(?:script|style|iframe|img|form|object)\b|\son\w+=|href="(?!https?:|mailto:)/i)
    }
  })
})

test('the READMEs of the packages here are the same to the letter after the editor', () => {
  const packages = readdirSync('node_modules').filter((name) => !name.startsWith('.') && !name.startsWith('@'))
  let read = 0
  for (const name of packages) {
    const file = readdirSync(`node_modules/${name}`).find((entry) => /^readme\.md$/i.test(entry))
    if (!file) continue
    const text = readFileSync(`node_modules/${name}/${file}`, 'utf8')
    expect([name, unchanged(text) === text]).toEqual([name, text.trim() !== ''])
    read++
  }
  expect(read).toBeGreaterThan(200)
})

describe('beyond CommonMark', () => {
  test('tables, tasks, strikethrough and bare addresses are read', () => {
    const [table, list, paragraph] = readCommonMark(
      '| a | b |\n|:--|---|\n| 1 | *2* |\n\n- [x] done\n- [ ] open\n- [ ]not a box\n\n~~gone~~ see https://example.org/a_b, or (https://example.org).',
    )
    expect(table).toMatchObject({
      type: 'table',
      align: ['left', null],
      rows: [[[{ text: 'a' }], [{ text: 'b' }]], {}],
    })
    expect(list).toMatchObject({ items: [{ isDone: true }, { isDone: false }, { isDone: null }] })
    expect(paragraph).toMatchObject({
      content: [
        { type: 'strike' },
        { text: ' see ' },
        { type: 'link', address: 'https://example.org/a_b' },
        { text: ', or (' },
        { type: 'link', address: 'https://example.org' },
        { text: ').' },
      ],
    })
  })

  test('blocks know their lines', () => {
    expect(readCommonMark('# a\n\nb\nc\n\n- d\n\n  e\n\n\n```\nf\n```')).toMatchObject([
      { type: 'heading', from: 0, to: 1 },
      { type: 'paragraph', from: 2, to: 4 },
      {
        type: 'list',
        from: 5,
        items: [
          {
            from: 5,
            blocks: [
              { from: 5, to: 6 },
              { from: 7, to: 8 },
            ],
          },
        ],
      },
      { type: 'code', from: 10, to: 13 },
    ])
  })
})

describe('hostile text', () => {
  const PARTS = [
    '_*',
    '](',
    '*a ',
    '[',
    '![',
    '[a][',
    '>',
    '> \n',
    '`',
    '``` ',
    '[a]: b\n',
    '[]: ',
    '- ',
    '- a\n',
    '1. a\n',
    '<',
    '<!--',
    '<?',
    '<a href="',
    '[a](<b',
    '[a](',
    '&',
    '&#',
    '\\',
    '~~',
    '|',
    'a|',
    '*_',
    'a**b',
    '**a ',
    '__a ',
    'http://',
    'x@x ',
    '# ',
    '\n',
    '\t',
    '***',
    ')](',
    '.',
    'https://a.',
    '**[',
  ]

  test.each([50_000, 200_000, 1_000_000])(
    'of %i letters is read, edited and published in less than a second each',
    (size) => {
      for (const part of PARTS) {
        const text = part.repeat(size / part.length)
        const start = performance.now()
        if (!isTooMuch(text)) readCommonMark(text)
        const read = performance.now()
        expect([part, unchanged(text) === text || text.trim() === '']).toEqual([part, true])
        const edited = performance.now()
        noteHtml(text, 1, () => undefined)
        const published = performance.now()
        const times = [read - start, edited - read, published - edited].map(Math.round)
        // A second on a quiet machine; a loaded one gets some air.
        expect([part, times, Math.max(...times) < 2_500]).toEqual([part, times, true])
      }
    },
    240_000,
  )

  test.each([
    ['emphasis', `${'*a '.repeat(5_000)}${'*'.repeat(5_000)}`],
    ['strong emphasis', '**a'.repeat(5_000)],
    ['quotes', '>'.repeat(5_000)],
    ['brackets', `${'['.repeat(5_000)}${']'.repeat(5_000)}`],
    [
      'lists',
      Array.from({ length: 5_000 }, (_, i) => `${'  '.repeat(i)}- x`)
        .join('\n')
        .slice(0, 900_000),
    ],
    ['quotes and lists', '> - '.repeat(2_000)],
  ])('of nested %s overflows nothing', (_, text) => {
    expect(unchanged(text)).toBe(text)
    expect(noteHtml(text, 1, () => undefined).markup.length).toBeGreaterThan(0)
    if (!isTooMuch(text)) expect(readCommonMark(text).length).toBeGreaterThan(0)
  })

  test('a list of 500 levels and of 10,000 bullets are read as they are', () => {
    const deep = readCommonMark(Array.from({ length: 500 }, (_, i) => `${'  '.repeat(i)}- x`).join('\n'))
    let levels = 0
    for (let [block] = deep; block?.type === 'list'; block = block.items[0]!.blocks[1]) levels++
    expect(levels).toBe(500)
    const [flat] = readCommonMark(Array.from({ length: 10_000 }, (_, i) => `- x${i}`).join('\n'))
    expect(flat).toMatchObject({ type: 'list' })
    expect(flat?.type === 'list' && flat.items.length).toBe(10_000)
    const [heading] = readCommonMark(`# a${' '.repeat(100_000)}b`)
    expect(heading?.type === 'heading' && inlineWords(heading.content)).toMatch(/^a +b$/)
  })
})
