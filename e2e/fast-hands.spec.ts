import { allSaved, choose, openSection, openSheet, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

const GARDEN = '- Spring\n  - Sow peas\n  - Sow leek\n- Summer\n  - Water'

test('a field keeps what is half written, and takes it whole or says why not: days, times, colours, numbers', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Sow peas')
  await openSection(page, /^Dates and task/)
  const sheet = page.getByRole('complementary', { name: 'Topic sheet' })
  const on = sheet.getByRole('textbox', { name: 'On', exact: true })
  // Digit by digit, as on a pad of numbers: nothing is stored on the way, and all of it at the end.
  await on.click()
  await page.keyboard.type('03152027')
  await expect(on).toHaveValue('03152027')
  await expect(page.getByRole('button', { name: /^Undo: date/ })).toHaveCount(0)
  await page.keyboard.press('Enter')
  await expect(on).toHaveValue('Mar 15, 2027')
  await expect(page.getByRole('button', { name: 'Undo: date Sow peas' })).toBeVisible()
  // Over a day that is there, in words; what says no day stays, with the reason, and the day stays too.
  await on.fill('some day')
  await page.keyboard.press('Tab')
  await expect(sheet.getByText(/^No day is known by that/)).toBeVisible()
  await expect(on).toHaveValue('some day')
  await on.fill('15 Apr 2027')
  await page.keyboard.press('Enter')
  const begins = sheet.getByRole('textbox', { name: 'Time of day at which it begins' })
  await begins.fill('7:30')
  await page.keyboard.press('Enter')
  await expect(begins).toHaveValue('07:30')
  await begins.click()
  await begins.selectText()
  await page.keyboard.type('0745')
  await page.keyboard.press('Tab')
  await expect(begins).toHaveValue('07:45')
  // A day can be picked as well.
  await sheet
    .getByRole('button', { name: 'Choose from a month: On' })
    .or(sheet.getByRole('button', { name: 'Choose from a month: From' }))
    .click()
  await page.getByRole('button', { name: 'Apr 22, 2027' }).click()
  await expect(on).toHaveValue('Apr 22, 2027')

  await openSection(page, /^Look/)
  await sheet.getByText('Topic', { exact: true }).click()
  const fill = sheet.getByRole('textbox', { name: 'Fill', exact: true })
  await fill.click()
  await page.keyboard.type('#ffd166')
  await expect(fill).toHaveValue('#ffd166')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Undo: change the look of Sow peas/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await fill.fill('sunny')
  await page.keyboard.press('Tab')
  await expect(sheet.getByText('Write it as #ffd166.')).toBeVisible()
  await expect(fill).toHaveValue('sunny')
  await fill.fill('#ffd166')
  await page.keyboard.press('Enter')
  const size = sheet.getByRole('textbox', { name: 'Size in px' })
  await size.click()
  await size.selectText()
  await page.keyboard.type('24')
  await page.keyboard.press('Enter')
  await expect(size).toHaveValue('24 px')
  await allSaved(page)
})

test('what was made here a moment ago is shown at once, and linked with what stands elsewhere', async ({ page }) => {
  await plantGarden(page, GARDEN)
  // An empty child map opens from what this window made, and is written in at once.
  for (const name of ['Sow peas', 'Sow leek', 'Water']) {
    await selectTopic(page, name)
    await page.getByRole('button', { name: 'Network', exact: true }).click()
    await page.getByRole('menuitem', { name: 'Make an empty child map' }).click()
    await page.keyboard.type('early')
    await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toHaveValue(`${name} early`)
    await page.keyboard.press('Escape')
    await page.goBack()
    await expect(topic(page, 'Spring')).toBeVisible()
  }
  await allSaved(page)

  // An enclosure here is linked from a topic on another map, while that map is not open.
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Alt+f')
  await choose(page, 'Summer', 'Dress', 'Enclose …')
  await page.keyboard.type('Warm months')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Undo: enclose/ })).toBeVisible()
  await allSaved(page)
  await selectTopic(page, 'Water')
  await page.keyboard.press('Control+Enter')
  await expect(page).toHaveTitle(/^Water/)
  await page.reload()
  await expect(page).toHaveTitle(/^Water/)
  await selectTopic(page, 'Water')
  await page.keyboard.press('Alt+l')
  await page.keyboard.type('Warm months')
  await page.getByRole('option', { name: /Warm months in Garden/ }).click()
  await expect(topic(page, 'Water, 1 cross-link')).toBeVisible()
})

test('undo takes the last step on what this window shows; what lies elsewhere is told with its map', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+d')
  await expect(topic(page, 'Spring, opens a map with 3 topics')).toBeVisible()
  await selectTopic(page, 'Summer')
  await page.keyboard.press('F2')
  await page.keyboard.press('End')
  await page.keyboard.type(' months')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Control+Enter')
  await expect(page).toHaveTitle('Spring · Folvet')
  await selectTopic(page, 'Sow peas')
  await page.keyboard.press('Alt+t')
  await page.keyboard.type('early')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Undo: tag with early/ })).toBeVisible()
  await page.keyboard.press('Control+z')
  // The rewording on the other map came later than the split, but nobody looks there.
  await expect(page.getByRole('button', { name: /^Undo: split off Spring/ })).toBeVisible()
  await page.getByRole('button', { name: 'Steps to undo' }).click()
  await page.getByRole('menuitem', { name: /Reword.* on Garden|Rename.* on Garden|Summer.* on Garden/ }).click()
  await expect(page).toHaveTitle('Garden · Folvet')
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'Summer')).toBeVisible()
})

test('thirty files of one gesture are one step, and the empty surface, a connector and a frame have a menu', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Water')
  await openSection(page, /^Files/)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles(
    Array.from({ length: 30 }, (_, i) => ({
      name: `reading-${i}.txt`,
      mimeType: 'text/plain',
      buffer: Buffer.from(`${i}`),
    })),
  )
  await expect(topic(page, 'Water, 30 files')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Undo: attach 30 files to Water' }).click()
  await expect(topic(page, 'Water')).toHaveAccessibleName('Water')

  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  const stage = (await page.locator('[data-stage]').boundingBox())!
  await page.mouse.click(stage.x + 40, stage.y + stage.height - 60, { button: 'right' })
  await page.getByRole('menuitem', { name: 'A new topic here' }).click()
  await page.keyboard.type('On its own')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'On its own')).toBeVisible()
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Control+b')
  await expect(page.getByRole('button', { name: 'Undo: change the look of Summer' })).toBeVisible()
})

test('the keyboard is never nowhere: after a menu, a comment, an answer and a settled thread', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  const somewhere = () =>
    expect.poll(() => page.evaluate(() => document.activeElement?.tagName), { timeout: 4_000 }).not.toBe('BODY')
  for (let again = 0; again < 2; again++) {
    await page.keyboard.press('Shift+F10')
    await expect(page.getByRole('menuitem', { name: /^Edit the text/ })).toBeVisible()
    await page.keyboard.press('Escape')
    await expect(page.getByRole('menuitem', { name: /^Edit the text/ })).toHaveCount(0)
    await expect(page.getByRole('tree')).toBeFocused()
  }
  await page.keyboard.press('Alt+m')
  await page.keyboard.type('Is this right?')
  await page.getByRole('button', { name: 'Comment', exact: true }).press('Enter')
  await expect(topic(page, 'Spring, 1 open comment')).toBeVisible()
  await somewhere()
  await page.getByRole('button', { name: 'Answer' }).press('Enter')
  await page.keyboard.type('It is.')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('It is.')).toBeVisible()
  await somewhere()
  await page.getByRole('button', { name: 'Mark as settled' }).press('Enter')
  await expect(page.getByRole('button', { name: 'Mark as settled' })).toHaveCount(0)
  await somewhere()
  // Round the parts of the window, and what happened is read out.
  await selectTopic(page, 'Summer')
  await page.keyboard.press('F6')
  await expect(page.getByRole('button', { name: 'Gather', exact: true })).toBeFocused()
  await page.keyboard.press('Shift+F6')
  await expect(page.getByRole('tree')).toBeFocused()
  await page.keyboard.press('Home')
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('End')
  await expect(topic(page, 'Water')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Control+a')
  await expect(page.getByRole('log', { name: 'What happened' })).toHaveText('6 topics selected')
})

test('personal settings hold at once, on every screen and after a reload, and a key is one’s own', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await page.getByRole('button', { name: 'Guest' }).click()
  await page.getByRole('menuitem', { name: 'Personal settings' }).click()
  const dialog = page.getByRole('dialog', { name: 'Personal settings' })
  await dialog.getByText('Dark', { exact: true }).click()
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark')
  await dialog.getByText('takes their place').click()
  await dialog.getByRole('switch', { name: 'Plus signs at the selected topic' }).uncheck({ force: true })
  await dialog.getByRole('combobox', { name: 'Font' }).click()
  await page.getByRole('option', { name: /^OpenDyslexic/ }).click()
  await dialog.getByRole('slider', { name: 'Size' }).focus()
  await page.keyboard.press('ArrowRight')
  await dialog.getByRole('button', { name: 'Keys of your own …' }).click()
  await dialog.getByRole('button', { name: 'Key of Write the note: Alt + N' }).click()
  await page.keyboard.press('Alt+m')
  await expect(dialog.getByText('Alt + M is the key of: Comment.')).toBeVisible()
  await page.keyboard.press('Alt+e')
  await expect(dialog.getByRole('button', { name: 'Key of Write the note: Alt + E' })).toBeVisible()
  const kept = page.waitForResponse(
    (response) => response.url().endsWith('/api/me/settings') && response.request().method() === 'PUT',
  )
  await kept
  await page.keyboard.press('Escape')
  // Another browser of the same person has them from the server.
  await page.evaluate(() => localStorage.clear())
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark')
  await selectTopic(page, 'Spring')
  await expect(page.getByRole('button', { name: /^Add a child to/ })).toHaveCount(0)
  await page.keyboard.press('Alt+e')
  await page.keyboard.type('In March.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Spring, Note')).toBeVisible()
  await openSheet(page)
  const note = page.getByRole('textbox', { name: 'Note' })
  await expect(note.locator('p')).toHaveCSS('font-size', '17px')
  await expect(note).toHaveCSS('font-family', /OpenDyslexic/)
  await page.getByRole('tree').focus()
  await page.keyboard.type('Autumn')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Autumn, Note')).toBeVisible()
})

test('columns stand after a reload as they were left, a pasted list is one in a note, and what is found is told', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Water')
  await openSection(page, /^Comments/)
  await page.getByRole('button', { name: 'Show or hide the surroundings' }).click()
  await expect(page.getByRole('navigation', { name: 'Surroundings' })).toBeHidden()
  await page.reload()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Comments/ })).toHaveAttribute('aria-expanded', 'true')
  await expect(page.getByRole('navigation', { name: 'Surroundings' })).toBeHidden()

  await selectTopic(page, 'Water')
  await page.keyboard.press('Alt+n')
  const note = page.getByRole('textbox', { name: 'Note', exact: true })
  await expect(note).toBeFocused()
  await page.evaluate(() => navigator.clipboard.writeText('- in the morning\n- in the evening'))
  await page.keyboard.press('Control+v')
  await expect(note.getByRole('listitem')).toHaveText(['in the morning', 'in the evening'])
  await page.keyboard.press('Escape')

  const told = page.getByRole('log', { name: 'What happened' })
  await page.keyboard.press('Control+k')
  await page.keyboard.type('Summer')
  await expect(told).toContainText(/\d+ found/)
  await page.keyboard.press('Control+a')
  await page.keyboard.type('zzzzqq')
  await expect(told).toContainText('Nothing found')
  await page.keyboard.press('Escape')

  await selectTopic(page, 'Summer')
  await openSection(page, /^Files/)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles(
    ['rain.txt', 'sun.txt'].map((name) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(name) })),
  )
  await expect(topic(page, 'Summer, 2 files')).toBeVisible()
  await topic(page, 'Summer, 2 files').locator('[data-sign="file"]').hover()
  await expect(page.locator('[data-peek]')).toContainText('rain.txt')
})
