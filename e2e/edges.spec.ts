import AxeBuilder from '@axe-core/playwright'
import {
  allSaved,
  atRest,
  beginWithoutAccount,
  choose,
  expectNoOverlap,
  makeMap,
  middleOf,
  openSection,
  openSheet,
  plantGarden,
  selectTopic,
  topic,
  write,
} from './person'
import { countRenders, drawnOut, type Renders, rendersOf } from './renders'
import { type Browser, expect, type Page, test } from './watched'

const addTopic = async (page: Page, text: string) => {
  await page.keyboard.press('Tab')
  await write(page, text)
  await expect(topic(page, text)).toBeVisible()
}

/** The same person in a browser of its own, as on another computer. */
async function elsewhere(browser: Browser, page: Page): Promise<Page> {
  const context = await browser.newContext({ storageState: await page.context().storageState() })
  const other = await context.newPage()
  await other.goto(page.url())
  return other
}

test('an empty collection says what to do next', async ({ page }) => {
  await beginWithoutAccount(page)
  await expect(page.getByText('There is no map here yet. Choose how the first one begins.')).toBeVisible()
  await page.getByRole('link', { name: 'Publish' }).click()
  await expect(page.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled()
})

test('maps are renamed, put into the trash and taken back', async ({ page }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'First')
  await allSaved(page)
  await page.getByRole('link', { name: 'All maps' }).click()
  await makeMap(page, 'Second')
  await allSaved(page)
  await page.getByRole('link', { name: 'All maps' }).click()
  await page.getByRole('button', { name: 'Second: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Renamed')
  await page.getByRole('button', { name: 'Rename' }).last().click()
  await expect(page.getByRole('link', { name: 'Renamed' })).toBeVisible()
  await page.getByRole('button', { name: 'Renamed: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Put it into the trash' }).click()
  await page.getByRole('button', { name: 'Take Renamed back' }).click()
  await page.getByRole('link', { name: 'Renamed' }).click()
  await expect(topic(page, 'Renamed')).toBeVisible()
  await page.goto('/')
  await page.getByRole('button', { name: 'Put My collection into the trash' }).click()
  await page.getByRole('button', { name: 'Take My collection back' }).click()
  await expect(page.getByRole('link', { name: 'My collection', exact: true })).toBeVisible()
})

test('what is typed without a connection is kept and sent when it is back, also after closing the tab', async ({
  page,
  context,
}) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Field notes')
  await allSaved(page)
  await context.setOffline(true)
  await addTopic(page, 'Written on the bog')
  await expect(page.getByText('No connection: 1 change is kept here and will be sent')).toBeVisible()
  const address = page.url()
  await page.close()
  await context.setOffline(false)
  const again = await context.newPage()
  // It is sent from wherever the person comes back, and told there for as long as it is not.
  await again.goto('/')
  await expect(again.getByRole('heading', { name: 'Collections' })).toBeVisible()
  const onServer = address.replace('/c/', '/api/collections/').replace('/m/', '/maps/')
  await expect.poll(async () => (await context.request.get(onServer)).text()).toContain('Written on the bog')
  await expect(again.getByText('kept here and will be sent')).toHaveCount(0)
  await again.goto(address)
  await expect(topic(again, 'Written on the bog')).toBeVisible()
  await allSaved(again)
})

test('what is refused is kept with its words, also over a reload, until it is put somewhere or taken', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n- Leeks\n- Beans')
  const writeNote = async (name: string, words: string) => {
    await selectTopic(page, name)
    await page.keyboard.press('Alt+n')
    await expect(page.getByRole('textbox', { name: 'Note', exact: true })).toBeFocused()
    await page.keyboard.type(words)
    await page.keyboard.press('Escape')
  }
  await writeNote('Beans', 'They climb.')
  await expect(page.locator('.tiptap')).toBeVisible()
  await allSaved(page)
  // A server that refuses what comes, as where somebody has taken the topics away for good.
  let refuses = true
  await page.route('**/changes', (route) => {
    const { changes } = (route.request().postDataJSON() ?? { changes: [] }) as { changes: { id: string }[] }
    if (!refuses || route.request().method() !== 'POST') return route.continue()
    const problem = { code: 'gone', message: 'This topic is gone.' }
    return route.fulfill({ json: { results: changes.map(({ id }) => ({ ok: false, id, problem })) } })
  })
  await writeNote('Peas', 'Sown in March.')
  await writeNote('Leeks', 'Earthed up twice.')
  await expect(page.getByRole('button', { name: '2 changes were not saved: look' })).toBeVisible()
  await page.reload()
  await page.getByRole('button', { name: '2 changes were not saved: look' }).click()
  const dialog = page.getByRole('dialog', { name: 'What could not be saved' })
  await expect(dialog.getByRole('textbox').first()).toHaveValue('Sown in March.')
  await expect(dialog.getByRole('textbox').last()).toHaveValue('Earthed up twice.')
  // Tried again it is refused again, and is still there.
  await dialog.getByRole('button', { name: 'Try again' }).last().click()
  await expect(dialog.getByRole('textbox').last()).toHaveValue('Earthed up twice.')
  await expect(page.getByRole('status').filter({ hasText: 'Everything else is saved' })).toBeVisible()
  await dialog.getByRole('button', { name: 'Put it on a topic …' }).first().click()
  await expect(page.getByRole('dialog', { name: 'Below which topic?' }).getByRole('combobox')).toBeFocused()
  await page.keyboard.type('Beans')
  await page
    .getByRole('option', { name: /^Beans/ })
    .first()
    .click()
  await expect(dialog.getByRole('textbox')).toHaveCount(1)
  refuses = false
  await dialog.getByRole('button', { name: 'Try again' }).click()
  await expect(dialog).toBeHidden()
  await expect(topic(page, 'Leeks, Note')).toBeVisible()
  await expect(topic(page, 'Sown in March.')).toHaveAttribute('aria-level', '3')
  await allSaved(page)
})

test('two people who edit one topic both see what stands, and both notes are kept', async ({ page, browser }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Shared')
  await addTopic(page, 'Common')
  await allSaved(page)
  const other = await elsewhere(browser, page)
  await selectTopic(other, 'Common')
  await selectTopic(page, 'Common')
  await openSheet(page)
  await openSheet(other)
  await page.getByRole('textbox', { name: 'Note' }).pressSequentially('First words.')
  await expect(other.getByRole('textbox', { name: 'Note' })).toHaveText('First words.')
  await other.getByRole('textbox', { name: 'Note' }).click()
  await other.keyboard.press('Control+End')
  await other.keyboard.press('Enter')
  await other.keyboard.type('Second words.')
  await expect(page.getByRole('textbox', { name: 'Note' })).toContainText('Second words.')
  await selectTopic(page, 'Common')
  await page.keyboard.press('F2')
  await other.keyboard.press('Escape')
  await selectTopic(other, 'Common')
  await other.keyboard.press('F2')
  await other.keyboard.press('Control+a')
  await write(other, 'Later')
  await page.keyboard.press('Control+a')
  await write(page, 'Latest')
  // Neither replaces the other without a word: both stand, until whoever came last has chosen.
  await expect(page.getByText('Somebody else reworded this topic as well: “Later”.')).toBeVisible()
  await expect(topic(other, 'Later Latest, Note')).toBeVisible()
  await page.getByRole('button', { name: 'Side by side' }).click()
  const mine = page.getByRole('dialog').getByRole('region', { name: 'What you wrote' })
  await mine.getByRole('button', { name: 'Keep only this' }).click()
  await expect(topic(other, 'Latest, Note')).toBeVisible()
  await expect(topic(page, 'Latest, Note')).toBeVisible()
  await other.context().close()
})

test('somebody who is not a member learns nothing', async ({ page, browser, allow }) => {
  allow(/^(401|404) GET .*\/api\/collections/)
  await beginWithoutAccount(page)
  await makeMap(page, 'Private')
  await allSaved(page)
  const stranger = await (await browser.newContext()).newPage()
  await stranger.goto(page.url())
  await expect(stranger.getByText('Please sign in, or start without an account.')).toBeVisible()
  await stranger.goto('/')
  await stranger.getByRole('button', { name: 'Start without an account' }).click()
  await expect(stranger.getByRole('textbox', { name: 'Text of the topic' })).toBeFocused()
  await stranger.goto(page.url())
  await expect(stranger.getByText('There is no such collection, or it is not open to you.')).toBeVisible()
  await stranger.context().close()
})

test('a file that is too large is refused in words, and an ended beginning leaves nothing', async ({ page, allow }) => {
  allow(/^413 POST/)
  await beginWithoutAccount(page)
  await makeMap(page, 'Files')
  await allSaved(page)
  await page.route('**/files?*', (route) =>
    route.fulfill({ status: 413, contentType: 'application/json', body: '{"error":"This file is too large."}' }),
  )
  await selectTopic(page, 'Files')
  await openSheet(page)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles({ name: 'big.bin', mimeType: 'application/octet-stream', buffer: Buffer.from('x') })
  await expect(page.getByText('big.bin: This file is too large.')).toBeVisible()
  await page.getByRole('button', { name: 'Guest' }).click()
  await page.getByRole('menuitem', { name: 'End and leave nothing here' }).click()
  await page.getByRole('button', { name: 'Remove everything' }).click()
  await expect(page.getByRole('button', { name: 'Start without an account' })).toBeVisible()
})

test('an upload shows how far it is until the file hangs on its topic', async ({ page }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Files')
  await allSaved(page)
  let goOn = () => {}
  const held = new Promise<void>((resolve) => {
    goOn = resolve
  })
  await page.route('**/files?*', async (route) => {
    await held
    await route.continue()
  })
  await selectTopic(page, 'Files')
  await openSheet(page)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles({ name: 'levels.csv', mimeType: 'text/csv', buffer: Buffer.from('well,cm\n23,7\n') })
  await expect(page.getByText('levels.csv')).toBeVisible()
  await expect(page.getByRole('progressbar', { name: 'Uploading levels.csv' })).toHaveAttribute('aria-valuenow', '0')
  goOn()
  await expect(page.getByRole('button', { name: 'levels.csv', exact: true })).toBeVisible()
  await expect(page.getByRole('progressbar', { name: 'Uploading levels.csv' })).toHaveCount(0)
})

test('texts of any length and script find their place', async ({ page }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Anything')
  const texts = [
    'x'.repeat(4_990),
    'word '.repeat(300).trim(),
    'قلب المستنقع',
    '高層湿原の水位は夏に下がる',
    '🌱🌿 moss 🌧️',
    'Donaudampfschifffahrtselektrizitätenhauptbetriebswerkbauunterbeamtengesellschaft',
  ]
  await page.evaluate((text) => navigator.clipboard.writeText(text), texts.map((text) => `- ${text}`).join('\n'))
  await page.keyboard.press('Control+v')
  await expect(page.getByText('7 topics')).toBeVisible()
  await page.keyboard.press('Alt+f')
  await expect(page.locator('[data-stage] [data-topic]')).toHaveCount(texts.length + 1)
  await expectNoOverlap(page)
})

test('everything but typing works with the mouse: fold by its sign, loose topics, zoom and pan', async ({ page }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Mouse')
  await page.evaluate(() => navigator.clipboard.writeText('- Branch\n  - Twig\n  - Leaf'))
  await page.keyboard.press('Control+v')
  await choose(page, 'Branch', 'Shape', /^Fold Space/)
  await expect(topic(page, 'Twig')).toHaveCount(0)
  await page.locator('[data-fold]').click()
  await expect(topic(page, 'Twig')).toBeVisible()
  await page.locator('[data-stage]').dblclick({ position: { x: 300, y: 600 } })
  // One after the other, each on its own.
  await write(page, 'Loose idea')
  await page.keyboard.type('Another one')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Another one')).toHaveAttribute('aria-level', '1')
  await expect(topic(page, 'Loose idea')).toHaveAttribute('aria-level', '1')
  await expectNoOverlap(page)
  const before = (await topic(page, 'Mouse').boundingBox())!
  await page.mouse.move(500, 200)
  await page.mouse.wheel(0, 100)
  await expect.poll(async () => (await topic(page, 'Mouse').boundingBox())!.y).toBeLessThan(before.y - 50)
  await page.keyboard.down('Control')
  await page.mouse.wheel(0, 300)
  await page.keyboard.up('Control')
  await expect.poll(async () => (await topic(page, 'Mouse').boundingBox())!.width).toBeLessThan(before.width)
})

test('no screen has a barrier that axe finds, in light and in dark', async ({ page, lookAtDemo }) => {
  // Some fifty looks at whole screens.
  test.setTimeout(180_000)
  const found = async (only: readonly string[]) => {
    const axe = new AxeBuilder({ page })
    const { violations } = await (only.length > 0 ? axe.withRules([...only]) : axe).analyze()
    return violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 200)}`)
  }
  const inScheme = async (colorScheme: 'light' | 'dark') => {
    await page.emulateMedia({ colorScheme })
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme)
    await atRest(page)
  }
  /** All rules in light; in dark those that colours can break. */
  const check = async (screen: string) => {
    expect([screen, await found([])]).toEqual([screen, []])
    await inScheme('dark')
    expect([screen, 'dark', await found(['color-contrast', 'link-in-text-block'])]).toEqual([screen, 'dark', []])
    await inScheme('light')
  }
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Look at the demo: the Vennmoor handbook' })).toBeVisible()
  await check('sign-in')
  await lookAtDemo()
  await page.getByRole('button', { name: 'Walk through it' }).click()
  await expect(page.getByRole('dialog', { name: 'Stop 1 of 5: A map' })).toBeFocused()
  await check('walk')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('dialog', { name: 'Stop 2 of 5: Doorways' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Vennmoor handbook', exact: true })).toBeVisible()
  await check('home')
  await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Vegetation' })).toBeVisible()
  await check('collection')
  await page.getByRole('button', { name: 'New map' }).click()
  await expect(page.getByRole('button', { name: /^Season plan/ })).toBeVisible()
  await check('new map')
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Vegetation' }).click()
  await selectTopic(page, 'Pine')
  await check('map')
  await page.keyboard.press('Alt+2')
  await expect(page.getByRole('tree', { name: 'Outline of Vegetation' })).toBeVisible()
  await check('outline')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('moss')
  await expect(page.getByRole('option').first()).toBeVisible()
  await check('find')
  await page.keyboard.press('Escape')
  await page.keyboard.press('F1')
  await expect(page.getByRole('dialog', { name: 'All keys' })).toBeVisible()
  await check('keys')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Dress', exact: true }).click()
  await check('panel')
  await page.keyboard.press('Escape')
  await page.goto(`${page.url().split('/m/')[0]}/publish`)
  await expect(page.getByRole('heading', { name: /^Publish/ })).toBeVisible()
  await check('publish')
  // The walk was offered, once.
  await page.goBack()
  await expect(page.getByRole('tree')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Walk through it' })).toHaveCount(0)
})

test('the workspace is usable at 900 px', async ({ page }) => {
  await page.setViewportSize({ width: 900, height: 700 })
  await beginWithoutAccount(page)
  await makeMap(page, 'Narrow')
  await addTopic(page, 'Child')
  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  await expect(page.getByRole('textbox', { name: 'Note' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(900)
  // Columns lie over the map here, one at a time; it is as wide as before.
  await page.getByRole('button', { name: 'Show or hide the surroundings' }).click()
  await expect(page.getByRole('textbox', { name: 'Note' })).toBeHidden()
  await page.getByRole('button', { name: 'Close the surroundings' }).click()
  await page.getByRole('button', { name: 'Fit', exact: true }).click()
  expect((await page.locator('[data-stage]').boundingBox())!.width).toBe(900)
  await expect(topic(page, 'Narrow')).toBeInViewport()
})

test('a new map stands in the middle of what is left beside the panels', async ({ page }) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  const offset = async () => {
    const stage = (await page.locator('[data-stage]').boundingBox())!
    const root = (await topic(page, 'Garden').locator('rect').first().boundingBox())!
    return Math.max(
      Math.abs(root.x + root.width / 2 - stage.x - stage.width / 2),
      Math.abs(root.y + root.height / 2 - stage.y - stage.height / 2),
    )
  }
  await expect.poll(offset).toBeLessThan(3)
})

test('a note is kept where its editor cannot be fetched', async ({ page, allow }) => {
  allow(/ERR_FAILED.*NoteEditor/)
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  await page.route(/NoteEditor/, (route) => route.abort())
  await page.keyboard.press('Alt+n')
  await expect(page.getByRole('textbox', { name: 'Note' })).toBeFocused()
  await page.keyboard.type('In March.')
  await expect(page.getByRole('textbox', { name: 'Note' })).toHaveValue('In March.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Garden, Note')).toBeVisible()
  await allSaved(page)
  await page.unroute(/NoteEditor/)
  await page.reload()
  await selectTopic(page, 'Garden, Note')
  await openSheet(page)
  await expect(page.getByRole('textbox', { name: 'Note' })).toHaveText('In March.')
})

test('only what shows something of a change is drawn anew', async ({ page, browser }) => {
  await countRenders(page)
  await plantGarden(page, '- Spring\n  - Weed\n  - Prune\n- Summer\n  - Water\n- Autumn\n- Winter')
  await selectTopic(page, 'Weed')
  await openSheet(page)
  await allSaved(page)
  const sum = (renders: Renders, place: RegExp) =>
    Object.entries(renders).reduce((count, [name, times]) => count + (place.test(name) ? times : 0), 0)

  const other = await elsewhere(browser, page)
  await selectTopic(other, 'Prune')
  await drawnOut(page)
  const told = await rendersOf(page, async () => {
    await other.keyboard.press('F2')
    await write(other, 'Prune the roses')
    await expect(topic(page, 'Prune the roses')).toBeVisible()
    await drawnOut(page)
  })
  expect(sum(told, /^Topic sheet$/), JSON.stringify(told)).toBe(0)
  expect(sum(told, /^Surroundings$|^header$/), JSON.stringify(told)).toBe(0)
  expect(sum(told, /^(Garden|Summer|Autumn|Water|Winter)/), JSON.stringify(told)).toBe(0)
  await other.context().close()
  const from = await middleOf(page, 'Water')
  await page.mouse.move(from.x, from.y)
  // What follows of all that by itself is over by then, and the name of the button is gone from which the pointer came.
  await expect(page.getByRole('tooltip')).toHaveCount(0)
  await drawnOut(page)
  await page.mouse.down()
  await page.mouse.move(from.x + 40, from.y + 30, { steps: 4 })
  const moved = await rendersOf(page, () => page.mouse.move(from.x + 90, from.y + 60, { steps: 20 }))
  await page.keyboard.press('Escape')
  await page.mouse.up()
  // Those between which it would stand say so; the others stay as they are.
  expect(sum(moved, /^(Garden|Spring|Weed|Prune|Water|Winter)/), JSON.stringify(moved)).toBe(0)
  expect(sum(moved, /^Topic sheet$|^Surroundings$|^header$|^footer$/), JSON.stringify(moved)).toBe(0)
})

test('a page that crashes takes nothing along: what was being written is there again, at its field', async ({
  page,
  context,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  const address = page.url()
  let at = page
  /** Without a connection, so that nobody but the browser can have it. */
  const crashWhile = async (begin: () => Promise<void>, words: string) => {
    await begin()
    await allSaved(at)
    await context.setOffline(true)
    await at.keyboard.type(words)
    await expect(at.getByText(/^(You are writing …|No connection: 1 change is kept)/)).toBeVisible()
    // The browser has all of it, where it finds it again.
    await expect.poll(() => at.evaluate(() => JSON.stringify({ ...localStorage }))).toContain(words)
    const client = await context.newCDPSession(at)
    const crashed = at.waitForEvent('crash')
    void client.send('Page.crash').catch(() => {})
    await crashed
    await at.close()
    await context.setOffline(false)
    at = await context.newPage()
    await at.goto(address)
    await expect(at.getByText(/^What was being written when the page went is kept:/)).toBeVisible()
  }
  const field = () => at.getByRole('textbox', { name: 'Text of the topic' })
  await crashWhile(async () => {
    await selectTopic(at, 'Beans')
    await at.keyboard.press('Enter')
  }, 'Half a topic')
  await expect(field()).toHaveValue('Half a topic')
  await expect(field()).toBeFocused()
  await at.keyboard.type(' and the rest')
  await at.keyboard.press('Enter')
  await expect(topic(at, 'Half a topic and the rest')).toBeVisible()
  await crashWhile(async () => {
    await selectTopic(at, 'Peas')
    await at.keyboard.press('F2')
    await at.keyboard.press('End')
  }, ' in rows')
  await expect(field()).toHaveValue('Peas in rows')
  await at.keyboard.press('Enter')
  await crashWhile(async () => {
    await selectTopic(at, 'Peas in rows')
    await at.keyboard.press('Alt+n')
    await expect(at.locator('.tiptap')).toBeFocused()
  }, 'Sow them in April')
  await expect(at.locator('.tiptap')).toHaveText('Sow them in April')
  await expect(at.locator('.tiptap')).toBeFocused()
})

test('who writes below what somebody else puts into the trash is told, and brings it back', async ({
  page,
  browser,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  await allSaved(page)
  const other = await elsewhere(browser, page)
  await page.context().setOffline(true)
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Tab')
  await page.keyboard.type('In two rows')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await selectTopic(other, 'Peas')
  await other.keyboard.press('Delete')
  await expect(topic(other, 'Peas')).toBeHidden()
  await allSaved(other)
  await page.context().setOffline(false)
  await expect(page.getByText(/^“In two rows” lies in the trash with “Peas”: you put it there\.$/)).toBeVisible()
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(topic(page, 'In two rows')).toBeVisible()
  await expect(topic(other, 'In two rows')).toBeVisible()
  await other.context().close()
})

test('without a connection a part that is not here is told in its place, and comes when the connection does', async ({
  page,
  context,
}) => {
  // Parts are fetched one after the other: with this one, those of the dialogs are here.
  const fetched = page.waitForResponse(/\/MarksSection\.[^/]*\.js$/)
  await plantGarden(page, '- Peas\n- Beans')
  await selectTopic(page, 'Peas')
  await allSaved(page)
  await fetched
  await context.setOffline(true)
  const missing = page.getByText('This part of Folvet could not be fetched.')
  await page.keyboard.press('Alt+Shift+n')
  await expect(page.getByRole('dialog', { name: 'Not here just now' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(missing).toHaveCount(0)
  await openSection(page, /^Comments/)
  await expect(page.getByRole('alert').filter({ has: missing }).first()).toBeVisible()
  // Everything else goes on, and what belongs to writing on a map was fetched before.
  await selectTopic(page, 'Beans')
  await page.keyboard.press('Alt+t')
  await page.keyboard.type('dry')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Beans, tagged dry')).toBeVisible()
  await selectTopic(page, 'Beans, tagged dry')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Leeks')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Leeks')).toBeVisible()
  await selectTopic(page, 'Peas')
  await context.setOffline(false)
  await expect(page.getByPlaceholder('Say something about this topic')).toBeVisible()
  await expect(missing).toHaveCount(0)
  await allSaved(page)
})

test('a new version of the server is told quietly, and taking it loses nothing', async ({ page }) => {
  await plantGarden(page, '- Peas')
  await page.route('**/changes', async (route) => {
    const response = await route.fetch()
    await route.fulfill({ response, headers: { ...response.headers(), 'x-folvet-build': 'the next one' } })
  })
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Beans')
  await page.keyboard.press('Enter')
  const take = page.getByRole('button', { name: 'New version: take it' })
  await expect(take).toBeVisible()
  // A window of the version before goes on; what is being written then is kept.
  await page.unroute('**/changes')
  await page.keyboard.type('Leeks')
  await take.click()
  await expect(take).toHaveCount(0)
  await expect(topic(page, 'Beans')).toBeVisible()
  await expect(topic(page, 'Leeks')).toBeVisible()
})

test('a browser that keeps nothing says so, and everything is saved all the same when the connection is back', async ({
  page,
  context,
}) => {
  await page.addInitScript(() => {
    const full = () => {
      throw new DOMException('Full.', 'QuotaExceededError')
    }
    Object.defineProperty(Storage.prototype, 'setItem', { value: full })
    Object.defineProperty(IDBFactory.prototype, 'open', { value: full })
  })
  await plantGarden(page, '- Peas')
  await allSaved(page)
  await context.setOffline(true)
  await addTopic(page, 'Only in this window')
  await expect(
    page.getByText('Not saved, and this browser keeps nothing: leave this window open (1 change)'),
  ).toBeVisible()
  await context.setOffline(false)
  await allSaved(page)
  await page.reload()
  await expect(topic(page, 'Only in this window')).toBeVisible()
})
