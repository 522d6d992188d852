import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { allSaved, plantGarden, selectTopic, topic } from './person'

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
  await page.keyboard.type('first.')
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
  await page.getByRole('button', { name: 'Alter the table' }).click()
  await page.getByRole('menuitem', { name: 'Remove this column' }).click()
  await expect(note.getByRole('columnheader')).toHaveCount(2)
  await page.keyboard.press('Control+Home')
  await note.evaluate((element, data) => {
    const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0))
    const carried = new DataTransfer()
    carried.items.add(new File([bytes], 'seedling.png', { type: 'image/png' }))
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: carried, bubbles: true, cancelable: true }))
  }, PIXEL)
  await expect(note.getByRole('img', { name: 'seedling.png' })).toBeVisible()
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])
  await page.keyboard.press('Escape')
  await allSaved(page)

  // It is CommonMark, and reads the same on the page.
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const map = new URL(page.url()).pathname.split('/')[4]!
  const held = await (await page.request.get(`/api/collections/${collection}/maps/${map}`)).json()
  const compost = await topic(page, 'Compost heap').getAttribute('data-topic')
  expect(held.records.note[0].text).toContain(`[Compost heap](folvet:topic/${compost})`)
  expect(held.records.note[0].text).toMatch(/!\[seedling\.png\]\(folvet:file\/[0-9a-f-]{36}\)/)
  expect(held.records.note[0].text).toContain('| Bed |')
  await page.keyboard.press('Alt+3')
  await expect(page.getByRole('img', { name: 'seedling.png' }).first()).toBeVisible()
  await page.keyboard.press('Alt+1')
  await selectTopic(page, 'Peas')
  await note.getByText('Compost heap').click()
  await page.getByRole('button', { name: 'Go to Compost heap' }).click()
  await expect(topic(page, 'Compost heap')).toHaveAttribute('aria-selected', 'true')
})
