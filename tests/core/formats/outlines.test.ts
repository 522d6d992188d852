import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { headingAddress, resolveAddress, resolveAmong } from '../../../src/core/formats/address'
import { readIndentedText, writeIndentedText } from '../../../src/core/formats/indented-text'
import { countItems, type OutlineItem, outlineItem } from '../../../src/core/formats/outline'
import { readText } from '../../../src/core/formats/read-text'

const shape = (items: OutlineItem[]): unknown =>
  items.map((item) => (item.children.length > 0 ? [item.text, shape(item.children)] : item.text))

describe('indented text', () => {
  test('takes tabs, spaces, bullets and numbers as they come', () => {
    const text = 'Garden\n\t• Spring\n\t\t1. Sow peas\n\t\t2) Prune\n\n  - Summer\n    Pick\tbeans'
    expect(shape(readIndentedText(text))).toEqual([
      [
        'Garden',
        [
          ['Spring', ['Sow peas', 'Prune']],
          ['Summer', ['Pick\tbeans']],
        ],
      ],
    ])
  })

  test('reads what a list sets apart without its marks, and leaves all other stars', () => {
    const list = '- **Beans** first\n- 2 ** 3 ** 4\n- a *** b\n- **\n- **Peas**, **late ones**'
    expect(shape(readIndentedText(list))).toEqual(['Beans first', '2 ** 3 ** 4', 'a *** b', '**', 'Peas, late ones'])
    expect(shape(readIndentedText('x **y** z'))).toEqual(['x **y** z'])
    for (const worst of ['**a', '***', '**a ', '** '])
      expect(readIndentedText(`- ${worst.repeat(100_000)}`)).toHaveLength(1)
  }, 5_000)

  test('takes a line that is an address as a link, of the web or of mail', () => {
    const links = (text: string) => readIndentedText(text).map((item) => [item.text, item.links[0]?.address])
    expect(links('- https://example.org/beans/\n- gardener@example.org\n- beans: https://example.org')).toEqual([
      ['example.org/beans', 'https://example.org/beans/'],
      ['gardener@example.org', 'mailto:gardener@example.org'],
      ['beans: https://example.org', undefined],
    ])
  })

  test('is read back as it was written, whatever the tree', () => {
    const word = fc.stringMatching(/^[a-z]{1,8}$/)
    const tree = fc.letrec<{ item: OutlineItem }>((tie) => ({
      item: fc.record(
        {
          text: word,
          note: fc.constant(''),
          links: fc.constant<OutlineItem['links']>([]),
          noteLinks: fc.constant<OutlineItem['noteLinks']>([]),
          children: fc.oneof({ maxDepth: 4 }, fc.constant<OutlineItem[]>([]), fc.array(tie('item'), { maxLength: 3 })),
        },
        { noNullPrototype: true },
      ),
    })).item
    fc.assert(
      fc.property(fc.array(tree, { maxLength: 4 }), (items) => {
        expect(readIndentedText(writeIndentedText(items))).toEqual(items)
      }),
    )
  })

  test('stands 100,000 levels and lines of a megabyte', () => {
    const deep = Array.from({ length: 20_000 }, (_, i) => `${' '.repeat(Math.min(i, 300))}x`).join('\n')
    expect(countItems(readIndentedText(deep))).toBe(20_000)
    expect(readIndentedText('y'.repeat(1_000_000))[0]!.text.length).toBe(1_000_000)
  })
})

describe('a CommonMark page', () => {
  test('becomes headings and items, with paragraphs as their notes, word for word', () => {
    const page =
      '# Garden\n\nWhat *grows*.\n\n| a | b |\n| - | - |\n| 1 | 2 |\n\n## Spring\n\n- Sow peas\n\n  In rows of\n  30 cm.\n\n  ```\n  code\n  ```\n  - Early\n- Prune\n'
    const { items, format } = readText(page)
    expect(format).toBe('commonmark')
    expect(shape(items)).toEqual([['Garden', [['Spring', [['Sow peas', ['Early']], 'Prune']]]]])
    expect(items[0]!.note).toBe('What *grows*.\n\n| a | b |\n| - | - |\n| 1 | 2 |')
    expect(items[0]!.children[0]!.children[0]!.note).toBe('In rows of\n30 cm.\n\n```\ncode\n```')
  })

  test('turns a paragraph of nothing but links into the links of its topic', () => {
    const { items } = readText(
      '# Garden\n\n[Seeds](https://example.org/seeds), [Plan](plan.md)\n\n## [Water](water.md)\n',
    )
    expect(items[0]!.links).toEqual([
      { address: 'https://example.org/seeds', title: 'Seeds' },
      { address: 'plan.md', title: 'Plan' },
    ])
    expect(items[0]!.note).toBe('')
    expect(items[0]!.children[0]).toEqual({ ...outlineItem('Water'), links: [{ address: 'water.md', title: 'Water' }] })
  })

  test('keeps text before the first heading, and skips levels without harm', () => {
    expect(shape(readText('Preface here.\n\n# One\n\n### Deep\n\n# Two').items)).toEqual([
      'Preface here.',
      ['One', ['Deep']],
      'Two',
    ])
  })

  test('is not seen in a plain list, even one with long lines', () => {
    expect(readText('- one\n- two\n  - three').format).toBe('indented')
    expect(readText('').items).toEqual([])
  })
})

describe('addresses inside an imported folder', () => {
  test('are followed from the page, and never out of the folder', () => {
    expect(resolveAddress('a/page.md', '../b/other.md#x')).toEqual({ path: 'b/other.md', fragment: 'x' })
    expect(resolveAddress('page.md', '#Here%20we')).toEqual({ path: 'page.md', fragment: 'Here we' })
    for (const address of [
      '../../etc/passwd',
      '/etc/passwd',
      'https://example.org',
      'javascript:alert(1)',
      '\\\\host\\share',
    ])
      expect(resolveAddress('page.md', address)).toBeNull()
  })

  test('that begin at the top of a site lead to what is there, whatever folders stand before it', () => {
    const there = new Set(['api.md', 'guide/start.md'])
    const follow = (address: string) => resolveAmong('guide/page.md', address, (path) => there.has(path))
    expect(follow('/docs/api.md#log')).toEqual({ path: 'api.md', fragment: 'log' })
    expect(follow('/guide/start.md')).toEqual({ path: 'guide/start.md', fragment: '' })
    expect(follow('start.md')).toEqual({ path: 'guide/start.md', fragment: '' })
    for (const address of ['/etc/passwd', '//example.org/api.md', '/../../api', '/', '/#x', `/${'a/'.repeat(50_000)}`])
      expect(follow(address)).toBeNull()
  })

  test('of headings keep letters of any script', () => {
    expect(headingAddress('Hare’s-tail: Größe & 水!')).toBe('hare-s-tail-grosse-水')
  })
})
