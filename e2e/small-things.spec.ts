import { allSaved, atRest, beginWithoutAccount, openSection, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test('a topic is read as it is set, is where it was begun, and stays told when the map is small', async ({ page }) => {
  await plantGarden(page, '- **Beans** first\n- Peas\n- Leeks\n- gardener@example.org')
  await expect(topic(page, 'gardener@example.org, 1 web link')).toBeVisible()
  // What is written as set apart is read without its marks, on the map and in the outline.
  await expect(topic(page, 'Beans first')).toBeVisible()
  await page.keyboard.press('Alt+2')
  await expect(page.getByRole('tree', { name: /^Outline/ })).toContainText('Beans first')
  await expect(page.getByRole('tree', { name: /^Outline/ })).not.toContainText('**')
  await page.keyboard.press('Alt+1')
  // The label of a web link is taken whole by a click: what is typed takes its place.
  await selectTopic(page, 'Peas')
  await openSection(page, /^Links/)
  await page.getByRole('button', { name: 'Add a web link' }).click()
  await page.keyboard.type('https://example.org/wind')
  const label = page.getByRole('textbox', { name: 'Name', exact: true })
  await label.click()
  await page.keyboard.type('Wind on the hill')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Wind on the hill', exact: true })).toBeVisible()
  // A sign shows what is at its own topic, whichever was selected last.
  await selectTopic(page, 'Leeks')
  await topic(page, 'Peas, 1 web link').click({ modifiers: ['Control'] })
  await topic(page, 'Leeks').click({ modifiers: ['Control'] })
  await topic(page, 'Leeks').click({ modifiers: ['Control'] })
  await topic(page, 'Peas, 1 web link').locator('[data-sign="web"]').click()
  await expect(page.getByRole('link', { name: 'Wind on the hill', exact: true })).toBeVisible()
  await page.keyboard.press('Escape')
  // An idea begun by a double click lies where that was, though the first press closes the sheet and the view moves.
  await selectTopic(page, 'Peas, 1 web link')
  await atRest(page)
  const stage = (await page.locator('[data-stage]').boundingBox())!
  const at = { x: stage.x + 180, y: stage.y + 560 }
  await page.mouse.click(at.x, at.y)
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeHidden()
  await page.mouse.down({ clickCount: 2 })
  await page.mouse.up({ clickCount: 2 })
  await page.keyboard.type('Loose')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeVisible()
  await atRest(page)
  const loose = (await topic(page, 'Loose').boundingBox())!
  expect(Math.hypot(loose.x - at.x, loose.y - at.y)).toBeLessThan(40)
  // From far away every topic is still an item of the tree.
  const items = page.getByRole('tree', { name: 'Map Garden' }).getByRole('treeitem')
  await expect(items).toHaveCount(6)
  await page.mouse.move(stage.x + 300, stage.y + 300)
  await page.keyboard.down('Control')
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, 400)
  await page.keyboard.up('Control')
  await expect(page.getByRole('button', { name: /^Shown at \d+ %/ })).toHaveText(/^[12]?\d %$/)
  await expect(items).toHaveCount(6)
})

test('pages are brought in by their titles in order, and what they lead to is told when it is there or not', async ({
  page,
}) => {
  await beginWithoutAccount(page)
  await page.getByRole('button', { name: 'Import text' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  const file = (name: string, text: string, mimeType = 'text/markdown') => ({
    name,
    mimeType,
    buffer: Buffer.from(text),
  })
  await (await chooser).setFiles([
    file('c.md', '# Page 10\n\nThe last one.'),
    file('a.md', '# Page 2\n\nSee [the plan](plan.pdf), [what is lost](lost.md) and [the last](c.md).'),
    file('plan.pdf', 'A plan.', 'application/pdf'),
  ])
  const dialog = page.getByRole('main').or(page.getByRole('dialog'))
  await expect(dialog.getByText(/^Page \d+/)).toHaveText(['Page 2 a.md', 'Page 10 c.md', 'Page 2', 'Page 10'])
  await page.getByRole('button', { name: 'Make 2 maps' }).click()
  await expect(page.getByText('2 maps were imported.')).toBeVisible()
  // The plan came along and hangs on its topic; only what is not here is told.
  await expect(dialog.last().getByRole('listitem')).toHaveText([
    'lost.md in a.md. There is no such page or file in the import.',
  ])
})

test('a picture that is dropped into a note comes where it is dropped, and leaves what is selected', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n- Winter')
  await selectTopic(page, 'Winter')
  await page.keyboard.press('Alt+n')
  await page.keyboard.type('Frost kills beetles')
  const note = page.getByRole('textbox', { name: 'Note' })
  await expect(note).toHaveText('Frost kills beetles')
  await page.keyboard.press('Control+Shift+ArrowLeft')
  await note.evaluate(async (element) => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 8, height: 8 })
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve))
    const dataTransfer = new DataTransfer()
    dataTransfer.items.add(new File([blob!], 'frost.png', { type: 'image/png' }))
    const { left, top } = element.querySelector('p')!.getBoundingClientRect()
    const at = { clientX: left + 4, clientY: top + 6, bubbles: true, cancelable: true }
    element.querySelector('p')!.dispatchEvent(new DragEvent('drop', { ...at, dataTransfer }))
  })
  await expect(note.getByRole('img')).toBeVisible()
  await expect(note).toContainText('Frost kills beetles')
  await allSaved(page)
})

test('a map that is seen whole stays so beside the sheet and beside a second pane', async ({ page }) => {
  const list = Array.from(
    { length: 6 },
    (_, i) => `- Bed ${i + 1}\n  - Seeds for the bed ${i + 1} of the garden behind the hut`,
  )
  await plantGarden(page, list.join('\n'))
  const stage = page.locator('[data-stage]').first()
  const isWhole = async () => {
    const outer = (await stage.boundingBox())!
    const boxes = await Promise.all((await stage.getByRole('treeitem').all()).map((item) => item.boundingBox()))
    return boxes.every(
      (box) =>
        box &&
        box.x >= outer.x &&
        box.y >= outer.y &&
        box.x + box.width <= outer.x + outer.width &&
        box.y + box.height <= outer.y + outer.height,
    )
  }
  await expect.poll(isWhole).toBe(true)
  await selectTopic(page, 'Bed 1')
  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeVisible()
  await expect.poll(isWhole).toBe(true)
  await page.getByRole('button', { name: 'Show or hide the topic sheet' }).click()
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('option', { name: 'This map as outline' }).click()
  await expect(page.getByRole('tree', { name: /^Outline/ })).toBeVisible()
  await expect.poll(isWhole).toBe(true)
})
