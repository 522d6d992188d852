import { allSaved, openSheet, plantGarden, selectTopic, toAllMaps, topic } from './person'
import { expect, type Page, test } from './watched'

const GARDEN = '- Spring\n  - Sow peas\n  - Sow leek\n- Summer\n  - Water'
const GROUPS = ['Gather', 'Shape', 'Enrich', 'Dress', 'Network']

/** What an act of the panels says of itself. */
interface Told {
  group: string
  id: string
  lead: string
  key: string | null
}

/** All acts of the strip that can be done now, with where they lead. */
async function actsOffered(page: Page): Promise<Told[]> {
  const told: Told[] = []
  for (const group of GROUPS) {
    await page.getByRole('button', { name: group, exact: true }).click()
    told.push(
      ...(await page.locator('[data-act]:not([aria-disabled="true"])').evaluateAll(
        (rows, name) =>
          rows.map((row) => ({
            group: name,
            id: row.getAttribute('data-act') ?? '',
            lead: row.getAttribute('data-lead') ?? '',
            key: row.querySelector('kbd')?.textContent ?? null,
          })),
        group,
      )),
    )
    await page.keyboard.press('Escape')
  }
  return told
}

/** What has the keyboard: what it is called, and the words in it. */
const underTheKeyboard = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement
    if (!at || at === document.body || at.matches('[data-on-its-way]')) return { what: 'body', words: '' }
    const words = at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement ? at.value : at.textContent
    return {
      what: `${at.tagName} ${at.getAttribute('aria-label') ?? at.getAttribute('role') ?? ''}`,
      words: words ?? '',
    }
  })

/** The topics as they are, by their names. */
const topicsNow = (page: Page) =>
  page
    .locator('[data-stage] [role="treeitem"]')
    .evaluateAll((rows) => rows.map((row) => row.getAttribute('aria-label')))

/** Carries out an act by its key, or from its panel, and types at once. */
async function doAndType(page: Page, act: Told, words: string): Promise<void> {
  if (act.key) {
    const key = act.key.replaceAll(' ', '').replace('Ctrl', 'Control')
    await page.keyboard.press(key)
  } else {
    await page.getByRole('button', { name: act.group, exact: true }).click()
    await page.locator(`[data-act="${act.id}"]`).click()
  }
  await page.keyboard.type(words)
}

/** Whatever is open is closed again, and nothing half written is left. */
async function backToMap(page: Page, name: string): Promise<void> {
  const open = page.getByRole('dialog').or(page.getByRole('region', { name: /Draft|Pouring/ }))
  // What lies over a dialog closes first.
  await expect(async () => {
    const names = await open.evaluateAll((all) =>
      all.map((each) => each.getAttribute('aria-label') ?? each.textContent),
    )
    if (names.length > 0) await page.keyboard.press('Escape')
    expect(names).toEqual([])
  }).toPass({ intervals: [50], timeout: 20_000 })
  await selectTopic(page, name)
}

for (const [how, width, isOpen] of [
  ['with the sheet open', 1280, true],
  ['with the sheet closed', 1280, false],
  ['where the sheet lies over the map', 900, false],
] as const)
  test(`every act that leads to a field takes what is typed at once, ${how}`, async ({ page }) => {
    test.setTimeout(180_000)
    await page.setViewportSize({ width, height: 800 })
    await plantGarden(page, GARDEN)
    await selectTopic(page, 'Sow peas')
    if (isOpen) await openSheet(page)
    await selectTopic(page, 'Spring')
    const acts = (await actsOffered(page)).filter(({ lead }) => lead === 'field' || lead === 'control')
    expect(acts.length).toBeGreaterThan(18)
    const before = await topicsNow(page)
    for (const act of acts) {
      await test.step(act.id, async () => {
        const words = `zq${act.id.replaceAll('-', '')}`
        await doAndType(page, act, words)
        await expect
          .poll(() => underTheKeyboard(page), { message: `${act.id}: where the keyboard is`, timeout: 10_000 })
          .toMatchObject(
            act.lead === 'field'
              ? { words: expect.stringContaining(words) }
              : { what: expect.not.stringMatching(/^body/) },
          )
        // Nothing of it went to the map.
        expect((await topicsNow(page)).filter((name) => name?.includes('zq'))).toEqual([])
        // What is poured hangs on with Esc.
        if (act.id === 'pour') await page.getByRole('button', { name: 'Throw away' }).click()
        await backToMap(page, 'Spring')
        if (!isOpen && width === 1280) {
          const sheet = page.getByRole('button', { name: 'Show or hide the topic sheet' })
          if (await page.getByRole('complementary', { name: 'Topic sheet' }).isVisible()) await sheet.click()
          await selectTopic(page, 'Spring')
        }
      })
    }
    expect((await topicsNow(page)).length).toBeGreaterThanOrEqual(before.length)
  })

test('after every other act something has the keyboard, and after what it opened is closed', async ({ page }) => {
  test.setTimeout(300_000)
  // Each act has a topic of its own: what one did is in nobody's way.
  const beds = Array.from({ length: 70 }, (_, i) => `- Bed ${i}\n  - Peas ${i}\n  - Leek ${i}`)
  await plantGarden(page, beds.join('\n'))
  const address = page.url()
  await selectTopic(page, 'Bed 0')
  const acts = (await actsOffered(page)).filter(({ lead }) => lead !== 'field' && lead !== 'control')
  expect(acts.length).toBeGreaterThan(25)
  // A page that is loaded begins at its top, as any page does.
  const isOnMap = () => new URL(page.url()).pathname.includes('/m/')
  const isSomewhere = () =>
    expect.poll(async () => (isOnMap() ? (await underTheKeyboard(page)).what : 'another page')).not.toBe('body')
  let done = 0
  for (const [i, act] of acts.entries())
    await test.step(act.id, async () => {
      if (page.url() !== address) {
        await page.goto(address)
        await expect(page.getByRole('tree')).toBeFocused()
      }
      await page.keyboard.press('Control+k')
      await page.keyboard.type(`Bed ${i}`)
      await page.keyboard.press('Enter')
      // What an act before has folded away is told, with the way to it.
      const unfold = page.getByRole('button', { name: 'Unfold', exact: true })
      await expect(topic(page, `Bed ${i}`).or(unfold).first()).toBeVisible()
      if (await unfold.isVisible()) await unfold.click()
      await expect(topic(page, `Bed ${i}`)).toHaveAttribute('aria-selected', 'true')
      await page.getByRole('button', { name: act.group, exact: true }).click()
      const entry = page.locator(`[data-act="${act.id}"]`)
      // What an act before has made of all of them can leave it nothing to do.
      if ((await entry.getAttribute('aria-disabled')) === 'true') return page.keyboard.press('Escape')
      await entry.click()
      done++
      await isSomewhere()
      const open = page.getByRole('dialog').or(page.getByRole('menu'))
      await expect(async () => {
        if ((await open.count()) === 0) return
        await page.keyboard.press('Escape')
        await expect(open).toHaveCount(0, { timeout: 200 })
      }).toPass({ timeout: 20_000 })
      await isSomewhere()
    })
  expect(done).toBeGreaterThan(25)
})

test('what is typed on entering a map is written there, and a comment is a comment', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+m')
  await page.keyboard.type('Is this right?')
  await page.keyboard.press('Control+Enter')
  await expect(topic(page, 'Spring, 1 open comment')).toBeVisible()
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+d')
  await expect(topic(page, 'Spring, opens a map with 3 topics')).toBeVisible()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('early')
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toHaveValue('Spring early')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Spring early')).toBeVisible()

  // Who goes round the window while a map opens is left where they went.
  await page.goBack()
  await selectTopic(page, 'Spring, opens a map with 3 topics')
  await page.keyboard.press('Control+Enter')
  await page.keyboard.press('F6')
  await expect(topic(page, 'Spring early')).toHaveAttribute('aria-selected', 'true')
  const outside = page.locator('header, [data-strip], [aria-label="Surroundings"], [aria-label="Topic sheet"], footer')
  await expect(outside.locator(':focus')).toHaveCount(1)
})

test('the first hour at full typing speed: nothing is lost, one key an idea', async ({ page }) => {
  await plantGarden(page, '- Ideas', false)
  await selectTopic(page, 'Ideas')
  const ideas = ['Peas', 'Beans', 'Leek', 'Chard', 'Kale', 'Onions', 'Garlic']
  await page.keyboard.press('Tab')
  for (const idea of ideas) {
    await page.keyboard.type(idea)
    await page.keyboard.press('Enter')
  }
  // One child of the last, one level out again, and an empty one that is none.
  await page.keyboard.press('Tab')
  await page.keyboard.type('Hardneck')
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.type('Herbs')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  for (const idea of [...ideas, 'Herbs']) await expect(topic(page, idea)).toHaveAttribute('aria-level', '3')
  await expect(topic(page, 'Hardneck')).toHaveAttribute('aria-level', '4')
  await expect(page.locator('[data-stage] [role="treeitem"]')).toHaveCount(2 + ideas.length + 2)
  await expect(topic(page, 'Herbs')).toHaveAttribute('aria-selected', 'true')
  // A letter on a selected topic is written behind its words, and Esc gives it up.
  await page.keyboard.type('and more')
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toHaveValue('Herbs and more')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Herbs')).toBeVisible()
  // An act's key in a new topic keeps it, and is for it.
  await page.keyboard.press('Enter')
  await page.keyboard.type('Flowers')
  await page.keyboard.press('Alt+n')
  await page.keyboard.type('For the bees.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Flowers, Note')).toBeVisible()
  // Who leaves a note before its editor stands is not called back by it.
  const slow = await page.context().newCDPSession(page)
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 6 })
  for (const flower of ['Aster', 'Borage', 'Clover', 'Daisy']) {
    await page.keyboard.press('Enter')
    await page.keyboard.type(flower)
    await page.keyboard.press('Alt+n')
    await page.keyboard.type('Late.')
    await page.keyboard.press('Escape')
  }
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  for (const flower of ['Aster', 'Borage', 'Clover', 'Daisy'])
    await expect(topic(page, `${flower}, Note`)).toHaveAttribute('aria-level', '3')
  // The page loaded anew while a topic is written: what stands in its field is kept.
  await page.keyboard.press('Enter')
  await page.keyboard.type('Written when the page went')
  await page.reload()
  await expect(topic(page, 'Written when the page went')).toBeVisible()
})

test('a first map, and one of a pasted list, are there without a page being loaded, and the way back leads back', async ({
  page,
}) => {
  const isSamePage = () => page.evaluate(() => 'stayed' in window)
  const stay = () => page.evaluate(() => Object.assign(window, { stayed: true }))
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Start without an account' })).toBeVisible()
  await stay()
  // Typed at once, while there is neither a collection nor a map.
  await page.getByRole('button', { name: 'Start without an account' }).click()
  await page.keyboard.type('A garden')
  await page.keyboard.press('Enter')
  await expect(page).toHaveTitle('A garden · Folvet')
  await expect(page.getByRole('button', { name: 'Guest' })).toBeVisible()
  expect(await isSamePage()).toBe(true)
  await allSaved(page)
  await page.reload()
  await expect(topic(page, 'A garden')).toBeVisible()

  await toAllMaps(page)
  await stay()
  await page.getByRole('button', { name: 'Import text' }).click()
  const jobs: string[] = []
  page.on('request', (request) => request.url().includes('/imports') && jobs.push(request.url()))
  await page.getByRole('textbox', { name: 'A list, an outline or a page of text' }).fill('- Peas\n  - Sow\n- Leeks')
  await page.getByRole('button', { name: 'Make the map' }).click()
  await expect(topic(page, 'Leeks')).toBeVisible()
  expect([await isSamePage(), jobs]).toEqual([true, []])
  await page.keyboard.press('Home')
  await page.keyboard.type(' of mine')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await page.goBack()
  await expect(page.getByRole('navigation', { name: 'Places of the collection' })).toBeVisible()
  await expect(page.getByRole('link', { name: /of mine/ }).first()).toBeVisible()
})

test('what is half written stays with its topic: a comment, a web link, what was poured', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+m')
  await page.keyboard.type('Half a thou')
  await expect(page.getByRole('textbox', { name: 'Say something about this topic' })).toHaveValue('Half a thou')
  await selectTopic(page, 'Summer')
  await expect(page.getByRole('textbox', { name: 'Say something about this topic' })).toHaveValue('')
  await page.reload()
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+m')
  await expect(page.getByRole('textbox', { name: 'Say something about this topic' })).toHaveValue('Half a thou')
  await page.keyboard.type('ght')
  await page.keyboard.press('Control+Enter')
  await expect(topic(page, 'Spring, 1 open comment')).toBeVisible()
  await page.getByRole('button', { name: 'Add a web link' }).click()
  await page.keyboard.type('https://example.org/wind')
  await selectTopic(page, 'Summer')
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveCount(0)
  await selectTopic(page, 'Spring')
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue('https://example.org/wind')
  await page.getByRole('textbox', { name: 'Name' }).click()
  await page.keyboard.type('Wind on the hill')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Wind on the hill' })).toBeVisible()
  await selectTopic(page, 'Water')
  await page.keyboard.press('Alt+p')
  await page.keyboard.type('At dawn')
  await page.reload()
  const poured = page.getByRole('textbox', { name: 'Ideas, one line after the other' })
  await expect(poured).toHaveValue('At dawn')
  await expect(poured).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(topic(page, 'At dawn')).toHaveAttribute('aria-level', '4')
})
