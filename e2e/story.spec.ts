import { allSaved, beginOnMap, choose, expectNoOverlap, makeMap, selectTopic, topic, write } from './person'
import { expect, test } from './watched'

/** The whole job once, as a newcomer does it: gather, enrich, split, merge, publish, browse. */
test('a newcomer gathers a map, enriches it, splits, merges and publishes it', async ({ page, context }) => {
  test.setTimeout(360_000)
  const problems: string[] = []
  page.on('pageerror', (error) => problems.push(error.message))

  await test.step('begins without an account and makes a map', async () => {
    await beginOnMap(page)
    await write(page, 'Garden year')
  })

  await test.step('gathers by keyboard', async () => {
    await page.keyboard.press('Tab')
    await write(page, 'Spring')
    await page.keyboard.press('Enter')
    await write(page, 'Summer')
    await page.keyboard.press('Tab')
    await write(page, 'Water at dawn')
    await page.keyboard.press('Enter')
    await write(page, 'Pick beans')
    await page.keyboard.type('Mulch')
    await page.keyboard.press('Escape')
    await page.keyboard.press('Shift+Tab')
    await expect(topic(page, 'Mulch')).toHaveAttribute('aria-level', '2')
    await expectNoOverlap(page)
    await allSaved(page)
  })

  await test.step('moves, folds, undoes and redoes by name', async () => {
    await selectTopic(page, 'Pick beans')
    await page.keyboard.press('Alt+ArrowUp')
    await expect(topic(page, 'Pick beans')).toHaveAttribute('aria-posinset', '1')
    await expect(page.getByRole('button', { name: 'Undo: move Pick beans' })).toBeVisible()
    await page.keyboard.press('Control+z')
    await expect(topic(page, 'Pick beans')).toHaveAttribute('aria-posinset', '2')
    await page.getByRole('button', { name: 'Redo: move Pick beans' }).click()
    await expect(topic(page, 'Pick beans')).toHaveAttribute('aria-posinset', '1')
    await selectTopic(page, 'Summer')
    await page.keyboard.press('Space')
    await expect(topic(page, 'Summer')).toHaveAttribute('aria-expanded', 'false')
    await page.keyboard.press('Space')
    await expect(topic(page, 'Pick beans')).toBeVisible()
  })

  await test.step('drags a branch onto another topic, told in words where it goes', async () => {
    await page.keyboard.press('Alt+f')
    const from = (await topic(page, 'Mulch').boundingBox())!
    const onto = (await topic(page, 'Spring').boundingBox())!
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
    await page.mouse.down()
    await page.mouse.move(onto.x + onto.width / 2, onto.y + onto.height / 2, { steps: 8 })
    await expect(page.getByText('becomes a child of Spring, first')).toBeVisible()
    await page.mouse.up()
    await expect(topic(page, 'Mulch')).toHaveAttribute('aria-level', '3')
  })

  await test.step('uses the plus and the menu with the mouse, deletes and takes it back', async () => {
    await topic(page, 'Spring').hover()
    await page.getByRole('button', { name: 'Add a child to Spring' }).click()
    await page.keyboard.type('Sow peas')
    await page.keyboard.press('Escape')
    await expect(topic(page, 'Sow peas')).toHaveAttribute('aria-level', '3')
    await topic(page, 'Sow peas').click({ button: 'right' })
    await page.getByRole('menuitem', { name: /^Delete/ }).click()
    await expect(topic(page, 'Sow peas')).toHaveCount(0)
    await page.getByRole('button', { name: 'Undo: delete Sow peas' }).click()
    await expect(topic(page, 'Sow peas')).toBeVisible()
  })

  await test.step('pastes a bulleted list, and a page whose paragraphs become notes', async () => {
    await selectTopic(page, 'Garden year')
    await page.evaluate(() =>
      navigator.clipboard.writeText(
        '- Autumn\n  - Gather leaves\n  - Plant garlic\n    - North bed\n    - South bed\n- Winter',
      ),
    )
    await page.keyboard.press('Control+v')
    await expect(topic(page, 'South bed')).toHaveAttribute('aria-level', '4')
    await selectTopic(page, 'Winter')
    await page.evaluate(() =>
      navigator.clipboard.writeText('# Tools\n\nOiled and hung up before the frost.\n\n- Spade\n- Fork\n'),
    )
    await page.keyboard.press('Control+v')
    await expect(topic(page, 'Tools, Note')).toBeVisible()
    await expectNoOverlap(page)
  })

  await test.step('sees and edits the same map as outline, side by side', async () => {
    await page.getByRole('button', { name: 'Open a second pane' }).click()
    await page.getByRole('option', { name: 'This map as outline' }).click()
    const outline = page.getByRole('tree', { name: 'Outline of Garden year' })
    await outline.getByRole('treeitem', { name: 'Fork' }).click()
    await page.keyboard.press('F2')
    await page.keyboard.press('Control+a')
    await write(page, 'Garden fork')
    await expect(page.locator('[data-stage]').getByRole('treeitem', { name: 'Garden fork' })).toBeVisible()
    await page.keyboard.press('Enter')
    await write(page, 'Rake')
    await expect(page.locator('[data-stage]').getByRole('treeitem', { name: 'Rake' })).toBeVisible()
    await page.getByRole('button', { name: 'Back to one pane' }).click()
  })

  await test.step('writes a note', async () => {
    await selectTopic(page, 'Plant garlic')
    await page.keyboard.press('Alt+n')
    const note = page.getByRole('textbox', { name: 'Note' })
    await note.pressSequentially('Cloves of 3 cm, tip upwards.')
    await page.keyboard.press('Escape')
    await allSaved(page)
    await expect(topic(page, 'Plant garlic, Note')).toBeVisible()
  })

  await test.step('attaches files and names web links', async () => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Choose files' }).click()
    await (await chooser).setFiles([
      { name: 'beds.csv', mimeType: 'text/csv', buffer: Buffer.from('bed,length\nnorth,4\n') },
      { name: 'plan.txt', mimeType: 'text/plain', buffer: Buffer.from('Garlic goes north of the leeks.') },
    ])
    await expect(page.getByRole('button', { name: 'beds.csv', exact: true })).toBeVisible()
    await expect(page.getByRole('button', { name: 'plan.txt', exact: true })).toBeVisible()
    const dropped = await page.evaluateHandle(() => {
      const carried = new DataTransfer()
      carried.items.add(new File(['Cloves, 40'], 'order.txt', { type: 'text/plain' }))
      return carried
    })
    await page.getByText('Drop files or a folder here, paste them, or').dispatchEvent('drop', { dataTransfer: dropped })
    await expect(page.getByRole('button', { name: 'order.txt', exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'order.txt: what can be done' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await page.getByRole('button', { name: 'plan.txt: what can be done' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await expect(page.getByRole('button', { name: 'plan.txt', exact: true })).toHaveCount(0)
    await page.getByRole('button', { name: 'Add a web link' }).click()
    await page.getByRole('textbox', { name: 'Address' }).fill('example.org/garlic')
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('How to plant garlic')
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('link', { name: 'How to plant garlic' })).toHaveAttribute(
      'href',
      'https://example.org/garlic',
    )
    await expect(topic(page, 'Plant garlic, Note, 1 file, 1 web link')).toBeVisible()
  })

  await test.step('cross-links two topics; both ends show it', async () => {
    await selectTopic(page, 'Mulch')
    await page.keyboard.press('Alt+l')
    await page.getByRole('combobox').fill('gather')
    await expect(page.getByRole('option', { name: /Gather leaves/ })).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(page.locator('[data-crosslink] .crosslink-line')).toHaveCount(1)
    await selectTopic(page, 'Gather leaves')
    await expect(page.getByRole('button', { name: 'Mulch', exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Cross-link with Mulch: what can be done' }).click()
    await page.getByRole('menuitem', { name: 'Make it quiet' }).click()
    await expect(topic(page, 'Mulch, 1 cross-link')).toBeVisible()
  })

  await test.step('splits a branch off, walks through the doorway and by a link across maps', async () => {
    await selectTopic(page, 'Autumn')
    await page.keyboard.press('Alt+d')
    await expect(topic(page, 'Autumn, opens a map with 5 topics')).toBeVisible()
    await expect(topic(page, 'Plant garlic')).toHaveCount(0)
    await page.keyboard.press('Control+Enter')
    await expect(topic(page, 'Plant garlic, Note, 1 file, 1 web link')).toBeVisible()
    await expect(
      page.getByRole('navigation', { name: 'Where this is' }).getByRole('link', { name: 'Autumn' }),
    ).toHaveAttribute('aria-current', 'page')
    await selectTopic(page, 'Gather leaves')
    await page.getByRole('button', { name: 'Mulch in Garden year' }).click()
    await expect(topic(page, 'Mulch')).toHaveAttribute('aria-selected', 'true')
  })

  await test.step('brings it back and splits it off again by undo and redo', async () => {
    await page.keyboard.press('Alt+f')
    await choose(page, 'Autumn', 'Network', 'Bring the child map back')
    await expect(topic(page, 'Plant garlic')).toBeVisible()
    await page.getByRole('button', { name: 'Undo: bring back Autumn' }).click()
    await expect(topic(page, 'Autumn, opens a map with 5 topics')).toBeVisible()
    await allSaved(page)
  })

  await test.step('merges another map, with a plan before and a report after', async () => {
    await page.getByRole('link', { name: 'All maps' }).click()
    await makeMap(page, 'Neighbour')
    await page.evaluate(() => navigator.clipboard.writeText('- Spring\n  - Sow peas\n  - Prune roses\n- Compost'))
    await page.keyboard.press('Control+v')
    await expect(topic(page, 'Compost')).toBeVisible()
    await allSaved(page)
    await page.getByRole('button', { name: 'Other maps' }).click()
    await page.getByRole('menuitem', { name: 'Garden year' }).click()
    await choose(page, 'Garden year', 'Network', 'Merge other maps into this one')
    await page.getByRole('combobox', { name: 'Maps to take over' }).click()
    await page.getByRole('option', { name: 'Neighbour' }).click()
    await page.keyboard.press('Escape')
    await expect(page.getByText(/^3 joined, 2 added/)).toBeVisible()
    await page.getByRole('button', { name: 'Merge', exact: true }).click()
    await expect(page.getByRole('dialog', { name: 'Merge report' }).getByText('2 topics added')).toBeVisible()
    await page.getByRole('button', { name: 'Done', exact: true }).click()
    await expect(topic(page, 'Prune roses')).toBeVisible()
    await expect(topic(page, 'Sow peas')).toHaveCount(1)
    await page.keyboard.press('Control+z')
    await expect(topic(page, 'Prune roses')).toHaveCount(0)
    await page.keyboard.press('Control+Shift+z')
    await expect(topic(page, 'Prune roses')).toBeVisible()
    await expectNoOverlap(page)
  })

  await test.step('a second window sees changes at once', async () => {
    const other = await context.newPage()
    await other.goto(page.url())
    await expect(topic(other, 'Compost')).toBeVisible()
    await selectTopic(page, 'Compost')
    await page.keyboard.press('F2')
    await page.keyboard.press('Control+a')
    await write(page, 'Compost heap')
    await expect(topic(other, 'Compost heap')).toBeVisible()
    await selectTopic(other, 'Compost heap')
    await other.keyboard.press('Tab')
    await write(other, 'Turn in March')
    await expect(topic(page, 'Turn in March')).toBeVisible()
    await other.close()
  })

  await test.step('publishes and browses the site', async () => {
    await allSaved(page)
    await page.getByRole('link', { name: 'Publish' }).click()
    await page.getByRole('button', { name: 'Publish', exact: true }).click()
    const [site] = await Promise.all([
      context.waitForEvent('page'),
      page.getByRole('link', { name: 'Open the site' }).click(),
    ])
    await expect(site.getByRole('heading', { name: 'My collection', level: 1 })).toBeVisible()
    await site.getByRole('link', { name: 'Garden year' }).click()
    await site.locator('.picture a').filter({ hasText: 'Autumn' }).click()
    await expect(site.getByRole('heading', { name: 'Autumn', level: 1 })).toBeVisible()
    await expect(site.getByText('Cloves of 3 cm, tip upwards.')).toBeVisible()
    await site.getByRole('searchbox').fill('cloves')
    await site
      .getByRole('status')
      .getByRole('link', { name: /Plant garlic/ })
      .click()
    await expect(site).toHaveURL(/autumn\.html#t-/)
    await site.getByRole('link', { name: 'Mulch' }).click()
    await expect(site.getByRole('heading', { name: 'Garden year', level: 1 })).toBeVisible()
    const download = page.waitForEvent('download')
    await page.getByRole('link', { name: 'Download as zip' }).click()
    expect((await download).suggestedFilename()).toMatch(/^my-collection-.*\.zip$/)
  })

  await test.step('keeps the work as an account, and finds it again after signing in', async () => {
    const address = `gardener-${Date.now()}@folvet.example`
    await page.getByRole('button', { name: 'Guest' }).click()
    await page.getByRole('menuitem', { name: 'Keep this as my account' }).click()
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Runa Feld')
    await page.getByRole('textbox', { name: 'Mail address' }).fill(address)
    await page.getByRole('textbox', { name: 'Password' }).fill('ten letters or more')
    await page.getByRole('button', { name: 'Keep it' }).click()
    await page.getByRole('button', { name: 'Runa Feld' }).click()
    await page.getByRole('menuitem', { name: 'Sign out' }).click()
    await page.getByRole('textbox', { name: 'Mail address' }).fill(address)
    await page.getByRole('textbox', { name: 'Password' }).fill('ten letters or more')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('link', { name: 'My collection', exact: true })).toBeVisible()
  })
  expect(problems).toEqual([])
})
