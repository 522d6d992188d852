import { allSaved, expectNoBarriers, makeMap, openSection, plantGarden, selectTopic, topic } from './person'
import { expect, type Page, test } from './watched'

/** A red picture of one pixel. */
const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg=='

test('a note gets a table, a picture and a link to another topic, is searched and reworded, and leads there', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n- Compost heap')
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Alt+n')
  const note = page.getByRole('textbox', { name: 'Note', exact: true })
  await expect(note).toBeFocused()
  await page.keyboard.type('Sow the peas early. Water the peas late. See [[')
  await page.getByRole('dialog').getByRole('combobox').fill('comp')
  await page.getByRole('option', { name: /^Compost heap/ }).click()
  await expect(note.getByRole('link', { name: 'Compost heap' })).toBeVisible()
  await page.keyboard.type(' first.')
  await expect(page.getByText('12 words')).toBeVisible()

  // Words are found, and others put in their place.
  await page.keyboard.press('Control+f')
  await page.getByRole('textbox', { name: 'Find in the note' }).fill('PEAS')
  await expect(page.getByText('1 of 2')).toBeVisible()
  await page.getByRole('textbox', { name: 'Put in its place' }).fill('beans')
  await page.getByRole('button', { name: 'Replace', exact: true }).click()
  await expect(note).toContainText('Sow the beans early. Water the peas late.')
  await page.getByRole('button', { name: 'All', exact: true }).click()
  await expect(page.getByText('nowhere')).toBeVisible()
  await page.getByRole('button', { name: 'End finding' }).click()

  await page.keyboard.press('Control+End')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Insert a table' }).click()
  await page.keyboard.type('Bed')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Rows')
  // The third column has no name.
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Alter the table' }).click()
  await page.getByRole('menuitem', { name: 'Remove this column' }).click()
  await expect(note.getByRole('columnheader')).toHaveText(['Bed', 'Rows'])
  await expect(note).toBeFocused()
  await page.keyboard.press('Control+Home')
  await note.evaluate((element, data) => {
    const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0))
    const carried = new DataTransfer()
    carried.items.add(new File([bytes], 'seedling.png', { type: 'image/png' }))
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: carried, bubbles: true, cancelable: true }))
  }, PIXEL)
  await expect(note.getByRole('img', { name: 'seedling.png' })).toBeVisible()
  await expectNoBarriers(page)
  await page.keyboard.press('Escape')
  await allSaved(page)

  // It is CommonMark, and reads the same on the page.
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const map = new URL(page.url()).pathname.split('/')[4]!
  const held = await (await page.request.get(`/api/collections/${collection}/maps/${map}`)).json()
  const compost = await topic(page, 'Compost heap').getAttribute('data-topic')
  expect(held.records.note[0].text).toContain(`[Compost heap](folvet:topic/${compost})`)
  expect(held.records.note[0].text).toMatch(/!\[seedling\.png\]\(folvet:file\/[0-9a-f-]{36}\)/)
  expect(held.records.note[0].text).toMatch(/\| Bed +\| Rows +\|/)
  await page.keyboard.press('Alt+3')
  await expect(page.getByRole('img', { name: 'seedling.png' }).first()).toBeVisible()
  await page.keyboard.press('Alt+1')
  await selectTopic(page, 'Peas')
  await note.getByText('Compost heap').click()
  await page.getByRole('button', { name: 'Go to Compost heap' }).click()
  await expect(topic(page, 'Compost heap')).toHaveAttribute('aria-selected', 'true')
})

test('a link leads to words of a note on another map, which are commented on, and one note is carried by two topics', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  const sheet = page.getByRole('complementary', { name: 'Topic sheet' })
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Alt+n')
  await expect(sheet.getByRole('textbox', { name: 'Note' })).toBeFocused()
  await page.keyboard.type('Sow them deep.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Water them in the evening.')
  await allSaved(page)
  await sheet.getByText('Water them in the evening.').click({ clickCount: 3 })
  await page.getByRole('button', { name: 'Copy a link to these words' }).click()
  await expect(page.getByText('The link is copied. Paste it into a note.')).toBeVisible()
  await page.getByRole('button', { name: 'Comment on them' }).click()
  await page.getByRole('textbox', { name: 'Say something about these words' }).fill('Mornings are better.')
  await page.keyboard.press('Control+Enter')
  await expect(sheet.getByRole('article').getByText('Water them in the evening.')).toBeVisible()
  await expectNoBarriers(page)
  const garden = page.url()
  await allSaved(page)

  await page.goto(garden.replace(/\/m\/.*/, ''))
  await makeMap(page, 'Kitchen')
  await page.keyboard.press('Alt+n')
  await expect(sheet.getByRole('textbox', { name: 'Note' })).toBeFocused()
  await page.keyboard.press('Control+v')
  await expect(sheet.getByRole('link', { name: 'Water them in the evening.' })).toBeVisible()
  await allSaved(page)
  await page.keyboard.press('ArrowLeft')
  await page.getByRole('button', { name: 'Go to where this leads' }).click()
  await expect(topic(page, 'Peas')).toHaveAttribute('aria-selected', 'true')
  const marked = () => page.evaluate(() => [...(CSS.highlights.get('folvet-passage') ?? [])].map(String))
  await expect.poll(marked).toEqual(['Water them in the evening'])
  await openSection(page, /^Links/)
  await expect(sheet.getByRole('button', { name: 'Kitchen in its note, in Kitchen' })).toBeVisible()

  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await page.keyboard.type('carry this note')
  await page.getByRole('option', { name: /Carry this note on another/ }).click()
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await page.keyboard.type('Beans')
  await page.getByRole('option', { name: /^Beans/ }).click()
  await expect(page.getByText('Beans in Garden carries this note too')).toBeVisible()
  await selectTopic(page, 'Beans')
  await expect(sheet.getByText('One text, also the note of')).toBeVisible()
  await expect(sheet.getByText('Sow them deep.')).toBeVisible()
  await sheet.getByText('Sow them deep.').click()
  await page.keyboard.press('End')
  await page.keyboard.type(' Both.')
  await selectTopic(page, 'Peas')
  await expect(sheet.getByText('Sow them deep. Both.')).toBeVisible()
  await selectTopic(page, 'Beans')
  await page.getByRole('button', { name: 'Let go: a copy of its own' }).click()
  await expect(sheet.getByText('One text, also the note of')).toBeHidden()
  await expect(sheet.getByText('Sow them deep. Both.')).toBeVisible()
})

test('a note is written in the whole window, and what is typed before a note has the keyboard is not lost', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n- Leeks')
  await selectTopic(page, 'Peas')
  // Without waiting for the sheet, nor for the editor, which both are still to come.
  await page.keyboard.press('Alt+n')
  await page.keyboard.type('Sow early.')
  const note = page.getByRole('textbox', { name: 'Note', exact: true })
  await expect(note).toContainText('Sow early.')
  await expect(topic(page, 'Peas')).toBeVisible()

  await page.keyboard.press('Alt+Shift+n')
  const whole = page.getByRole('dialog', { name: 'Note of Peas' })
  const wide = whole.getByRole('textbox', { name: 'Note', exact: true })
  await expect(wide).toBeFocused()
  await expect(wide).toContainText('Sow early.')
  await page.keyboard.type(' Cover them with a net.')
  await expect(whole.getByText('7 words')).toBeVisible()
  await expectNoBarriers(page, '[role=dialog]')
  // What lies over it closes first.
  await page.keyboard.press('Control+f')
  await expect(whole.getByRole('textbox', { name: 'Find in the note' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(whole.getByRole('textbox', { name: 'Find in the note' })).toBeHidden()
  await page.keyboard.press('Escape')
  await expect(whole).toBeHidden()
  await expect(note).toContainText('Sow early. Cover them with a net.')
  // The keyboard is where it was before.
  await expect(note).toBeFocused()
  // Who goes on with a list as if it were plain text gets a list all the same.
  await page.keyboard.press('Enter')
  await page.keyboard.type('- one\n- two')
  await expect(note.getByRole('listitem')).toHaveText(['one', 'two'])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('tree')).toBeFocused()
  await page.keyboard.press('Delete')
  await expect(topic(page, 'Peas')).toBeHidden()
})

test('two people who wrote into the same lines of a note see both versions side by side, and one keeps theirs', async ({
  page,
  browser,
}) => {
  await plantGarden(page, '- Peas\n- Leeks')
  const note = (on: Page) => on.getByRole('textbox', { name: 'Note', exact: true })
  const begin = async (on: Page) => {
    await selectTopic(on, 'Peas')
    await on.keyboard.press('Alt+n')
    await expect(note(on)).toBeFocused()
  }
  await begin(page)
  await page.keyboard.type('Sow in March.')
  await allSaved(page)
  // The same person in another browser, of whose line nothing comes or goes for a while.
  const context = await browser.newContext({ storageState: await page.context().storageState() })
  const other = await context.newPage()
  await other.goto(page.url())
  await begin(other)
  await expect(note(other)).toHaveText('Sow in March.')
  await context.setOffline(true)
  await other.keyboard.press('Control+a')
  await other.keyboard.type('Sow in April.')
  const sent = page.waitForResponse(
    (answer) => answer.url().endsWith('/changes') && answer.request().method() === 'POST',
  )
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Sow in May.')
  await sent
  await allSaved(page)
  await context.setOffline(false)
  await other.getByRole('button', { name: 'Side by side' }).click()
  const versions = other.getByRole('dialog', { name: 'Two versions of the note of Peas' })
  await expect(versions.getByRole('region', { name: 'What somebody else wrote' })).toContainText('Sow in May.')
  await expect(versions.getByRole('region', { name: 'What you wrote' })).toContainText('Sow in April.')
  await expectNoBarriers(other, '[role=dialog]')
  await expect(note(page)).toContainText('Sow in April.')
  await expect(note(page)).toContainText('Sow in May.')
  await versions.getByRole('button', { name: 'Keep only this' }).last().click()
  await expect(note(page)).toHaveText('Sow in April.')
  await context.close()
})

test('a note that is written without a pause is saved all the while, also where the window is closed at once', async ({
  page,
  context,
}) => {
  await plantGarden(page, '- Peas\n- Leeks')
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Alt+n')
  const note = (on: Page) => on.getByRole('textbox', { name: 'Note', exact: true })
  await expect(page.locator('.tiptap')).toBeFocused()
  const address = page.url()
  const writing = page.keyboard.type('Sow them in rows. '.repeat(12), { delay: 25 }).catch(() => {})
  await expect(note(page)).toContainText(/(Sow them in rows\. ?){6}/)
  await page.close()
  await writing
  const again = await context.newPage()
  await again.goto(address)
  await expect(topic(again, 'Peas, Note')).toBeVisible()
  await selectTopic(again, 'Peas, Note')
  await again.keyboard.press('Alt+n')
  await expect(note(again)).toContainText('Sow them in rows. Sow them in rows.')
})
