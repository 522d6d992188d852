import { describe, expect, test } from 'vitest'
import { addComment } from '../../src/core/commands/comments'
import { addCrosslink } from '../../src/core/commands/crosslinks'
import { changeEnclosure, encloseTopics } from '../../src/core/commands/enclosures'
import { importPages } from '../../src/core/commands/import-pages'
import { chooseWholeLook } from '../../src/core/commands/looks'
import { putPicture } from '../../src/core/commands/pictures'
import { setTask } from '../../src/core/commands/set-task'
import { setText } from '../../src/core/commands/set-text'
import { splitOff } from '../../src/core/commands/split-off'
import { tagTopics } from '../../src/core/commands/tags'
import { writeNote } from '../../src/core/commands/write-note'
import { FileId, PersonId } from '../../src/core/records/ids'
import { buildSite } from '../../src/site/site'
import { COLLECTION, Garden } from '../core/gardens'

const PERSON = PersonId.parse('00000000-0000-7000-8000-0000000000aa')
const HOSTILE = '</title><script>alert(1)</script><img src=x onerror=alert(1)>"\'&'

function site(garden: Garden, only: ReadonlySet<string> | null = null): Map<string, string> {
  const files = [...buildSite(garden.records, COLLECTION, [], only)].flatMap((step) => step.files)
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
    garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Summer') }, newIds))
    garden.do((records, newIds) =>
      addCrosslink(
        records,
        { from: garden.topic('Sow peas'), to: { kind: 'topic', id: garden.topic('Pick beans') }, drawn: 'line' },
        newIds,
      ),
    )
    const link = `[beans](folvet:topic/${garden.topic('Pick beans')}), [gone](folvet:topic/00000000-0000-7000-8000-00000000ffff)`
    garden.do((records, newIds) => writeNote(records, { topic: garden.topic('Spring'), base: '', text: link }, newIds))
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

  test('holds nothing of maps that are kept back, and every link in it leads somewhere', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Hidden beans')
    garden.do((r, ids) => setText(r, { topic: garden.topic('Summer'), text: 'Beyond the door' }, ids))
    garden.do((r, ids) => splitOff(r, { topic: garden.topic('Beyond the door'), name: 'Secret map' }, ids))
    const hidden = garden.topic('Hidden beans')
    const to = { kind: 'topic' as const, id: hidden }
    garden.do((r, ids) => addCrosslink(r, { from: garden.topic('Sow peas'), to, drawn: 'line' }, ids))
    garden.do((r, ids) => writeNote(r, { topic: hidden, base: '', text: 'A hidden note' }, ids))
    const text = `See [there](folvet:topic/${hidden}).`
    garden.do((r, ids) => writeNote(r, { topic: garden.topic('Spring'), base: '', text }, ids))
    const pages = site(garden, new Set([map]))
    expect([...pages.keys()].filter((path) => path.startsWith('maps/'))).toEqual(['maps/garden.html'])
    expectWholeLinks(pages)
    for (const [path, content] of pages)
      expect([path, /hidden (beans|note)|secret/i.exec(content)?.[0]]).toEqual([path, undefined])
    // Alone, what was behind the door begins at itself.
    const other = site(garden, new Set([garden.records.need('topic', hidden).place.map]))
    expectWholeLinks(other)
    expect(other.get('index.html')).toContain('Secret map')
    for (const [path, content] of other) expect([path, /Spring|peas/.exec(content)?.[0]]).toEqual([path, undefined])
  })

  test('tells nobody that something was said about a topic', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas')
    const silent = site(garden)
    const said = { author: { id: PERSON, name: 'Mira' }, at: '2026-02-03T08:12:00.000Z', mentions: [], answers: null }
    garden.do((r, ids) =>
      addComment(r, { ...said, topic: garden.topic('Sow peas'), quote: '', text: 'Too early?' }, ids),
    )
    expect(site(garden)).toEqual(silent)
  })

  test('works with maps that open each other in a circle', () => {
    const garden = new Garden()
    const pages = [
      { path: 'a.md', text: '# A\n\n## [B](b.md)' },
      { path: 'b.md', text: '# B\n\n## [A](a.md)\n\n## [B](b.md)' },
    ]
    garden.do((records, newIds) => importPages(records, { collection: COLLECTION, pages, files: new Map() }, newIds))
    expectWholeLinks(site(garden))
  })

  test('shows as text what tries to be markup, in every field', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring')
    for (const text of ['Garden', 'Spring']) {
      const topic = garden.topic(text)
      garden.do((records, newIds) => setText(records, { topic, text: HOSTILE }, newIds))
      garden.do((records, newIds) =>
        writeNote(
          records,
          {
            topic,
            base: '',
            text: `${HOSTILE}\n\n<script>alert(2)</script>\n\n[x](javascript:alert(3)) ![y](javascript:alert(4))`,
          },
          newIds,
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

  test('shows looks, pictures, tags, tasks and what is said of enclosures, with nothing in them that could be markup', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Sow peas\nSummer')
    const topic = garden.topic('Sow peas')
    const file = FileId.parse('00000000-0000-7000-a000-000000000001')
    const natural = { width: 400, height: 200 }
    garden.records.put('file', {
      id: file,
      sha256: 'a'.repeat(64),
      name: 'peas.png',
      type: 'image/png',
      size: 9,
      picture: natural,
      trashed: false,
    })
    garden.do((r, m) => putPicture(r, { topic, file, natural }, m))
    garden.do((r, m) => tagTopics(r, { topics: [topic], name: HOSTILE }, m))
    garden.do((r, m) => setTask(r, { topics: [topic], task: 'open', today: '2026-05-04' }, m))
    garden.do((r, m) => chooseWholeLook(r, { at: { map }, whole: 'lantern' }, m))
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Spring')], title: HOSTILE }, m))
    const [enclosure] = garden.records.enclosuresOf(garden.topic('Spring'))
    const note = `Before **April**. ${HOSTILE}`
    garden.do((r, m) =>
      changeEnclosure(r, { enclosure: enclosure!.id, title: HOSTILE, note, tone: null, look: null }, m),
    )
    const files = [...buildSite(garden.records, COLLECTION, [])].flatMap((step) => step.files)
    expect(files.some((one) => 'file' in one && one.file.id === file)).toBe(true)
    const page = site(garden).get('maps/garden.html')!
    expect(page).toContain('class="picture backdrop backdrop-plain" style="color-scheme:dark;background-color:#10171b"')
    expect(page).toMatch(/<image [^>]*href="\.\.\/files\/aaaaaaaaaaaa\/peas\.png"/)
    expect(page).toMatch(
      /<img class="topic-picture" src="\.\.\/files\/aaaaaaaaaaaa\/peas\.png" width="240" height="120"/,
    )
    expect(page).toContain('Task to do, tagged')
    expect(page).toContain('<strong>April</strong>')
    expect(page).not.toContain('<script>alert')
    expect(page).not.toContain('<img src=x')
  })
})
