import {
  allSaved,
  choose,
  chooseFromMenu,
  expectNoOverlap,
  makeMap,
  middleOf,
  openSection,
  plantGarden,
  selectTopic,
  topic,
} from './person'
import { expect, type Page, test } from './watched'

const GARDEN =
  '- Spring\n  - Sow peas\n  - Prune\n- Summer\n  - Pick beans\n    - Dwarf\n  - Water\n- Autumn\n  - Leaves\n- Winter'

async function drag(page: Page, name: string, to: { x: number; y: number }): Promise<void> {
  const from = await middleOf(page, name)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(to.x, to.y, { steps: 8 })
}

test('a map is set in other ways, a branch in its own, and nothing overlaps', async ({ page }) => {
  await plantGarden(page, GARDEN)
  for (const layout of ['right', 'left', 'top down', 'bottom up', 'around the centre', 'indented', 'along time']) {
    await choose(page, 'Garden', 'Dress', new RegExp(`^The map (to the )?${layout}$`))
    await expect(page.getByRole('button', { name: new RegExp(`Undo: set the map .*${layout}`) })).toBeVisible()
    await page.keyboard.press('Alt+f')
    await expectNoOverlap(page)
  }
  await choose(page, 'Garden', 'Dress', 'The map to the right')
  await choose(page, 'Summer', 'Dress', 'This branch top down')
  await page.keyboard.press('Alt+f')
  await expectNoOverlap(page)
  const [summer, beans] = [await middleOf(page, 'Summer'), await middleOf(page, 'Pick beans')]
  expect(beans.y).toBeGreaterThan(summer.y + 10)
  await choose(page, 'Summer', 'Dress', 'As the branch around it')
  await expect.poll(async () => (await middleOf(page, 'Pick beans')).x).toBeGreaterThan(summer.x + 40)
})

test('topics are numbered from their order on map and outline, and a number can be fixed', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await choose(page, 'Garden', 'Dress', 'What is below: 1, 1a, 1a1')
  await expect(topic(page, '2a1 Dwarf')).toBeVisible()
  await choose(page, '2 Summer', 'Dress', 'Fix its number …')
  await page.getByRole('textbox', { name: 'Number that the topic keeps' }).fill('7')
  await page.keyboard.press('Enter')
  await expect(topic(page, '7a1 Dwarf')).toBeVisible()
  await expect(topic(page, '2 Autumn')).toBeVisible()
  await page.keyboard.press('Alt+2')
  await expect(page.getByRole('treeitem', { name: '7a1 Dwarf' })).toBeVisible()
})

test('dropped on the empty surface a branch stands alone, with Alt it keeps its place, and falls back into order', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  const stage = (await page.locator('[data-stage]').boundingBox())!
  const free = { x: stage.x + stage.width / 2 + 20, y: stage.y + stage.height - 90 }
  await drag(page, 'Autumn', free)
  await expect(page.getByText('stands alone here')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '2')

  await drag(page, 'Autumn', free)
  await page.mouse.up()
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '1')
  await expect(topic(page, 'Leaves')).toHaveAttribute('aria-level', '2')
  await drag(page, 'Autumn', await middleOf(page, 'Winter'))
  await expect(page.getByText('becomes a child of Winter, first')).toBeVisible()
  await page.mouse.up()
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '3')

  await page.keyboard.press('Alt+f')
  await page.keyboard.down('Alt')
  await drag(page, 'Water', free)
  await expect(page.getByText('keeps this place')).toBeVisible()
  await page.mouse.up()
  await page.keyboard.up('Alt')
  await expect(topic(page, 'Water')).toHaveAttribute('aria-level', '3')
  const kept = await middleOf(page, 'Water')
  expect(Math.abs(kept.x - free.x) + Math.abs(kept.y - free.y)).toBeLessThan(12)
  await expectNoOverlap(page)
  await choose(page, 'Water', 'Shape', 'Arrange it again')
  await expect.poll(async () => (await middleOf(page, 'Water')).y).toBeLessThan(free.y - 40)

  // Where every place is kept, a plain drag places, what is new moves nothing, and the arrows move a topic a little.
  await choose(page, 'Garden', 'Shape', 'Keep every place on the map')
  await drag(page, 'Water', free)
  await expect(page.getByText('keeps this place; with Alt it stands alone here')).toBeVisible()
  await page.mouse.up()
  await expect(topic(page, 'Water')).toHaveAttribute('aria-level', '3')
  await expect.poll(async () => Math.abs((await middleOf(page, 'Water')).y - free.y)).toBeLessThan(6)
  const others = ['Spring', 'Winter', 'Leaves', 'Prune']
  const stood = await Promise.all(others.map((name) => middleOf(page, name)))
  await selectTopic(page, 'Water')
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(async () => (await middleOf(page, 'Water')).y).toBeLessThan(free.y - 10)
  await page.keyboard.press('Tab')
  await page.keyboard.type('Twice a day')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Twice a day')).toBeVisible()
  expect(await Promise.all(others.map((name) => middleOf(page, name)))).toEqual(stood)
  await expectNoOverlap(page)
  await choose(page, 'Garden', 'Shape', 'Arrange everything on the map')
  await expect.poll(async () => Math.abs((await middleOf(page, 'Water')).y - free.y)).toBeGreaterThan(40)
})

test('a drag scrolls the view at its edges, and Esc gives it up', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Prune')
  const stage = (await page.locator('[data-stage]').boundingBox())!
  const root = async () => (await topic(page, 'Garden').boundingBox())!.y
  const before = await root()
  await drag(page, 'Prune', { x: stage.x + stage.width / 2, y: stage.y + stage.height - 4 })
  await expect.poll(root).toBeLessThan(before - 40)
  await expect(page.getByText('stands alone here')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByText('stands alone here')).toHaveCount(0)
  await page.mouse.up()
  await expect(topic(page, 'Prune')).toHaveAttribute('aria-level', '3')
  await expect(page.getByRole('button', { name: /^Undo: paste/ })).toBeVisible()
})

test('a level, a branch, and all that look alike are selected at once, and changed together', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await choose(page, 'Spring', 'Shape', 'All on its level')
  await expect(page.getByText('4 selected')).toBeVisible()
  // A press that is no part of a menu selects one again.
  await selectTopic(page, 'Winter')
  await choose(page, 'Sow peas', 'Enrich', 'It is to do')
  await choose(page, 'Leaves', 'Enrich', 'It is to do')
  await selectTopic(page, 'Sow peas, Task to do')
  await choose(page, 'Sow peas, Task to do', 'Shape', 'All that look like it')
  await expect(page.getByText('2 selected')).toBeVisible()
  await choose(page, 'Leaves, Task to do', 'Enrich', 'It is done')
  await expect(page.getByRole('treeitem', { name: /Task done/ })).toHaveCount(2)
})

test('branches are carried from pane to pane', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await allSaved(page)
  await page.getByRole('link', { name: 'All maps' }).click()
  await makeMap(page, 'Allotment')
  await allSaved(page)
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('combobox').fill('Garden')
  await page
    .getByRole('option', { name: /Garden/ })
    .first()
    .click()
  await expect(topic(page, 'Summer')).toBeVisible()
  await drag(page, 'Summer', await middleOf(page, 'Allotment'))
  await expect(page.getByText(/becomes a child of Allotment, first/)).toBeVisible()
  await page.mouse.up()
  const first = page.locator('[data-stage="0"]')
  await expect(first.getByRole('treeitem', { name: 'Pick beans' })).toBeVisible()
  await expect(page.locator('[data-stage="1"]').getByRole('treeitem', { name: 'Pick beans' })).toHaveCount(0)
})

test('several topics are selected by a band, enclosed, joined and copied', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await choose(page, 'Garden', 'Dress', 'The map to the right')
  await page.keyboard.press('Alt+f')
  const peas = (await topic(page, 'Sow peas').boundingBox())!
  const prune = (await topic(page, 'Prune').boundingBox())!
  await page.keyboard.down('Shift')
  await page.mouse.move(peas.x + peas.width + 60, peas.y - 6)
  await page.mouse.down()
  await page.mouse.move(peas.x + 30, prune.y + prune.height + 2, { steps: 6 })
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await expect(page.getByText('2 selected')).toBeVisible()
  await choose(page, 'Prune', 'Dress', 'Enclose …')
  await page.getByRole('textbox', { name: 'Title, if it should have one' }).fill('Before April')
  await page.keyboard.press('Enter')
  const frame = page.locator('[data-enclosure]')
  await expect(frame).toContainText('Before April')
  await expectNoOverlap(page)
  await frame.getByText('Before April').click()
  await page.getByRole('textbox', { name: 'Title' }).fill('Before May')
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(frame).toContainText('Before May')

  await selectTopic(page, 'Winter')
  await page.keyboard.press('Control+d')
  await expect(topic(page, 'Winter')).toHaveCount(2)
  await topic(page, 'Winter').first().click()
  await topic(page, 'Winter')
    .nth(1)
    .click({ modifiers: ['Control'] })
  await topic(page, 'Winter').first().click({ button: 'right' })
  await chooseFromMenu(page, 'Shape', 'Join 2 topics into one')
  await expect(page.getByRole('treeitem', { name: /Winter\s+Winter/ })).toBeVisible()
})

test('an enclosure has a look of its own, and topics lead to it from either end', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await choose(page, 'Spring', 'Dress', 'Enclose …')
  await page.getByRole('textbox', { name: 'Title, if it should have one' }).fill('First half')
  await page.keyboard.press('Enter')
  const frame = page.locator('[data-enclosure] .enclosure-frame')
  const open = () => page.getByRole('tree').getByText('First half').click()
  await open()
  const dialog = page.getByRole('dialog', { name: 'Enclosure' })
  await expect(dialog.getByRole('textbox', { name: 'Fill' })).toBeVisible()
  await expect(dialog.getByRole('button', { name: /^\s*$/ })).toHaveCount(0)
  // What is half written stays, should the dialog be left.
  await dialog.getByRole('textbox', { name: 'Note' }).fill('What is sown before June.')
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  await open()
  await expect(dialog.getByRole('textbox', { name: 'Note' })).toHaveValue('What is sown before June.')
  await dialog.getByLabel('Line').selectOption('dashed')
  await dialog.getByLabel('Corners').selectOption('drawn by hand')
  await dialog.getByRole('textbox', { name: 'Fill' }).fill('#335577')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(frame).toHaveAttribute('fill', '#335577')
  await expect(frame).toHaveClass(/frame-dashed/)

  await selectTopic(page, 'Prune')
  await page.keyboard.press('Alt+l')
  await page.getByRole('combobox').fill('first')
  await page.getByRole('option', { name: 'First half' }).click()
  await expect(page.locator('[data-crosslink] .crosslink-line')).toHaveCount(1)
  await openSection(page, /^Links/)
  const sheet = page.getByRole('complementary', { name: 'Topic sheet' })
  await expect(sheet.getByRole('button', { name: 'Enclosure First half' })).toBeVisible()
  await open()
  await dialog.getByRole('button', { name: 'Link a topic with it …' }).click()
  await page.getByRole('combobox').fill('pick')
  await page.getByRole('option', { name: 'Pick beans' }).click()
  await expect(page.locator('[data-crosslink] .crosslink-line')).toHaveCount(2)
  await open()
  await dialog.getByRole('button', { name: 'Pick beans' }).click()
  await expect(topic(page, 'Pick beans')).toHaveAttribute('aria-selected', 'true')
  await allSaved(page)
})

test('branches are copied with what belongs to them, and cut ones move, within a map and to another', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Pick beans')
  await page.keyboard.press('Alt+n')
  await page.getByRole('textbox', { name: 'Note' }).pressSequentially('In August.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Pick beans, Note')).toBeVisible()
  // A copy has the note too; other editors get a clean list.
  await topic(page, 'Pick beans, Note').click()
  await page.keyboard.press('Control+c')
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('- Pick beans\n  - Dwarf')
  await selectTopic(page, 'Autumn')
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Pick beans, Note')).toHaveCount(2)
  await expect(page.getByRole('button', { name: 'Undo: copy Pick beans' })).toBeVisible()
  await page.keyboard.press('Control+z')
  // What is cut stays until it is pasted, and then is the same topic.
  await topic(page, 'Pick beans, Note').click()
  const id = await topic(page, 'Pick beans, Note').getAttribute('data-topic')
  await page.keyboard.press('Control+x')
  await expect(page.getByText('Pick beans will move to where you paste.')).toBeVisible()
  await expect(topic(page, 'Pick beans, Note')).toBeVisible()
  await selectTopic(page, 'Winter')
  await page.keyboard.press('Control+v')
  await expect(page.getByRole('button', { name: 'Undo: move Pick beans' })).toBeVisible()
  await expect(topic(page, 'Pick beans, Note')).toHaveAttribute('data-topic', id!)
  await expect(topic(page, 'Pick beans, Note')).toHaveCount(1)
  // By the menu, onto a map in the other pane.
  await choose(page, 'Spring', null, 'Split off into a child map')
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('combobox').fill('spring')
  await page.getByRole('option', { name: 'Spring' }).first().click()
  await choose(page, 'Pick beans, Note', 'Gather', 'Cut')
  const second = page.locator('[data-stage="1"]')
  await second.getByRole('treeitem', { name: 'Spring' }).click({ button: 'right' })
  await chooseFromMenu(page, 'Gather', 'Paste here what was cut')
  await expect(second.getByRole('treeitem', { name: 'Pick beans, Note' })).toBeVisible()
  await expect(page.locator('[data-stage="0"]').getByRole('treeitem', { name: 'Pick beans' })).toHaveCount(0)
  await allSaved(page)
})

test('one branch alone, folding to a level, and a filter by words', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Alt+o')
  await expect(topic(page, 'Spring')).toHaveCount(0)
  await expect(topic(page, 'Dwarf')).toBeVisible()
  await selectTopic(page, 'Pick beans')
  await page.keyboard.press('Alt+o')
  await expect(topic(page, 'Water')).toHaveCount(0)
  const trail = page.getByRole('navigation', { name: 'Only this branch is shown' })
  await expect(trail).toContainText('Pick beans')
  await trail.getByRole('button', { name: 'Summer' }).click()
  await expect(topic(page, 'Water')).toBeVisible()
  await trail.getByRole('button', { name: 'The whole map' }).click()
  await expect(topic(page, 'Spring')).toBeVisible()
  await choose(page, 'Garden', 'Shape', 'The map to level 1')
  await expect(topic(page, 'Pick beans')).toHaveCount(0)
  await choose(page, 'Garden', 'Shape', 'Unfold everything')
  await expect(topic(page, 'Dwarf')).toBeVisible()
  await selectTopic(page, 'Garden')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('layout indented')
  await expect(page.getByRole('option', { name: /The map indented/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Undo: set the map indented' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.getByRole('button', { name: 'Filter' }).click()
  await page.getByRole('textbox', { name: 'Topics with these words' }).fill('bean')
  await expect(page.getByRole('button', { name: 'Filter: 1 of them' })).toBeVisible()
  await expect(topic(page, 'Spring')).toHaveAttribute('data-faded', 'true')
  await expect(topic(page, 'Pick beans')).not.toHaveAttribute('data-faded')
  await page.getByRole('button', { name: 'Show all alike' }).click()
  await expect(topic(page, 'Spring')).not.toHaveAttribute('data-faded')
})

test('dates set in the topic sheet give the scale of a map along time', async ({ page }) => {
  await plantGarden(page, GARDEN)
  for (const [name, day] of [
    ['Spring', '2026-03-20'],
    ['Summer', '2026-06-21'],
    ['Autumn', '2026-09-22'],
  ] as const) {
    await selectTopic(page, name)
    if (name === 'Spring') await openSection(page, /^Dates/)
    await page.getByRole('textbox', { name: 'On', exact: true }).fill(day)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('button', { name: `Undo: date ${name}` })).toBeVisible()
  }
  await choose(page, 'Garden', 'Dress', 'The map along time')
  await page.keyboard.press('Alt+f')
  await expectNoOverlap(page)
  const xs = await Promise.all(
    ['Spring', 'Summer', 'Autumn', 'Winter'].map(async (name) => (await topic(page, name).boundingBox())!.x),
  )
  expect([...xs].sort((a, b) => a - b)).toEqual(xs)
  await expect(topic(page, 'Spring, dated March 20, 2026')).toBeVisible()
  await expect(page.locator('.axis-date').first()).toHaveText('Mar 20, 2026')
})
