import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_LAUNCH } from './setup/chromium.mjs'
import { ensureChromium, ensurePackages, root } from './setup/dependencies.mjs'
import { main, say } from './setup/say.mjs'

/** Takes the pictures in docs/screenshots from the demo, on a database that is gone afterwards. */
await main(async () => {
  await ensurePackages()
  await ensureChromium()
  const { ensureBuilt } = await import('./setup/build.mjs')
  const { freePort, temporaryPostgres } = await import('./setup/postgres.mjs')
  const { loadDemo, serve } = await import('./setup/serve.mjs')
  const { chromium } = await import('@playwright/test')
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  await loadDemo(postgres.url)
  const app = await serve({ databaseUrl: postgres.url, port: await freePort() })
  const browser = await chromium.launch(CHROMIUM_LAUNCH)
  const folder = join(root, 'docs', 'screenshots')
  rmSync(folder, { recursive: true, force: true })
  try {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      baseURL: app.address,
      reducedMotion: 'reduce',
    })
    const shot = async (name) => {
      // Away from the map, so that nothing shows what only a pointer over it would.
      await page.mouse.move(700, 790)
      await page.waitForTimeout(400)
      await page.screenshot({ path: join(folder, `${name}.png`) })
      say(`docs/screenshots/${name}.png`)
    }
    const fitMap = async () => {
      await page.getByRole('tree').focus()
      await page.keyboard.press('Alt+f')
      await page.mouse.move(700, 790)
      await page.waitForTimeout(500)
    }
    /** Badges, a tag, a task, a picture and a look of its own on some topics, in so many changes. */
    const DRESSED = 6
    const dress = async () => {
      for (const [name, badge] of [
        ['Plots', 'map pin'],
        ['Trees', '🌳'],
      ]) {
        await topic(name).click()
        await page.keyboard.press('Alt+b')
        await page.getByRole('textbox', { name: 'Find a badge' }).fill(badge === '🌳' ? 'deciduous' : badge)
        await page
          .getByRole('button', { name: badge === '🌳' ? 'deciduous tree' : badge, exact: true })
          .first()
          .click()
      }
      await topic('Plots').click()
      await page.keyboard.press('Alt+t')
      await page.locator('input[name=text]').fill('every third year')
      await page.keyboard.press('Enter')
      await choose('Planting', 'Enrich', 'It is begun')
      await topic('Peat mosses').click()
      await page.getByRole('button', { name: /^Badges, tags, picture/ }).click()
      await page.getByRole('button', { name: 'From the drawings' }).click()
      await page.getByRole('button', { name: 'sundew', exact: true }).click()
      await page.getByRole('button', { name: 'Close the drawings' }).click()
      await page.getByRole('button', { name: /^Badges, tags, picture/ }).click()
      await topic('Heather and cotton grass').click()
      await page.getByRole('button', { name: 'a card', exact: true }).click()
      await page.getByRole('group', { name: 'Shape' }).scrollIntoViewIfNeeded()
    }
    const sheet = page.getByRole('complementary', { name: 'Topic sheet' })
    /** Has the topic sheet of a topic beside the map, or not. */
    const openSheet = async (isOpen) => {
      if ((await sheet.isVisible()) !== isOpen)
        await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
      await page.waitForTimeout(300)
    }
    const topic = (name) => page.getByRole('treeitem', { name: new RegExp(`^${name}`) }).first()
    // The walk is offered to whoever is new; the pictures show what stays.
    await page.addInitScript(() => localStorage.setItem('folvet-walk-offered', 'done'))
    await page.goto('/')
    await page.getByRole('button', { name: /Look at the demo/ }).waitFor()
    await shot('sign-in')
    await page.getByRole('button', { name: /Look at the demo/ }).click()
    await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).waitFor()
    await page.locator('svg.scene').first().waitFor()
    await shot('home')
    await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).click()
    await page.getByRole('link', { name: 'Vegetation' }).waitFor()
    await shot('collection')
    const collection = page.url()
    await page.getByRole('button', { name: 'New map' }).click()
    await page.getByRole('button', { name: /^Reading notes/ }).waitFor()
    await shot('new-map')
    await page.keyboard.press('Escape')
    await page
      .getByRole('row', { name: /home map/i })
      .getByRole('link')
      .first()
      .click()
    await topic('Raise the water first').waitFor()
    await shot('map')
    await page.goto(`${collection}/atlas`)
    await page.locator('svg.scene').nth(13).waitFor()
    await shot('atlas')
    await page.emulateMedia({ colorScheme: 'dark' })
    await page.goto(`${collection}/links`)
    await page.getByText(/^Close in meaning/).click()
    await shot('links-dark')
    await page.emulateMedia({ colorScheme: 'light' })
    const choose = async (name, group, entry) => {
      await topic(name).click({ button: 'right' })
      await page.getByRole('menuitem', { name: group, exact: true }).click()
      await page.getByRole('menuitem', { name: entry }).click()
      await page.waitForTimeout(200)
    }
    await page.goto(collection)
    await page.getByRole('link', { name: 'Vegetation' }).click()
    await topic('Vegetation').waitFor()
    await fitMap()
    await topic('Vegetation').click()
    await openSheet(true)
    await page.getByRole('button', { name: 'Look', exact: true }).click()
    await page.getByRole('button', { name: /^Laid:/ }).click()
    await page.keyboard.press('Alt+f')
    await dress()
    await shot('look')
    await openSheet(false)
    for (let undone = 0; undone < DRESSED; undone++) await page.keyboard.press('Control+z')
    await page.waitForTimeout(300)
    await page.goto(collection)
    await page.getByRole('link', { name: 'Dipwells and readings' }).click()
    await topic('A ditch shows').click()
    await openSheet(true)
    await page.getByRole('textbox', { name: 'Note' }).waitFor()
    await shot('note')
    await page.getByRole('button', { name: 'Open a second pane' }).click()
    await page.getByRole('option', { name: 'This map as outline' }).click()
    await openSheet(false)
    await shot('two-panes')
    await page.goto(collection)
    await page.getByRole('link', { name: 'Water and ditch blocking' }).first().click()
    await topic('Dams and weirs').waitFor()
    await page.keyboard.press('Alt+3')
    await page.getByRole('navigation', { name: 'Contents' }).getByRole('button', { name: 'Ditches' }).click()
    await shot('page')
    await page.goto(collection)
    await page.getByRole('link', { name: 'Dipwells and readings' }).click()
    await topic('Dipwells and readings').waitFor()
    await fitMap()
    await topic('Dipwells and readings').click()
    await page.getByRole('button', { name: 'Dress', exact: true }).click()
    await shot('acts')
    await page.keyboard.press('Escape')
    await choose('Dipwells and readings', 'Network', /^Merge/)
    await page.getByRole('combobox', { name: 'Maps to take over' }).click()
    await page.getByRole('option', { name: /^Notes on dipwells/ }).click()
    await page.keyboard.press('Escape')
    await page.getByText(/^\d+ joined, \d+ added/).waitFor()
    await shot('merge-plan')
    await page.getByRole('button', { name: 'Back to the map' }).click()
    await page.getByRole('button', { name: 'Other maps' }).click()
    await page.getByRole('menuitem', { name: 'Ideas from the public evening' }).click()
    await choose('Ideas from the public evening', 'Gather', 'Sort what hangs on it …')
    const suggestion = page.getByRole('status', { name: 'What could belong together' })
    for (let taken = 0; taken < 3; taken++) {
      await suggestion.getByRole('button', { name: 'Yes' }).click()
      await page.waitForTimeout(1_200)
    }
    await shot('sorting')
    await page.getByRole('button', { name: 'Back to the map' }).click()
    await page.waitForTimeout(300)
    await page.getByRole('button', { name: 'Other maps' }).click()
    await page.getByRole('menuitem', { name: 'Water and ditch blocking' }).click()
    await page.getByRole('button', { name: /crowded: review/ }).click()
    await page.getByRole('checkbox', { name: 'Split off Ditches' }).waitFor()
    await shot('split-review')
    await page.getByRole('button', { name: 'Back to the map' }).click()
    await page.goto(`${collection}/search?words=${encodeURIComponent('dipwell')}`)
    await page.getByRole('list', { name: 'Found' }).getByRole('link').first().waitFor()
    await shot('search')
    await page.goto(`${collection}/dates`)
    await page.getByText('year', { exact: true }).click()
    await shot('dates')
    await page.goto(`${collection}/publish`)
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    await page.getByRole('link', { name: 'Open the site' }).waitFor()
    await shot('publish')
    await page.goto(await page.getByRole('link', { name: 'Open the site' }).getAttribute('href'))
    await page.getByRole('link', { name: 'Dipwells and readings' }).click()
    await page.getByRole('heading', { level: 1 }).waitFor()
    await shot('site')
  } finally {
    await browser.close()
    await app.stop()
    await postgres.stop()
  }
})
