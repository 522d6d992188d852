import type { Browser, Page } from '@playwright/test'
import { build } from 'esbuild'
import { v7 as uuid } from 'uuid'
import { prepareChange } from '../../src/core/changes/prepare'
import { hangItems } from '../../src/core/commands/hang-items'
import { makeMap } from '../../src/core/commands/maps'
import { readText } from '../../src/core/formats/read-text'
import { layoutMap } from '../../src/core/layout/map-layout'
import { CollectionId } from '../../src/core/records/ids'
import { Records } from '../../src/core/records/records'
import { COMMON_FONTS } from '../../src/core/text/common-fonts'

/** The boxes of a map made from indented text, as nodes of `@xyflow/react`. */
function nodesOf(text: string) {
  const records = new Records()
  const newIds = { newId: uuid }
  const collection = CollectionId.parse(uuid())
  records.put('collection', { id: collection, title: 'Bench', homeMap: null, look: null, limits: null, trashed: false })
  const made = makeMap(records, { collection, title: 'Bench' }, newIds)
  prepareChange(records, made.change.edits, true)
  const topic = made.select[0]!
  prepareChange(
    records,
    hangItems(records, { topic, items: readText(text).items, act: 'Paste' }, newIds).change.edits,
    true,
  )
  return layoutMap(records, records.need('topic', topic).place.map, {
    fonts: COMMON_FONTS,
    countTopics: () => 0,
  }).boxes.map((box) => ({
    id: box.topic.id,
    position: { x: box.x, y: box.y },
    width: box.width,
    height: box.height,
    data: { label: box.topic.text },
  }))
}

/** Opens a page with the same nodes in `@xyflow/react`, rendering only those in view. */
export async function openXyflow(browser: Browser, text: string): Promise<Page> {
  const { outputFiles } = await build({
    entryPoints: [new URL('./xyflow-page.tsx', import.meta.url).pathname],
    bundle: true,
    minify: true,
    write: false,
    outdir: 'peer',
    jsx: 'automatic',
    define: { 'process.env.NODE_ENV': '"production"' },
  })
  const [script, style] = ['.js', '.css'].map((end) => outputFiles.find(({ path }) => path.endsWith(end))!.text)
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
  await page.setContent(`<style>body{margin:0}${style}</style><div id="root"></div>`)
  await page.evaluate((nodes) => Object.assign(window, { nodes }), nodesOf(text))
  await page.addScriptTag({ content: script! })
  await page.locator('.react-flow__node').first().waitFor()
  return page
}
