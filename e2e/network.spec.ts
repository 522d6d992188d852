import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { allSaved, topic } from './person'

test('a map that is hard to read says so, shows what could be split off, and is as before after one undo', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Look at the demo: the Vennmoor handbook' }).click()
  await page.getByRole('link', { name: 'Vennmoor handbook', exact: true }).click()
  await page.getByRole('link', { name: 'Water and ditch blocking', exact: true }).first().click()
  await expect(page.getByText('It is hard to read as one map')).toBeVisible()
  await page.getByRole('button', { name: '111 topics, crowded: review' }).click()

  const review = page.getByRole('dialog', { name: 'Split review' })
  const figures = review.getByRole('status')
  await expect(review.getByRole('heading', { level: 1 })).toContainText('Dams and weirs causes 39 % of it')
  await expect(figures).toContainText('largest map 111 → 42 topics')
  await expect(figures).toContainText('maps 1 → 6')
  expect((await new AxeBuilder({ page }).include('[role="dialog"]').analyze()).violations).toEqual([])

  // Left, cut elsewhere, named, and proposed by its name; the figures follow.
  await review.getByRole('checkbox', { name: 'Split off Machines and ground' }).uncheck()
  await expect(figures).toContainText('maps 1 → 5')
  await review.getByRole('button', { name: 'Cut Ditches one level lower' }).click()
  await expect(review.getByRole('checkbox', { name: 'Split off Main drains' })).toBeChecked()
  await review.getByRole('button', { name: 'Cut Main drains one level higher' }).click()
  await review.getByRole('checkbox', { name: 'Split off Grips' }).uncheck()
  await review.getByRole('checkbox', { name: 'Split off Ditches we leave open' }).uncheck()
  await review.getByRole('textbox', { name: 'Name of map 2' }).fill('All ditches')
  await review.getByRole('combobox', { name: 'Propose another branch' }).click()
  await page.keyboard.type('Fire')
  await page.getByRole('option', { name: 'Fire and drought' }).click()
  await expect(figures).toContainText('maps 1 → 6')
  await review.getByRole('button', { name: 'Links of Dams and weirs' }).click()
  await expect(review.getByText('Weir at ditch 7 → Ditch 7, north dome')).toBeVisible()
  const left = await review
    .getByText(/^\d+ topics, text \d+ px/)
    .first()
    .textContent()

  await review.getByRole('button', { name: 'Split off 5 branches' }).click()
  await expect(review).toBeHidden()
  await expect(page.getByRole('contentinfo').getByText(`${left!.split(' ')[0]} topics`)).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'Surroundings' }).getByText('All ditches')).toBeVisible()
  await allSaved(page)
  await page.getByRole('button', { name: /^Undo: split off 5 branches/ }).click()
  await expect(page.getByRole('contentinfo').getByText('111 topics, crowded: review')).toBeVisible()
  await expect(topic(page, 'Dams and weirs')).toBeVisible()
  // Said once, it is not offered in words again.
  await expect(page.getByText('It is hard to read as one map')).toBeHidden()
})
