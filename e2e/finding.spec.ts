import { expect, test } from '@playwright/test'
import { allSaved, beginOnMap, expectNoOverlap, topic, write } from './person'

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

  // Zoom tells its figure.
  await page.getByRole('button', { name: 'Larger' }).click()
  await page.getByRole('button', { name: /^Shown at/ }).click()
  await page.getByRole('menuitem', { name: '100 %' }).click()
  await expect(page.getByRole('button', { name: 'Shown at 100 %: choose what to see' })).toBeVisible()
  await allSaved(page)
})

test('on a telephone a map is read, added to and folded, and columns come one at a time', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 760 })
  await beginOnMap(page)
  await write(page, 'Allotment')
  await page.keyboard.press('Tab')
  await write(page, 'Beds')
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
})
