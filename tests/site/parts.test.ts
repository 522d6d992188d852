import { describe, expect, test } from 'vitest'
import { setText } from '../../src/core/commands/set-text'
import { splitOff } from '../../src/core/commands/split-off'
import type { FileRecord } from '../../src/core/records/file'
import { escapeMarkup } from '../../src/core/text/escape-markup'
import { Addresses, anchorOf, publishedMaps, relative } from '../../src/site/addresses'
import { Html, html } from '../../src/site/html'
import { noteHtml } from '../../src/site/note-html'
import { searchIndex } from '../../src/site/search-index'
import { Garden } from '../core/gardens'

describe('markup', () => {
  test('escapes every value of a template that is no markup itself', () => {
    const hostile = `<script>"'&`
    expect(html`<a href="${hostile}">${[hostile, null, 3]}</a>${new Html('<b>')}`.markup).toBe(
      '<a href="&lt;script&gt;&quot;&#39;&amp;">&lt;script&gt;&quot;&#39;&amp;3</a><b>',
    )
    expect(escapeMarkup('a')).toBe('a')
  })
})

describe('addresses', () => {
  test('are relative from every page, and each map has one of its own', () => {
    expect(relative('index.html', 'maps/a.html')).toBe('maps/a.html')
    expect(relative('maps/a.html', 'maps/b.html#t-1')).toBe('../maps/b.html#t-1')
    expect(relative('maps/a.html', 'maps/a.html#t-1')).toBe('#t-1')
    const garden = new Garden()
    const maps = ['Gärten & Wege', 'Gärten & Wege', '!!!'].map((title) => garden.grow(title))
    const addresses = new Addresses(publishedMaps(garden.records))
    expect(maps.map((map) => addresses.map(map))).toEqual([
      'maps/garten-wege.html',
      'maps/garten-wege-2.html',
      'maps/map.html',
    ])
    expect(addresses.map('nowhere')).toBeUndefined()
    const topic = garden.records.need('topic', garden.topic('!!!'))
    expect(addresses.topic(topic)).toBe(`maps/map.html#${anchorOf(topic)}`)
  })
})

test('a file with a long name in any script has one that every system can unpack', () => {
  const addresses = new Addresses([])
  const file = { sha256: 'a'.repeat(64), name: '' } as FileRecord
  for (const name of [`${'澤'.repeat(100)}.pdf`, `${'👩🏽‍🌾'.repeat(30)}.pdf`, `${'x'.repeat(240)}.pdf`]) {
    const last = decodeURIComponent(addresses.file({ ...file, name }))
      .split('/')
      .at(-1)!
    expect(new TextEncoder().encode(last).length).toBeLessThanOrEqual(255)
    expect(last.isWellFormed()).toBe(true)
    expect(last).toMatch(/^[^\s/\\]+\.pdf$/u)
  }
})

describe('a note on a page', () => {
  const show = (text: string, follow = (address: string) => (address === 'folvet:known' ? 'there.html' : undefined)) =>
    noteHtml(text, 1, follow).markup.trim()

  test('sets its headings below those of the page, and keeps lists, tables and tasks', () => {
    expect(show('# One\n\n## Two')).toBe('<h2>One</h2>\n<h3>Two</h3>')
    expect(show('| a | b |\n|---|---|\n| 1 | 2 |')).toContain('<td>1</td>')
    expect(show('- [x] done')).toContain('type="checkbox"')
  })

  test('shows raw HTML as text and follows only what leads somewhere', () => {
    expect(show('<script>alert(1)</script>')).not.toContain('<script>')
    expect(show('[a](javascript:alert(1))')).not.toContain('href')
    expect(show('[a](folvet:known) [b](folvet:lost)')).toBe('<p><a href="there.html">a</a> <span>b</span></p>')
    expect(show('[a](https://example.org)')).toContain('href="https://example.org"')
  })

  test('turns pictures from elsewhere into links, so that the page asks for nothing', () => {
    expect(show('![a dam](https://example.org/dam.png)')).toBe('<p><a href="https://example.org/dam.png">a dam</a></p>')
    expect(show('![a dam](dam.png)')).toBe('<p><span>a dam</span></p>')
  })

  test('nested too deeply is shown as it is written', () => {
    expect(show('>'.repeat(5_000))).toMatch(/^<pre>&gt;/)
  })
})

describe('the search index', () => {
  function indexed(garden: Garden) {
    const files = searchIndex(garden.records, new Addresses(publishedMaps(garden.records)))
    return new Map(files.map(({ path, content }) => [path, content]))
  }

  test('lies in shards by the first two letters, without accents and capitals', () => {
    const garden = new Garden()
    garden.grow('Garden\nÄpfel ernten\nApplaus')
    const files = indexed(garden)
    expect(files.get('search/61-70.js')).toMatch(/^folvetSearch\.shard\("61-70",\{"apfel":\[\[\d\],\[\]\],"applaus":/)
    expect(files.get('search/shards.js')).toContain('"61-70"')
    expect(files.get('search/entries-0.js')).toContain('Äpfel ernten')
  })

  test('changes only where something changed', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas\nSummer')
    const before = indexed(garden)
    garden.do((r, m) => setText(r, { topic: garden.topic('Sow peas'), text: 'Sow beans' }, m))
    const after = indexed(garden)
    const changed = [...after].filter(([path, content]) => before.get(path) !== content).map(([path]) => path)
    expect(changed.sort()).toEqual(['search/62-65.js', 'search/entries-0.js', 'search/shards.js'])
  })

  test('is a script that cannot be broken by what it holds', () => {
    const garden = new Garden()
    garden.grow('Garden\n</script><script>\u2028')
    for (const content of indexed(garden).values()) expect(content).not.toMatch(/<|\u2028/)
  })

  test('holds the topics behind doorways with their own map', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas')
    garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
    expect(indexed(garden).get('search/entries-0.js')).toMatch(
      /\["Sow peas","maps\/spring\.html#t-[0-9a-f]+","Spring"\]/,
    )
  })
})
