import {
  allSaved,
  beginOnMap,
  cardOf,
  expectNoBarriersInBoth,
  expectNoOverlap,
  makeMap,
  openSection,
  plantGarden,
  selectTopic,
  topic,
  write,
} from './person'
import { expect, test } from './watched'

test('a newcomer finds what can be done by what is seen: writes, shapes, dresses, splits off, and goes back', async ({
  page,
}) => {
  await beginOnMap(page)
  await expect(page.getByText('Write what this map is about, then press Enter.')).toBeVisible()
  await write(page, 'Allotment')
  await expect(page).toHaveTitle('Allotment · Folvet')
  const act = async (group: string, name: string | RegExp) => {
    await page.getByRole('button', { name: group, exact: true }).click()
    await page.getByRole('menuitem', { name }).click()
  }
  for (const name of ['Beds', 'Paths', 'Water', 'Tools']) {
    await topic(page, 'Allotment').click()
    await act('Gather', /^Add a first-level topic/)
    await write(page, name)
  }
  // Two stand on each side, and all of the map is in view.
  const sides = await Promise.all(
    ['Beds', 'Paths', 'Water', 'Tools'].map(async (name) => {
      const root = (await topic(page, 'Allotment').boundingBox())!
      return (await topic(page, name).boundingBox())!.x > root.x ? 'right' : 'left'
    }),
  )
  expect(sides.filter((side) => side === 'right')).toHaveLength(2)
  for (const name of ['North', 'South']) {
    await topic(page, 'Beds').click()
    await page.getByRole('button', { name: 'Add a child to Beds' }).click()
    await write(page, name)
  }
  await expect(topic(page, 'South')).toBeInViewport({ ratio: 0.99 })
  await expect(topic(page, 'Tools')).toBeInViewport({ ratio: 0.99 })

  // What does not apply says why.
  await topic(page, 'Paths').click()
  await page.getByRole('button', { name: 'Network', exact: true }).click()
  const split = page.getByRole('menuitem', { name: /^Split off/ })
  await expect(split).toHaveAttribute('aria-disabled', 'true')
  await split.hover()
  await expect(page.getByText('Nothing hangs below it.')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(split).toBeHidden()

  await topic(page, 'Allotment').click()
  await act('Dress', 'The map top down')
  await expect(page.getByRole('button', { name: 'Undo: set the map top down' })).toBeVisible()
  await expectNoOverlap(page)
  await topic(page, 'Beds').click()
  await act('Network', /^Split off/)
  await expect(topic(page, 'Beds, opens a map with 3 topics')).toBeVisible()
  await act('Network', /^Open the map behind it/)
  await expect(page).toHaveTitle('Beds · Folvet')
  await expect(topic(page, 'North')).toBeVisible()
  await page.getByRole('navigation', { name: 'Where this is' }).getByRole('link', { name: 'Allotment' }).click()

  // The menu of a topic is short; its groups lead to the same panels, by keyboard too.
  await topic(page, 'Water').click({ button: 'right' })
  expect(await page.getByRole('menuitem').count()).toBeLessThanOrEqual(12)
  await page.getByRole('menuitem', { name: 'Shape', exact: true }).click()
  await expect(page.getByRole('menuitem', { name: /^Move up/ })).toBeFocused()
  await page.keyboard.press('d')
  await expect(page.getByRole('menuitem', { name: /^Detach/ })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Water')).toHaveAttribute('aria-level', '1')
  await expect(page.getByRole('tree')).toBeFocused()
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'Water')).toHaveAttribute('aria-level', '2')

  // A note lies behind a topic, by its group too.
  await topic(page, 'Water').click()
  await act('Enrich', /^Write the note/)
  const note = page.getByRole('textbox', { name: 'Note' })
  await expect(note).toBeFocused()
  await page.keyboard.type('Rain first, the tap last.')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Note 5 words' })).toBeVisible()
  await expect(topic(page, 'Water, Note')).toBeVisible()

  // Zoom tells its figure.
  await page.getByRole('button', { name: 'Larger' }).click()
  await page.getByRole('button', { name: /^Shown at/ }).click()
  await page.getByRole('menuitem', { name: '100 %' }).click()
  await expect(page.getByRole('button', { name: 'Shown at 100 %: choose what to see' })).toBeVisible()
  await allSaved(page)

  // Another map is made, and taken over into this one.
  await page.getByRole('link', { name: 'All maps' }).click()
  await makeMap(page, 'Neighbour')
  await act('Gather', /^Add a first-level topic/)
  await write(page, 'Compost')
  await allSaved(page)
  await page.getByRole('button', { name: 'Other maps' }).click()
  await page.getByRole('menuitem', { name: 'Allotment' }).click()
  await topic(page, 'Allotment').click()
  await act('Network', 'Merge other maps into this one')
  await page.getByRole('combobox', { name: 'Maps to take over' }).click()
  await page.getByRole('option', { name: 'Neighbour' }).click()
  await page.getByRole('button', { name: 'Merge', exact: true }).click()
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(topic(page, 'Compost')).toBeVisible()
  await page.getByRole('button', { name: 'Steps to undo' }).click()
  await expect(page.getByRole('menuitem').nth(1)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Publish' }).click()
  await page.getByRole('button', { name: 'Publish', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Open the site' })).toBeVisible()
})

test('the whole job is done by keyboard alone', async ({ page }) => {
  /** Goes on to what has this name, by Tab as people do. */
  const tabTo = async (name: RegExp, most = 60) => {
    for (let pressed = 0; pressed < most; pressed++) {
      await page.keyboard.press('Tab')
      const said = await page.evaluate(() => {
        const element = document.activeElement
        return `${element?.getAttribute('aria-label') ?? element?.textContent}, ${element?.tagName.toLowerCase()}`
      })
      if (name.test(said)) return
    }
    throw new Error(`Tab does not come to ${name}.`)
  }
  const doByName = async (words: string) => {
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('combobox', { name: 'Find anything, do anything' })).toBeFocused()
    await page.keyboard.type(words)
    await expect(page.getByRole('option').first()).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('combobox', { name: 'Find anything, do anything' })).toBeHidden()
  }
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Start without an account' })).toBeVisible()
  await tabTo(/^Start without/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toBeFocused()

  // Gathers ten topics.
  await write(page, 'Allotment')
  await page.keyboard.press('Tab')
  await write(page, 'Beds')
  for (const name of ['Paths', 'Water', 'Tools']) {
    await page.keyboard.press('Enter')
    await write(page, name)
  }
  await page.keyboard.press('Tab')
  await write(page, 'Spade')
  for (const name of ['Fork', 'Rake', 'Hoe', 'Barrow']) {
    await page.keyboard.press('Enter')
    await write(page, name)
  }
  for (const name of ['Allotment', 'Beds', 'Spade', 'Barrow']) await expect(topic(page, name)).toBeVisible()

  // Shapes, enriches, dresses.
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByRole('button', { name: 'Undo: move Barrow' })).toBeVisible()
  await page.keyboard.press('Alt+n')
  await expect(page.getByRole('textbox', { name: 'Note' })).toBeFocused()
  await page.keyboard.type('Its wheel is flat.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Barrow, Note')).toBeVisible()
  // A typing mistake is forgiven.
  await doByName('Tolos')
  await expect(topic(page, 'Tools')).toHaveAttribute('aria-selected', 'true')
  await doByName('branch indented')
  await expect(page.getByRole('button', { name: /^Undo: set Tools/ })).toBeVisible()

  // Splits off, goes there and back.
  await page.keyboard.press('Alt+d')
  await expect(topic(page, 'Tools, opens a map with 6 topics')).toBeVisible()
  await page.keyboard.press('Control+Enter')
  await expect(page).toHaveTitle('Tools · Folvet')
  await allSaved(page)
  await expect(page.getByRole('tree', { name: 'Map Tools' })).toBeFocused()

  // Makes another map. On the map Tab makes topics: F6 goes round what is beside it.
  await page.keyboard.press('Shift+F6')
  await page.keyboard.press('Shift+F6')
  await tabTo(/^All maps/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'New map' })).toBeVisible()
  await tabTo(/^New map/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog').getByRole('button', { name: /^Empty/ })).toBeVisible()
  await tabTo(/^Empty/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toBeFocused()
  await write(page, 'Neighbour')
  await page.keyboard.press('Tab')
  await write(page, 'Paths')
  await page.keyboard.press('Enter')
  await write(page, 'Compost')
  await allSaved(page)

  // Takes the first map over into it, and publishes.
  // Out of the empty topic that came last, then to the root.
  await page.keyboard.press('ArrowLeft')
  await expect(topic(page, 'Compost')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('ArrowLeft')
  await expect(topic(page, 'Neighbour')).toHaveAttribute('aria-selected', 'true')
  await doByName('merge')
  await expect(page.getByRole('combobox', { name: 'Maps to take over' })).toBeFocused()
  await page.keyboard.type('Allot')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^\d+ joined, \d+ added/)).toBeVisible()
  await tabTo(/^Merge, button/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Done', exact: true })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Beds')).toBeVisible()
  await expect(topic(page, 'Paths')).toHaveCount(1)
  await expect(page.getByRole('tree')).toBeFocused()
  await page.keyboard.press('Shift+F6')
  await page.keyboard.press('Shift+F6')
  await tabTo(/^Publish/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^Publish/ })).toBeVisible()
  await tabTo(/^Publish, button/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Open the site' })).toBeVisible()
})

test('on a telephone a map is read, added to and folded, and columns come one at a time', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 760 })
  await beginOnMap(page)
  await write(page, 'Allotment')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Beds')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Add a child to Beds' }).click()
  await write(page, 'North')
  for (const name of ['Allotment', 'Beds', 'North']) await expect(topic(page, name)).toBeInViewport({ ratio: 0.99 })
  await topic(page, 'Beds').click()
  await page.getByRole('button', { name: 'Shape', exact: true }).click()
  await page.getByRole('menuitem', { name: /^Fold Space/ }).click()
  await expect(topic(page, 'North')).toHaveCount(0)
  await page.getByRole('button', { name: 'Show or hide the surroundings' }).click()
  await expect(page.getByRole('navigation', { name: 'Surroundings' })).toBeVisible()
  await page.getByRole('button', { name: 'Close the surroundings' }).click()
  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeVisible()
  await page.getByRole('button', { name: 'Close the topic sheet' }).click()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeHidden()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)

  // On a wider screen the sheet lies over the map too, but not over what it is about.
  await page.setViewportSize({ width: 900, height: 700 })
  await page.keyboard.press('Space')
  await topic(page, 'North').click()
  await page.keyboard.press('Alt+g')
  const edge = async () => (await topic(page, 'North').boundingBox())!
  await expect.poll(async () => (await edge()).x).toBeGreaterThan(300)
  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  const sheet = (await page.getByRole('complementary', { name: 'Topic sheet' }).boundingBox())!
  await expect.poll(async () => (await edge()).x + (await edge()).width).toBeLessThan(sheet.x)
})

test('the search page finds words in notes and names with the way there, and keeps the tags in order', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n  - Sow peas\n  - Sow leeks\n- Autumn\n  - Lift leeks')
  const collection = new URL(page.url()).pathname.split('/')[2]!
  await selectTopic(page, 'Sow peas')
  await page.keyboard.press('Alt+n')
  await expect(page.getByRole('textbox', { name: 'Note' })).toBeFocused()
  await page.keyboard.type('Soak them overnight in rainwater.')
  await page.keyboard.press('Escape')
  for (const [name, tag] of [
    ['Sow peas', 'urgent'],
    ['Sow leeks', 'at once'],
    ['Lift leeks', 'later'],
  ]) {
    await selectTopic(page, name!)
    await openSection(page, /^Badges, tags/)
    await page.getByRole('combobox', { name: 'Add a tag' }).fill(tag!)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('link', { name: tag!, exact: true })).toBeVisible()
  }
  await allSaved(page)
  await page.goto(`/c/${collection}/search`)
  const field = page.getByRole('textbox', { name: 'Words to search for' })
  const found = page.getByRole('list', { name: 'Found' })
  await field.fill('rainwatre soak')
  await expect(found.getByRole('link')).toHaveText([
    /^Soak them overnight in rainwater\.\s*Garden › Spring › Sow peas$/,
  ])
  await expect(found.locator('mark')).toHaveText(['Soak', 'rainwater'])
  await page.getByRole('combobox', { name: 'With which tag' }).click()
  await page.getByRole('option', { name: 'at once' }).click()
  await expect(page.getByText(/^Nothing has .* all else that is asked for/)).toBeVisible()
  await field.fill('')
  await expect(found.getByRole('link')).toHaveText([/^Sow leeks/])
  await page.goto(`/c/${collection}/search`)

  const tags = page.getByRole('region', { name: 'Tags' })
  await expect(tags.getByRole('listitem')).toHaveText([/^at once/, /^later/, /^urgent/])
  await expectNoBarriersInBoth(page)
  await tags.getByRole('button', { name: 'urgent: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Merge into another …' }).click()
  await page.getByRole('combobox', { name: 'Into' }).click()
  await page.getByRole('option', { name: 'at once' }).click()
  await page.getByRole('button', { name: 'Merge', exact: true }).click()
  await expect(tags.getByRole('listitem')).toHaveText([/^at once2/, /^later1/])
  await tags.getByRole('button', { name: 'later: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Rename …' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('in winter')
  await page.keyboard.press('Enter')
  await expect(tags.getByRole('listitem')).toHaveText([/^at once2/, /^in winter1/])
  await tags.getByRole('button', { name: 'at once', exact: true }).click()
  await found.getByRole('link', { name: /Sow peas/ }).click()
  await expect(topic(page, 'Sow peas')).toHaveAttribute('aria-selected', 'true')

  // The same key finds from every screen: a screen by its name, and words of a note where they stand.
  await page.goto(`/c/${collection}`)
  await expect(cardOf(page, 'Garden')).toBeVisible()
  await page.keyboard.press('Control+k')
  const finder = page.getByRole('dialog').getByRole('combobox')
  await expect(finder).toBeFocused()
  await expect(page.getByRole('option')).toContainText(['See all maps in a table', 'See all maps in the atlas'])
  await page.keyboard.type('comments')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/comments$/)
  await expect(page.getByRole('heading', { name: 'Comments' })).toBeVisible()
  await page.keyboard.press('Control+k')
  await expect(finder).toBeFocused()
  // Enter counts for what was typed, however fast it comes.
  await page.keyboard.type('overnight')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Note' })).toContainText('Soak them overnight')
})
