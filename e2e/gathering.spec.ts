import { expect, type Page, test } from '@playwright/test'
import { allSaved, beginWithoutAccount, expectNoOverlap, makeMap, selectTopic, topic } from './person'

async function plantGarden(page: Page): Promise<void> {
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  await page.evaluate(() => navigator.clipboard.writeText('- Spring\n  - Sow peas\n- Summer'))
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Summer')).toBeVisible()
}

test('ideas are poured out line after line and hang on the topic when Esc ends it', async ({ page }) => {
  await plantGarden(page)
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Alt+p')
  await page.keyboard.type('Water at dawn')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Pick beans')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Dwarf')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Climbing')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Climbing')).toHaveAttribute('aria-level', '4')
  await expect(topic(page, 'Pick beans')).toHaveAttribute('aria-level', '3')
  await expect(page.getByRole('button', { name: 'Undo: pour 4 topics' })).toBeVisible()
  await expectNoOverlap(page)
})

test('an address typed as a topic becomes a web link', async ({ page }) => {
  await plantGarden(page)
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Tab')
  await page.keyboard.type('https://example.org/beans')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'example.org/beans, 1 web link')).toBeVisible()
})

test('the outline is written as text, and topics keep what hangs on them', async ({ page }) => {
  await plantGarden(page)
  await selectTopic(page, 'Sow peas')
  await page.keyboard.press('Alt+n')
  await page.getByRole('textbox', { name: 'Note' }).pressSequentially('In March.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Sow peas, Note')).toBeVisible()
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('button', { name: 'Show it as outline beside' }).click()
  await page.getByRole('button', { name: 'Text', exact: true }).click()
  const text = page.getByRole('textbox', { name: 'Outline of Garden as text' })
  await expect(text).toContainText('- Spring')
  const stage = page.locator('[data-stage]')
  await text.getByText('Sow peas').click()
  await page.keyboard.press('End')
  await page.keyboard.type(' and beans')
  await expect(stage.getByRole('treeitem', { name: 'Sow peas and beans, Note' })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.keyboard.type('Sow leek')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.type('Autumn')
  await expect(stage.getByRole('treeitem', { name: 'Sow leek' })).toHaveAttribute('aria-level', '3')
  await expect(stage.getByRole('treeitem', { name: 'Autumn' })).toHaveAttribute('aria-level', '2')
  await stage.getByRole('treeitem', { name: 'Summer' }).click()
  await page.keyboard.press('Delete')
  await expect(text).not.toContainText('Summer')
  await allSaved(page)
})

test('lists and tables of other programs are pasted with their structure', async ({ page }) => {
  await plantGarden(page)
  await selectTopic(page, 'Summer')
  const paste = (html: string) =>
    page.evaluate(async (markup) => {
      const item = new ClipboardItem({
        'text/html': new Blob([markup], { type: 'text/html' }),
        'text/plain': new Blob(['plain'], { type: 'text/plain' }),
      })
      await navigator.clipboard.write([item])
    }, html)
  await paste('<ul><li>Pick <b>beans</b><ul><li>Dwarf</li></ul></li><li>Water</li></ul>')
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Dwarf')).toHaveAttribute('aria-level', '4')
  await selectTopic(page, 'Spring')
  await paste('<table><tr><th>Bed</th><th>Crop</th></tr><tr><td>North</td><td>Leek</td></tr></table>')
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Leek')).toHaveAttribute('aria-level', '4')
  await expectNoOverlap(page)
})

test('a map begins with a template, and another one is hung onto a topic', async ({ page }) => {
  await beginWithoutAccount(page)
  await page.getByRole('button', { name: 'New map' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Field season')
  await page.getByRole('combobox', { name: 'Begin with' }).selectOption('Season plan')
  await page.getByRole('button', { name: 'Make the map' }).click()
  await expect(topic(page, 'First work days')).toBeVisible()
  await page.keyboard.press('Alt+f')
  await expectNoOverlap(page)
  await topic(page, 'Report').click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Insert a template …' }).click()
  await page.getByRole('button', { name: /^Decision/ }).click()
  await expect(topic(page, 'First way')).toHaveAttribute('aria-level', '3')
})
