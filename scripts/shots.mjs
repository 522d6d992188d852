import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
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
  const { startCalendar } = await import('./setup/calendar.mjs')
  const { chromium } = await import('@playwright/test')
  await ensureBuilt()
  const postgres = await temporaryPostgres()
  const calendarFolder = mkdtempSync(join(tmpdir(), 'folvet-calendar-'))
  const calendar = await startCalendar({ folder: calendarFolder, port: await freePort() })
  await loadDemo(postgres.url, calendar.env)
  const app = await serve({ databaseUrl: postgres.url, port: await freePort(), env: calendar.env })
  const browser = await chromium.launch(CHROMIUM_LAUNCH)
  const folder = join(root, 'docs', 'screenshots')
  rmSync(folder, { recursive: true, force: true })
  try {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      baseURL: app.address,
      reducedMotion: 'reduce',
    })
    const still = async (on = page) => {
      // Away from the map, so that nothing shows what only a pointer over it would.
      await on.mouse.move(700, 790)
      await on.waitForTimeout(400)
      return on.screenshot()
    }
    const keep = (name, picture) => {
      mkdirSync(folder, { recursive: true })
      writeFileSync(join(folder, `${name}.png`), picture)
      say(`docs/screenshots/${name}.png`)
    }
    const shot = async (name) => keep(name, await still())
    /** Pictures that stand together on one, by the name of that. */
    const sheets = { around: [], ledgers: [], panels: [] }
    const part = async (sheet, on) => void sheets[sheet].push(await still(on))
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
    /** The window of somebody who wrote into the same line of the demo's note as somebody else. */
    const twoVersions = async () => {
      const context = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        reducedMotion: 'reduce',
        storageState: await page.context().storageState(),
      })
      const other = await context.newPage()
      await other.goto(page.url())
      const note = (on) => on.getByRole('textbox', { name: 'Note', exact: true })
      for (const on of [page, other]) {
        await on.getByRole('treeitem', { name: /^Where it goes/ }).click()
        await on.keyboard.press('Alt+n')
        await note(on).waitFor()
        await on.waitForTimeout(600)
      }
      await context.setOffline(true)
      for (const [on, words] of [
        [other, ' Never call one after its well.'],
        [page, ' Never call one after its reader.'],
      ]) {
        await note(on).getByText('One file for each line').click({ clickCount: 3 })
        await on.keyboard.press('ArrowRight')
        await on.keyboard.type(words)
      }
      await page.waitForTimeout(1_500)
      await context.setOffline(false)
      await other.getByRole('button', { name: 'Side by side' }).click()
      await other.getByRole('dialog').getByText('after its reader').waitFor()
      return other
    }
    const topic = (name) => page.getByRole('treeitem', { name: new RegExp(`^${name}`) }).first()
    // The walk is offered to whoever is new; the pictures show what stays.
    await page.addInitScript(() => localStorage.setItem('folvet-walk-offered', 'done'))
    await page.goto('/')
    await page.getByRole('button', { name: /Look at the demo/ }).waitFor()
    await part('around')
    await page.getByRole('button', { name: /Look at the demo/ }).click()
    await page.getByRole('tree').waitFor()
    await page.goto('/')
    await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).waitFor()
    await page.locator('svg.scene').first().waitFor()
    await part('around')
    await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).click()
    await page.getByRole('link', { name: 'Vegetation' }).waitFor()
    await part('around')
    const collection = page.url()
    await page.getByRole('button', { name: 'New map' }).click()
    await page.getByRole('button', { name: /^Reading notes/ }).waitFor()
    await shot('new-map')
    await page.keyboard.press('Escape')
    await page.getByRole('region', { name: 'Vennmoor handbook' }).getByRole('link').click()
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
    await page.keyboard.press('Alt+Shift+n')
    await page.getByRole('dialog').getByRole('textbox', { name: 'Note' }).waitFor()
    await part('panels')
    await page.keyboard.press('Escape')
    await part('panels', await twoVersions())
    await page.goto(collection)
    await page.getByRole('link', { name: 'Land and permits' }).first().click()
    await topic('Ends on 31 December 2028').waitFor()
    await fitMap()
    await topic('Ends on 31 December 2028').click()
    await openSheet(true)
    await page.getByRole('button', { name: 'water-permit-2019.pdf', exact: true }).click()
    await page.getByText('The permit ends on 31 December 2028.').selectText()
    await shot('reading')
    await page.getByRole('button', { name: 'Close what is read' }).click()
    // The sheet would stay open on the maps that follow.
    await openSheet(false)
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
    await page.keyboard.press('Control+k')
    await page.keyboard.type('personal settings')
    await page.getByRole('option', { name: /Personal settings/ }).click()
    await page.getByRole('dialog', { name: 'Personal settings' }).waitFor()
    await shot('settings')
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
    await page.getByRole('button', { name: /^In step with calendars/ }).click()
    await page.getByRole('dialog').getByText('Field season', { exact: true }).waitFor()
    await part('panels')
    await page.keyboard.press('Escape')
    await page.keyboard.press('Alt+j')
    await page.getByRole('dialog').getByRole('textbox').first().waitFor()
    await page.keyboard.type('Ask the waterworks for their rain gauge')
    await part('panels')
    await page.keyboard.press('Escape')
    for (const [screen, heading] of [
      ['files', 'Files'],
      ['comments', 'Comments'],
      ['crowding', 'Crowding'],
      ['search', 'Search'],
    ]) {
      await page.goto(`${collection}/${screen}`)
      await page.getByRole('heading', { name: heading, level: 1 }).waitFor()
      await page.waitForTimeout(600)
      await part('ledgers')
    }
    await page.goto(`${collection}/publish`)
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    await page.getByRole('link', { name: 'Open the site' }).waitFor()
    await part('around')
    await page.goto(await page.getByRole('link', { name: 'Open the site' }).getAttribute('href'))
    await page.getByRole('link', { name: 'Dipwells and readings' }).click()
    await page.getByRole('heading', { level: 1 }).waitFor()
    await shot('site')
    for (const [name, pictures] of Object.entries(sheets)) keep(name, await together(browser, pictures))
  } finally {
    await browser.close()
    await app.stop()
    await calendar.stop()
    rmSync(calendarFolder, { recursive: true, force: true })
    await postgres.stop()
  }
})

/** Four pictures of the window on one, two beside two. */
async function together(browser, pictures) {
  const page = await browser.newPage({ viewport: { width: 2 * 1280 + 24, height: 2 * 800 + 24 } })
  const images = pictures.map((picture) => `<img src="data:image/png;base64,${picture.toString('base64')}">`)
  await page.setContent(
    `<body style="margin: 0; padding: 8px; display: grid; grid-template-columns: 1280px 1280px; gap: 8px; background: #8c8a80">${images.join('')}`,
  )
  const picture = await page.screenshot()
  await page.close()
  return picture
}
