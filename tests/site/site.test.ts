import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { importPages } from '../../src/core/commands/import-pages'
import { setText } from '../../src/core/commands/set-text'
import { splitOff } from '../../src/core/commands/split-off'
import { writeNote } from '../../src/core/commands/write-note'
import { buildSite } from '../../src/site/site'
import { COLLECTION, Garden } from '../core/gardens'

const HOSTILE = '</title><script>alert(1)</script><img src=x onerror=alert(1)>"\'&'

function site(garden: Garden): Map<string, string> {
  const files = [...buildSite(garden.records, COLLECTION, [])].flatMap((step) => step.files)
  return new Map(files.flatMap((file) => ('content' in file ? [[file.path, String(file.content)]] : [])))
}

/** Every link of a page that stays inside the site, as a path from its top. */
function linksOf(path: string, markup: string): string[] {
  return [...markup.matchAll(/(?:href|src)="([^"]*)"/g)]
    .map((match) => match[1]!)
    .filter((address) => !/^(https?:|mailto:|data:)/.test(address))
    .map((address) => new URL(address, `https://site.invalid/${path}`))
    .map((url) => decodeURIComponent(url.pathname.slice(1) + url.hash))
}

function expectWholeLinks(pages: Map<string, string>): void {
  for (const [path, markup] of pages) {
    if (!path.endsWith('.html')) continue
    for (const link of linksOf(path, markup)) {
      const [file = '', anchor] = link.split('#')
      if (file.startsWith('assets/') || file === '') continue
      expect([path, link, pages.has(file)]).toEqual([path, link, true])
      if (anchor) expect(pages.get(file)).toContain(`id="${anchor}"`)
    }
  }
}

describe('the published site', () => {
  test('has a page for each map, in which every link leads somewhere', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans')
    garden.do((records, making) => splitOff(records, { topic: garden.topic('Summer') }, making))
    garden.do((records, making) =>
      addCrosslink(
        records,
        { from: garden.topic('Sow peas'), to: { topic: garden.topic('Pick beans') }, drawn: 'line' },
        making,
      ),
    )
    const link = `[beans](folvet:topic/${garden.topic('Pick beans')}), [gone](folvet:topic/00000000-0000-7000-8000-00000000ffff)`
    garden.do((records, making) => writeNote(records, { topic: garden.topic('Spring'), base: '', text: link }, making))
    const pages = site(garden)
    expect([...pages.keys()].filter((path) => path.endsWith('.html')).sort()).toEqual([
      '404.html',
      'index.html',
      'maps/garden.html',
      'maps/summer.html',
    ])
    expectWholeLinks(pages)
    expect(pages.get('maps/summer.html')).toContain('Linked from')
    expect(pages.get('maps/garden.html')).toContain('<span>gone</span>')
  })

  test('works with maps that open each other in a circle', () => {
    const garden = new Garden()
    const pages = [
      { path: 'a.md', text: '# A\n\n## [B](b.md)' },
      { path: 'b.md', text: '# B\n\n## [A](a.md)\n\n## [B](b.md)' },
    ]
    garden.do((records, making) => importPages(records, { collection: COLLECTION, pages, files: new Map() }, making))
    expectWholeLinks(site(garden))
  })

  test('shows as text what tries to be markup, in every field', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring')
    for (const text of ['Garden', 'Spring']) {
      const topic = garden.topic(text)
      garden.do((records, making) => setText(records, { topic, text: HOSTILE }, making))
      garden.do((records, making) =>
        writeNote(
          records,
          {
            topic,
            base: '',
            text: `${HOSTILE}\n\n<script>alert(2)</script>\n\n[x](javascript:alert(3)) ![y](javascript:alert(4))`,
          },
          making,
        ),
      )
    }
    garden.records.put('collection', { ...garden.records.need('collection', COLLECTION), title: HOSTILE })
    for (const [path, markup] of site(garden)) {
      if (!path.endsWith('.html')) continue
      expect(markup.match(/<script/g)).toHaveLength(1)
      expect(markup).not.toMatch(/<img|href="javascript:/)
    }
  })

  test('is the same to the byte for the same records', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas')
    expect(site(garden)).toEqual(site(garden))
  })

  test('gives maps of one name an address each, and a map without letters one too', () => {
    const garden = new Garden()
    for (const name of ['Wells', 'wells!', '…']) garden.grow(name)
    expect([...site(garden).keys()].filter((path) => path.startsWith('maps/')).sort()).toEqual([
      'maps/map.html',
      'maps/wells-2.html',
      'maps/wells.html',
    ])
  })
})
