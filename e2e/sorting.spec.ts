import { allSaved, drag, expectNoBarriers, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

const IDEAS = [
  'Block the south ditch with peat dams',
  'Repair the timber dam at the weir',
  'Read the dipwells every second week',
  'Train volunteers to read dipwells',
  'A dam of boards at the north ditch',
  'Invite the village school in May',
]

test('ideas wait in a drawer, are dragged onto the map, taken off it again, and carried to another map', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n  - Peas\n- Summer')
  await page.getByRole('button', { name: 'To place', exact: true }).click()
  const drawer = page.getByRole('region', { name: 'To place' })
  await drawer.getByLabel('An idea to be placed').fill('Bees')
  await page.keyboard.press('Enter')
  await drawer.getByLabel('An idea to be placed').fill('A hedge')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'To place 2' })).toBeVisible()
  await expect(topic(page, 'Bees')).toHaveCount(0)
  await expectNoBarriers(page)

  await drag(page, drawer.getByRole('button', { name: 'Bees' }), topic(page, 'Spring'))
  await expect(topic(page, 'Bees')).toBeVisible()
  await expect(page.getByRole('button', { name: 'To place 1' })).toBeVisible()
  // Without a mouse: chosen, and hung on what is selected.
  await selectTopic(page, 'Summer')
  await drawer.getByRole('button', { name: 'A hedge' }).press('Enter')
  await drawer.getByRole('button', { name: 'Hang it on Summer' }).press('Enter')
  await expect(topic(page, 'A hedge')).toBeVisible()

  await drag(page, topic(page, 'Peas'), drawer)
  await expect(topic(page, 'Peas')).toHaveCount(0)
  await expect(drawer.getByRole('button', { name: 'Peas' })).toBeVisible()
  await page.getByRole('button', { name: /^Undo: put Peas away/ }).click()
  await expect(topic(page, 'Peas')).toBeVisible()

  // Onto another map by the surroundings; it says where it went.
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+d')
  await expect(page.getByText(/^Split off: Spring/)).toBeVisible()
  await allSaved(page)
  const beyond = page.getByRole('navigation', { name: 'Surroundings' }).getByRole('button', { name: /^Spring/ })
  await drag(page, topic(page, 'A hedge'), beyond)
  await page.getByText(/^Moved 1 branch to Spring\./).waitFor()
  await expect(topic(page, 'A hedge')).toHaveCount(0)
  await page.getByRole('button', { name: 'Go there' }).click()
  await expect(topic(page, 'A hedge')).toBeVisible()
})

test('what was poured out is sorted into bands by mouse, by keys and by what is suggested, and becomes a map', async ({
  page,
}) => {
  await plantGarden(page, '- Spring')
  await page.keyboard.press('Alt+i')
  const drawer = page.getByRole('region', { name: 'To place' })
  await drawer.getByLabel('An idea to be placed').focus()
  await page.evaluate((text) => {
    const data = new DataTransfer()
    data.setData('text/plain', text)
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, IDEAS.join('\n'))
  await drawer.getByRole('button', { name: 'Sort …' }).click()
  const table = page.getByRole('dialog', { name: 'Sorting table' })
  await expect(table.getByText('6 left')).toBeVisible()

  const suggestion = table.getByRole('status', { name: 'What could belong together' })
  await expect(suggestion).toContainText(/2 items speak of .*dipwells/)
  await expectNoBarriers(page, '[role="dialog"]')
  await suggestion.getByRole('button', { name: 'Yes' }).click()
  await expect(table.getByText('4 left')).toBeVisible()
  const title = table.getByRole('textbox', { name: 'Title of band 1' })
  await title.fill('Dipwells')
  await title.press('Enter')

  await table.getByRole('button', { name: 'Invite the village school in May' }).click()
  await page.keyboard.press('0')
  await expect(table.getByRole('textbox', { name: 'Title of band 2' })).toBeFocused()
  await page.keyboard.type('Schools')
  await page.keyboard.press('Enter')
  // Letters find an item, the digit sends it, and the keyboard goes on with the next one.
  await table.getByRole('button', { name: 'Block the south ditch with peat dams' }).focus()
  await page.keyboard.type('timber')
  await expect(table.getByRole('button', { name: 'Repair the timber dam at the weir' })).toBeFocused()
  await page.keyboard.press('2')
  await expect(page.getByRole('log', { name: 'What happened' })).toContainText('In the band Schools')
  await expect(table.getByRole('region', { name: 'Band Schools' })).toContainText('Repair the timber dam')
  await page.keyboard.press('Control+z')
  await expect(table.getByText('3 left')).toBeVisible()
  // By mouse, all that are chosen at once.
  await table.getByRole('button', { name: 'Block the south ditch with peat dams' }).click()
  for (const name of ['Repair the timber dam at the weir', 'A dam of boards at the north ditch'])
    await table.getByRole('button', { name }).click({ modifiers: ['Control'] })
  await drag(
    page,
    table.getByRole('button', { name: 'A dam of boards' }),
    table.getByRole('button', { name: /New band/ }),
  )
  await page.keyboard.type('Dams')
  await page.keyboard.press('Enter')
  await expect(table.getByText('All is sorted')).toBeVisible()
  // What a search finds comes onto the table; what is typed to look for it sorts nothing.
  await table.getByRole('button', { name: 'From a search …' }).click()
  const search = page.getByRole('dialog', { name: 'Bring in what a search finds' })
  await search.getByRole('textbox', { name: 'Words to look for' }).fill('spri')
  await expect(search.getByRole('checkbox', { name: 'Spring' })).toBeChecked()
  await expectNoBarriers(page, '[role="dialog"]')
  await search.getByRole('button', { name: 'Copy 1 here' }).click()
  await expect(
    table.getByRole('region', { name: 'Not sorted yet' }).getByRole('button', { name: 'Spring' }),
  ).toBeVisible()
  await table.getByRole('button', { name: 'Undo' }).click()
  await expect(table.getByText('All is sorted')).toBeVisible()
  await table.getByRole('button', { name: 'What can be done with Dipwells' }).click()
  await page.getByRole('menuitem', { name: 'Dams' }).first().click()

  await table.getByText('a map', { exact: true }).click()
  await table.getByRole('textbox', { name: 'Name of the map' }).fill('Water')
  await table.getByRole('button', { name: 'Make the map' }).click()
  await page.getByRole('button', { name: 'Open', exact: true }).click()
  for (const name of ['Water', 'Schools', 'Dams', 'Dipwells']) await expect(topic(page, name)).toBeVisible()
  await allSaved(page)
  await page.getByRole('button', { name: /^Undo: make the map Water/ }).click()
  await expect(page.getByText('This map lies in the trash.')).toBeVisible()
  await page.getByRole('button', { name: 'To Garden' }).click()
  await expect(page.getByRole('button', { name: 'To place 2' })).toBeVisible()
})

test('maps lie in folders, put there by hand or by a menu, and the table is sorted', async ({ page }) => {
  await plantGarden(page, '- Spring\n  - Peas\n- Summer\n  - Beans\n  - Leeks')
  for (const name of ['Spring', 'Summer']) {
    await selectTopic(page, name)
    await page.keyboard.press('Alt+d')
  }
  await allSaved(page)
  await page.goto(`/c/${new URL(page.url()).pathname.split('/')[2]}`)
  await page.getByText('table', { exact: true }).click()
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) })
  await page.getByRole('button', { name: 'Spring: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Put into a folder …' }).click()
  await page.getByLabel('Or a new folder').fill('Seasons')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('row', { name: /Seasons.*1 map/ })).toBeVisible()
  await drag(page, row('Summer').locator('[data-grip]'), page.getByRole('row', { name: /Seasons/ }))
  await expect(page.getByRole('row', { name: /Seasons.*2 maps/ })).toBeVisible()
  await expectNoBarriers(page)
  // A folder is dragged into another one, with what is in it.
  await page.getByRole('button', { name: 'Garden: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Put into a folder …' }).click()
  await page.getByLabel('Or a new folder').fill('Years')
  await page.keyboard.press('Enter')
  const years = page.getByRole('row', { name: /Years/ })
  await expect(years).toBeVisible()
  await drag(page, page.getByRole('row', { name: /Seasons/ }).locator('[data-grip]'), years)
  await page.getByRole('button', { name: 'Close the folder Years' }).click()
  await expect(page.getByRole('row', { name: /Seasons/ })).toBeHidden()
  await page.getByRole('button', { name: 'Open the folder Years' }).click()
  await page.getByRole('button', { name: 'Close the folder Seasons' }).click()
  await expect(row('Spring')).toHaveCount(0)
  await page.reload()
  await expect(row('Spring')).toBeVisible()
  await page.getByRole('button', { name: 'Topics' }).click()
  await expect(page.getByRole('row').nth(3)).toContainText('Summer')
  await page.getByRole('button', { name: 'Folder Seasons: what can be done' }).click()
  await page.getByRole('menuitem', { name: /^Remove the folder/ }).click()
  await expect(page.getByRole('row', { name: /Seasons/ })).toHaveCount(0)
  await expect(row('Spring')).toBeVisible()
  // What leads to a map is told before it goes.
  await page.getByRole('button', { name: 'Spring: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Put it into the trash' }).click()
  const asked = page.getByRole('dialog', { name: 'Put Spring into the trash?' })
  await expect(asked.getByText(/^1 map has a doorway there/)).toBeVisible()
  await asked.getByRole('button', { name: 'Put into the trash' }).click()
  await page.getByRole('button', { name: 'Take Spring back' }).click()
  await expect(row('Spring')).toBeVisible() // What is removed for good is not in the trash either, and the doorway to it is none any more.
  await page.getByRole('button', { name: 'Spring: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Put it into the trash' }).click()
  await asked.getByRole('button', { name: 'Put into the trash' }).click()
  await page.getByRole('button', { name: 'Remove Spring for good' }).click()
  await expect(page.getByText(/This cannot be undone/)).toBeVisible()
  await page.getByRole('button', { name: 'Remove for good', exact: true }).click()
  await expect(page.getByRole('region', { name: 'Trash' })).toBeHidden()
  await expect(row('Spring')).toHaveCount(0)
})
