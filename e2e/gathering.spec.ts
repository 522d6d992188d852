import {
  allSaved,
  beginFrom,
  beginWithoutAccount,
  choose,
  expectNoOverlap,
  plantGarden,
  selectTopic,
  topic,
} from './person'
import { expect, test } from './watched'

const GARDEN = '- Spring\n  - Sow peas\n- Summer'

test('ideas are poured out line after line and hang on the topic when Esc ends it', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
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
  await plantGarden(page, GARDEN, false)
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Tab')
  await page.keyboard.type('https://example.org/beans')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'example.org/beans, 1 web link')).toBeVisible()
})

test('the outline is written as text, and topics keep what hangs on them', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
  await selectTopic(page, 'Sow peas')
  await page.keyboard.press('Alt+n')
  await page.getByRole('textbox', { name: 'Note' }).pressSequentially('In March.')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Sow peas, Note')).toBeVisible()
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('option', { name: 'This map as outline' }).click()
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
  await page.getByRole('button', { name: 'CommonMark', exact: true }).click()
  await expect(text).toContainText('# Spring')
  await text.getByText('# Autumn').click()
  await page.keyboard.press('Tab')
  await expect(stage.getByRole('treeitem', { name: 'Autumn' })).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Rake leaves')
  await expect(stage.getByRole('treeitem', { name: 'Rake leaves' })).toHaveAttribute('aria-level', '3')
  await expect(stage.getByRole('treeitem', { name: 'Sow peas and beans, Note' })).toHaveAttribute('aria-level', '3')
  await allSaved(page)
})

test('lists and tables of other programs are pasted with their structure', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
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
  await beginFrom(page, 'Season plan')
  await expect(topic(page, 'First work days')).toBeVisible()
  await page.keyboard.press('Alt+f')
  await expectNoOverlap(page)
  await choose(page, 'Report', 'Gather', 'Insert a template …')
  await page.getByRole('button', { name: /^Decision/ }).click()
  await expect(topic(page, 'First way')).toHaveAttribute('aria-level', '3')
})

test('branches are drafted from a wish, seen on the map as a proposal, reworded, and taken', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Alt+r')
  const panel = page.getByRole('region', { name: 'Draft' })
  await panel.getByLabel('What do you want?').fill('plan the work of spring')
  await panel.getByRole('button', { name: 'Propose branches' }).click()
  await panel.getByRole('checkbox', { name: 'Take Spring' }).waitFor()
  const proposed = page.locator('[data-proposed]')
  const all = await proposed.count()
  expect(all).toBeGreaterThan(3)
  await expect(page.getByText('Everything is saved')).toBeVisible()
  await panel.getByRole('textbox', { name: 'Text of the proposed topic' }).first().fill('What spring needs')
  await expect(topic(page, 'What spring needs')).toBeVisible()
  await panel.getByRole('checkbox', { name: 'Take Sow peas' }).uncheck()
  await expect(proposed).toHaveCount(all - 1)
  await panel.getByRole('button', { name: 'Take', exact: true }).click()
  await expect(proposed).toHaveCount(0)
  await expect(topic(page, 'What spring needs, Note')).toHaveAttribute('aria-level', '3')
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'What spring needs, Note')).toHaveCount(0)
})

test('a draft that is thrown away leaves nothing', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+r')
  const panel = page.getByRole('region', { name: 'Draft' })
  await panel.getByLabel('Or a text to draw on').fill('# Beds\n\n- North\n- South\n\n# Paths\n')
  await panel.getByRole('button', { name: 'Propose branches' }).click()
  await expect(topic(page, 'North')).toBeVisible()
  await panel.getByRole('button', { name: 'Throw away' }).click()
  await expect(topic(page, 'North')).toHaveCount(0)
  await expect(page.getByRole('button', { name: /^Undo: paste/ })).toBeVisible()
})

test('a branch is kept as a template and begun with again', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('keep as a template')
  await expect(page.getByRole('option', { name: /Keep as a template/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'Name of the template' }).fill('Beds')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await page.getByRole('link', { name: 'All maps' }).click()
  await beginFrom(page, 'Beds')
  await expect(topic(page, 'Sow peas')).toHaveAttribute('aria-level', '2')
})

/** Drops something from outside onto the stage. */
async function dropOnStage(page: import('@playwright/test').Page, at: { x: number; y: number }, kind: 'text' | 'file') {
  await page.evaluate(
    async ({ x, y, kind: what }) => {
      const data = new DataTransfer()
      if (what === 'text') data.setData('text/plain', 'Tools\n  Spade\nPots')
      else {
        const canvas = document.createElement('canvas')
        canvas.width = 600
        canvas.height = 300
        const blob = await new Promise<Blob>((done) => canvas.toBlob((made) => done(made!)))
        data.items.add(new File([blob], 'meadow.png', { type: 'image/png' }))
      }
      const target = document.elementFromPoint(x, y)!
      for (const type of ['dragover', 'drop'])
        target.dispatchEvent(
          new DragEvent(type, { dataTransfer: data, clientX: x, clientY: y, bubbles: true, cancelable: true }),
        )
    },
    { ...at, kind },
  )
}

test('text dragged from another window lands where it is dropped, a picture as a picture', async ({ page }) => {
  await plantGarden(page, GARDEN, false)
  const stage = (await page.locator('[data-stage]').boundingBox())!
  await dropOnStage(page, { x: stage.x + 60, y: stage.y + 60 }, 'text')
  await expect(topic(page, 'Tools')).toHaveAttribute('aria-level', '1')
  await expect(topic(page, 'Spade')).toHaveAttribute('aria-level', '2')
  await expect(topic(page, 'Pots')).toHaveAttribute('aria-level', '1')
  await dropOnStage(page, { x: stage.x + 80, y: stage.y + stage.height - 160 }, 'file')
  await expect(topic(page, 'meadow, with a picture')).toBeVisible()
  await expectNoOverlap(page)
  // What was dropped is one step: its topic, and what hangs on it.
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'meadow')).toBeHidden()
  await expect(topic(page, 'Tools')).toBeVisible()
  await page.keyboard.press('Control+y')
  await expect(topic(page, 'meadow, with a picture')).toBeVisible()
})
