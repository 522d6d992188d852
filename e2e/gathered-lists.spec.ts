import {
  allSaved,
  expectNoBarriers,
  expectNoBarriersInBoth,
  makeMap,
  openSection,
  openSheet,
  plantGarden,
  selectTopic,
  topic,
} from './person'
import { expect, test } from './watched'

test('a search is narrowed and kept, gathers a list on another map, and what is ticked there is done in its own place', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n  - Sow peas\n  - Pick peas\n- Shed\n  - Mend the roof')
  for (const name of ['Sow peas', 'Mend the roof']) {
    await selectTopic(page, name)
    await openSection(page, /^Dates/)
    await page.getByText('to do', { exact: true }).click()
    await expect(topic(page, name)).toHaveAccessibleName(/Task to do/)
  }
  await allSaved(page)
  const [, collection] = /\/c\/([^/]+)/.exec(page.url())!

  await page.goto(`/c/${collection}/search`)
  await page.getByRole('combobox', { name: 'With which task' }).click()
  await page.getByRole('option', { name: 'Still to do' }).click()
  await expect(page.getByRole('main').getByText('Mend the roof')).toBeVisible()
  await page.getByRole('textbox', { name: 'Words to search for' }).fill('pea')
  await expect(page.getByRole('main').getByText('Mend the roof')).toBeHidden()
  await expect(page.getByText('Sow peas')).toBeVisible()
  await page.getByRole('textbox', { name: 'Words to search for' }).fill('')
  await expect(page.getByRole('main').getByText('Mend the roof')).toBeVisible()
  await page.getByRole('button', { name: 'Keep this search …' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('What is left')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.goto(`/c/${collection}/search`)
  await expect(page.getByRole('button', { name: 'What is left still to do' })).toBeVisible()
  await expectNoBarriers(page)

  await page.goto(`/c/${collection}`)
  await makeMap(page, 'Board')
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await page.keyboard.type('gather a list')
  await page.getByRole('option', { name: /Gather a list below it/ }).click()
  await page.getByRole('combobox', { name: 'As a kept search does' }).click()
  await page.getByRole('option', { name: 'What is left' }).click()
  await expect(page.getByText('Now: 2 topics')).toBeVisible()
  await expectNoBarriersInBoth(page)
  await page.getByRole('dialog').getByRole('button', { name: 'Gather', exact: true }).click()
  await expect(topic(page, 'Mend the roof')).toBeVisible()
  await page.keyboard.press('Alt+f')

  // What is gathered is the topic itself: seen, and done, from here.
  await selectTopic(page, 'Mend the roof')
  await openSheet(page)
  await expect(page.getByText('Stands in Garden')).toBeVisible()
  await openSection(page, /^Dates/)
  await page.getByText('done', { exact: true }).click()
  await expect(topic(page, 'Mend the roof')).toBeHidden()
  await expect(topic(page, 'Sow peas')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Undo: / }).click()
  await expect(topic(page, 'Mend the roof')).toBeVisible()
  await selectTopic(page, 'Mend the roof')
  await page.getByRole('button', { name: 'Garden', exact: true }).click()
  await expect(topic(page, 'Shed')).toBeVisible()
  await expect(topic(page, 'Mend the roof')).toHaveAttribute('aria-selected', 'true')
})
