import { execFileSync } from 'node:child_process'
import {
  createReadStream,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer, type Server } from 'node:http'
import { tmpdir } from 'node:os'
import { extname, join, relative } from 'node:path'
import { pathToFileURL } from 'node:url'
import AxeBuilder from '@axe-core/playwright'
import yauzl from 'yauzl'
import { importAndWait } from '../scripts/setup/imports.mjs'
import { allSaved, beginWithoutAccount, importFiles, openSheet, toAllMaps } from './person'
import { type BrowserContext, expect, type Page, test } from './watched'

/** Unpacks a zip into a folder, refusing paths that lead out of it. */
async function unpack(zip: Buffer): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'folvet-site-'))
  const archive = join(folder, 'site.zip')
  writeFileSync(archive, zip)
  await new Promise<void>((resolve, reject) => {
    yauzl.open(archive, { lazyEntries: true }, (error, file) => {
      if (error) return reject(error)
      file.on('entry', (entry: yauzl.Entry) => {
        file.openReadStream(entry, (problem, stream) => {
          if (problem) return reject(problem)
          const chunks: Buffer[] = []
          stream.on('data', (chunk: Buffer) => chunks.push(chunk))
          stream.on('end', () => {
            const path = join(folder, entry.fileName)
            execFileSync('mkdir', ['-p', join(path, '..')])
            writeFileSync(path, Buffer.concat(chunks))
            file.readEntry()
          })
        })
      })
      file.on('end', () => resolve())
      file.readEntry()
    })
  })
  rmSync(archive)
  return join(folder, readdirSync(folder)[0]!)
}

const filesBelow = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) =>
    statSync(join(folder, name)).isDirectory() ? filesBelow(join(folder, name)) : [join(folder, name)],
  )

/** A plain web server that serves the folder below a sub-path. */
function serveBelow(folder: string, prefix: string): Promise<Server> {
  const types: Record<string, string> = {
    '.html': 'text/html',
    '.css': 'text/css',
    '.js': 'text/javascript',
    '.svg': 'image/svg+xml',
    '.woff2': 'font/woff2',
  }
  const server = createServer((request, response) => {
    const path = decodeURIComponent(new URL(request.url ?? '/', 'http://localhost').pathname)
    const file = join(folder, path.slice(prefix.length).replace(/\/$/, '/index.html'))
    if (!path.startsWith(prefix) || !existsSync(file) || statSync(file).isDirectory()) {
      response.writeHead(404).end()
      return
    }
    response.writeHead(200, { 'Content-Type': types[extname(file)] ?? 'application/octet-stream' })
    createReadStream(file).pipe(response)
  })
  return new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(server)))
}

/** Follows every link of the site from its home page; returns the pages seen. Fails at a broken link or one to outside. */
async function crawl(page: Page, start: string): Promise<Set<string>> {
  const base = start.slice(0, start.lastIndexOf('/') + 1)
  const outside: string[] = []
  const broken: string[] = []
  page.on('request', (request) => {
    if (!request.url().startsWith(base) && !request.url().startsWith('data:')) outside.push(request.url())
  })
  page.on('requestfailed', (request) => broken.push(request.url()))
  page.on('response', (response) => {
    if (response.status() >= 400) broken.push(response.url())
  })
  const pages = new Set<string>()
  const waiting = [start]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const address = next.split('#')[0]!
    if (pages.has(address)) continue
    pages.add(address)
    await page.goto(address)
    const links = await page
      .locator('a[href]')
      .evaluateAll((anchors) => anchors.map((anchor) => new URL(anchor.getAttribute('href')!, location.href).href))
    for (const link of new Set(links)) {
      if (!link.startsWith(base)) {
        expect(link).toMatch(/^(https:\/\/example\.org\/|mailto:[a-z]+@example\.org$)/)
        continue
      }
      const [file, anchor] = link.slice(base.length).split('#')
      if (file?.endsWith('.html')) waiting.push(link)
      if (anchor && link.split('#')[0] === address) expect(await page.locator(`[id="${anchor}"]`).count(), link).toBe(1)
    }
  }
  expect(outside).toEqual([])
  expect(broken).toEqual([])
  return pages
}

/** Publishes the collection of the open page and unpacks what can be downloaded. */
async function publish(page: Page): Promise<string> {
  await page.getByRole('link', { name: 'Publish' }).click()
  await page.getByRole('button', { name: /^Publish/ }).click()
  const zip = page.getByRole('link', { name: 'Download as zip' })
  await expect(zip).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('log', { name: 'What happened' })).toHaveText('The site is published.')
  const downloading = page.waitForEvent('download', { timeout: 60_000 })
  await zip.click()
  return unpack(readFileSync(await (await downloading).path()))
}

const withoutScript = (context: BrowserContext) => context.browser()!.newContext({ javaScriptEnabled: false })

test('the published demo works from a disk, below a sub-path, without script, and for everyone', async ({
  page,
  lookAtDemo,
  context,
}) => {
  test.setTimeout(400_000)
  await lookAtDemo()
  await toAllMaps(page)
  const folder = await publish(page)
  const maps = filesBelow(folder).filter((file) => relative(folder, file).startsWith('maps/'))
  expect(maps).toHaveLength(14)

  const disk = await context.newPage()
  const start = pathToFileURL(join(folder, 'index.html')).href
  const seen = await crawl(disk, start)
  for (const map of maps) expect(seen).toContain(pathToFileURL(map).href)
  await disk.goto(start)
  await disk.getByRole('searchbox').fill('larch boards')
  await disk
    .getByRole('status')
    .getByRole('link', { name: /Larch boards/ })
    .click()
  await expect(disk.locator(':target')).toContainText('Larch boards, 50 mm')
  await disk.getByRole('searchbox').fill('puddle')
  await expect(disk.getByRole('status').getByRole('link').first()).toContainText('Well 31 stands in a puddle')
  await disk.getByRole('searchbox').fill('zzzz')
  await expect(disk.getByRole('status')).toHaveText('Nothing found.')

  await disk.goto(pathToFileURL(join(folder, 'maps/dipwells-and-readings.html')).href)
  const shown = async () => Number((await disk.locator('.picture svg').getAttribute('viewBox'))!.split(' ')[2])
  const whole = await shown()
  await disk.getByRole('button', { name: 'Zoom in' }).click()
  expect(await shown()).toBeCloseTo(whole * 0.8, 1)
  await disk.getByRole('button', { name: 'Zoom out' }).click()
  expect(await shown()).toBeCloseTo(whole, 1)
  await disk.getByRole('button', { name: 'Zoom in' }).click()
  await disk.getByRole('button', { name: 'Fit the map' }).click()
  expect(await shown()).toBe(whole)

  // Dates are said in the words of whoever reads, here an American; without script in English as it was published.
  const season = 'maps/field-season-2026.html'
  await disk.goto(pathToFileURL(join(folder, season)).href)
  await expect(disk.locator('time').first()).toHaveText('Mar 14, 2026')

  const server = await serveBelow(folder, '/some/where/')
  const { port } = server.address() as { port: number }
  await crawl(await context.newPage(), `http://127.0.0.1:${port}/some/where/index.html`)

  const plain = await (await withoutScript(context)).newPage()
  await plain.goto(`http://127.0.0.1:${port}/some/where/${season}`)
  await expect(plain.locator('time').first()).toHaveText('14 Mar 2026')
  await plain.goto(`http://127.0.0.1:${port}/some/where/index.html`)
  await plain.getByRole('link', { name: 'Dipwells and readings' }).click()
  await expect(plain.getByText('A healthy line looks like a flat table')).toBeVisible()
  await plain
    .locator('.picture')
    .getByRole('link', { name: /^Reading by hand/ })
    .click()
  await expect(plain).toHaveURL(/#t-/)

  for (const colorScheme of ['light', 'dark'] as const) {
    await disk.emulateMedia({ colorScheme })
    for (const name of ['index.html', 'maps/water-and-ditch-blocking.html', 'maps/vennmoor-handbook.html']) {
      await disk.goto(pathToFileURL(join(folder, name)).href)
      const { violations } = await new AxeBuilder({ page: disk }).options({ preload: false }).analyze()
      expect([name, violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)}`)]).toEqual([name, []])
    }
  }
  await disk.setViewportSize({ width: 390, height: 800 })
  await disk.goto(pathToFileURL(join(folder, 'maps/water-and-ditch-blocking.html')).href)
  expect(await disk.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  server.close()
})

/** A long page that is there anyway: the manual of one of the packages. */
const LONG_PAGE = join('node_modules', 'yauzl', 'README.md')

test('a long real document is imported, split, linked, published and crawled', async ({ page, context }) => {
  test.setTimeout(300_000)
  const text = readFileSync(LONG_PAGE, 'utf8')
  expect(text.split('\n').length).toBeGreaterThan(500)
  await beginWithoutAccount(page)
  await importFiles(page, [{ name: 'manual.md', mimeType: 'text/markdown', buffer: Buffer.from(text) }])
  // It opens by itself, unless there are links that could not be followed.
  const open = page.getByRole('link', { name: 'Open the map' })
  await expect(open.or(page.getByRole('tree'))).toBeVisible({ timeout: 30_000 })
  if (await open.isVisible()) await open.click()
  await expect(page.getByRole('tree')).toBeFocused({ timeout: 30_000 })
  await page.keyboard.press('Alt+2')
  await expect(page.getByRole('tree', { name: /^Outline/ })).toBeVisible()
  const section = page.locator('[role="treeitem"][aria-level="2"][aria-expanded="true"]').first()
  await section.click()
  const name = (await section.locator('span').first().textContent())!.trim()
  await page.keyboard.press('Alt+d')
  await expect(page.getByRole('button', { name: `Open the map behind ${name}` })).toBeVisible()
  await page.keyboard.press('Alt+l')
  await page.getByRole('combobox').fill('fix')
  await page.getByRole('option').first().click()
  await openSheet(page)
  await expect(page.getByRole('complementary').getByRole('button', { name: /^Links 1/ })).toBeVisible()
  await allSaved(page)
  const folder = await publish(page)
  const disk = await context.newPage()
  const seen = filesBelow(folder).filter((file) => file.endsWith('.html'))
  expect(seen.length).toBe(4)
  for (const file of seen) {
    const markup = readFileSync(file, 'utf8')
    for (const [, address = ''] of markup.matchAll(/href="(?!https?:|mailto:|#)([^"#]+)/g))
      expect(existsSync(join(file, '..', decodeURIComponent(address))), address).toBe(true)
  }
  await disk.goto(pathToFileURL(join(folder, 'index.html')).href)
  await disk.getByRole('link', { name }).first().click()
  await expect(disk.getByRole('heading', { name, level: 1 })).toBeVisible()
})

test('served by Folvet the site shows its pictures, fonts and files, finds words, and reports no error', async ({
  page,
}) => {
  const errors: string[] = []
  const watch = (watched: Page) => {
    watched.on('console', (message) => message.type() === 'error' && errors.push(message.text()))
    watched.on('pageerror', (error) => errors.push(error.message))
  }
  watch(page)
  await beginWithoutAccount(page)
  const collection = /\/c\/([^/]+)/.exec(page.url())![1]!
  const base = `/api/collections/${collection}`
  const pages = [{ path: 'garden.md', text: '# Garden\n\n- Spring\n- Autumn' }]
  const [map] = await importAndWait(
    async (method, path, body) =>
      (await page.request.fetch(base + path, { method, ...(body ? { data: body } : {}) })).json(),
    pages,
  )
  const held = (await (await page.request.get(`${base}/maps/${map}`)).json()) as {
    records: { topic: { id: string; text: string }[] }
  }
  const { id } = held.records.topic.find(({ text }) => text === 'Spring')!
  const upload = (name: string, use: string, data: Buffer) =>
    page.request.post(`${base}/files?topic=${id}&use=${use}&name=${name}`, { data })
  expect((await upload('leaf.png', 'picture', await page.screenshot())).status()).toBe(201)
  expect((await upload('list.txt', 'file', Buffer.from('Peas, leek'))).status()).toBe(201)
  await page.goto(`/c/${collection}/publish`)
  await page.getByRole('button', { name: /^Publish/ }).click()
  const opening = page.waitForEvent('popup')
  await page.getByRole('link', { name: 'Open the site' }).click()
  const site = await opening
  watch(site)
  await site.getByRole('link', { name: 'Garden' }).first().click()
  await expect
    .poll(() =>
      site.locator('image, img').evaluateAll(async (pictures) =>
        Promise.all(
          pictures.map(async (picture) => {
            const shown = new Image()
            shown.src = picture.getAttribute('href') ?? picture.getAttribute('src') ?? ''
            await shown.decode().catch(() => {})
            return shown.naturalWidth > 0
          }),
        ),
      ),
    )
    .toContain(true)
  expect(
    await site.evaluate(async () => (await document.fonts.ready) && document.fonts.check('16px "Source Sans 3"')),
  ).toBe(true)
  const file = site.getByRole('link', { name: /list\.txt/ }).first()
  const href = await file.evaluate((link) => (link as HTMLAnchorElement).href)
  expect(await (await page.request.get(href)).text()).toBe('Peas, leek')
  await site.getByRole('searchbox').fill('autumn')
  await expect(site.getByRole('link', { name: /Autumn/ }).first()).toBeVisible()
  expect(errors).toEqual([])
})
