import { readFileSync } from 'node:fs'
import {
  allSaved,
  choose,
  chooseFromMenu,
  drag,
  expectNoBarriers,
  expectNoBarriersInBoth,
  makeMap,
  plantGarden,
  selectTopic,
  toAllMaps,
  topic,
} from './person'
import { expect, test } from './watched'

test('a map that is hard to read says so, shows what could be split off, and is as before after one undo', async ({
  page,
  lookAtDemo,
}) => {
  await lookAtDemo()
  await toAllMaps(page)
  await page.getByRole('link', { name: 'Water and ditch blocking', exact: true }).first().click()
  await expect(page.getByText('It is hard to read as one map')).toBeVisible()
  await page.getByRole('button', { name: '111 topics, crowded: review' }).click()

  const review = page.getByRole('dialog', { name: 'Split review' })
  const figures = review.getByRole('status')
  await expect(review.getByRole('heading', { level: 1 })).toContainText('Dams and weirs causes 39 % of it')
  await expect(figures).toContainText('largest map 111 → 42 topics')
  await expect(figures).toContainText('maps 1 → 6')
  await expectNoBarriers(page, '[role="dialog"]')

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
  const today = (await review.getByRole('img', { name: 'Water and ditch blocking as it is today' }).boundingBox())!
  const across = today.x + today.width * 0.8
  await drag(page, { x: across, y: today.y + today.height * 0.6 }, { x: across, y: today.y + today.height * 0.95 })
  const drawn = review.getByRole('checkbox', { name: / to Fire and drought$/ })
  await expect(drawn).toBeChecked()
  await expect(figures).toContainText('maps 1 → 7')
  await drawn.uncheck()
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
  await allSaved(page)
  await page.getByRole('button', { name: 'Other maps' }).click()
  await expect(page.getByRole('menuitem', { name: 'All ditches' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Undo: split off 5 branches/ }).click()
  await expect(page.getByRole('contentinfo').getByText('111 topics, crowded: review')).toBeVisible()
  await expect(topic(page, 'Dams and weirs')).toBeVisible()
  // Said once, it is not offered in words again.
  await expect(page.getByText('It is hard to read as one map')).toBeHidden()
})

test('all maps that are hard to read are reviewed together, and split off as one step', async ({
  page,
  lookAtDemo,
}) => {
  await lookAtDemo()
  await toAllMaps(page)
  await page.getByRole('link', { name: 'Crowding', exact: true }).click()
  const dense = page.getByRole('region', { name: 'Water and ditch blocking' })
  await expect(dense.getByText(/Dams and weirs causes 39 % of it/)).toBeVisible()
  await expect(dense.getByRole('status')).toContainText('largest map 111 → 42 topics')
  await expectNoBarriers(page)
  await dense.getByRole('checkbox', { name: 'Split off Machines and ground' }).uncheck()
  await expect(dense.getByRole('status')).toContainText('maps 1 → 5')
  await page.getByRole('button', { name: /^Split off \d+ branches/ }).click()
  // What was left out still is what makes it hard to read.
  await expect(dense.getByText(/Machines and ground causes/)).toBeVisible()
  await page.getByRole('button', { name: /^Undo: Split off/ }).click()
  await expect(dense.getByRole('status')).toContainText('largest map 111')

  await page.getByRole('textbox', { name: 'Topics' }).fill('300')
  await page.getByRole('textbox', { name: 'Size of text in px' }).fill('4')
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  await expect(page.getByText('Every map can be read as it is.')).toBeVisible()
  await page.getByRole('button', { name: 'As usual' }).click()
  await expect(dense).toBeVisible()
})

test('two maps of the demo that overlap are merged by a plan in which a person decides, and taken apart by one undo', async ({
  page,
  lookAtDemo,
}) => {
  await lookAtDemo()
  await toAllMaps(page)
  // The ledger of links tells that they overlap, and leads to their merge.
  await page.getByRole('link', { name: 'Links', exact: true }).click()
  await page.getByText(/^Overlapping/).click()
  await page.getByRole('link', { name: /^Merge Notes on dipwells .* into Dipwells/ }).click()
  const plan = page.getByRole('dialog', { name: 'Merge plan' })
  const told = plan.getByText(/^\d+ joined, \d+ added/)
  const [joined = 0, added = 0] = (await told.textContent())!.match(/\d+/g)!.map(Number)
  expect(joined).toBeGreaterThan(8)
  await expectNoBarriers(page, '[role="dialog"]')

  // What is likely is looked at by the arrow keys, and said to be one topic by Enter.
  const atHand = plan.getByRole('region', { name: 'The decision at hand' })
  await expect(atHand).toContainText('% sure')
  const name = (await atHand.locator('p').nth(1).textContent())!
  await page.reload()
  // It is open again, and goes on where it was.
  await expect(plan.getByText(/^Your plan of today .* goes on/)).toBeVisible()
  await plan.getByRole('region', { name: 'Decisions' }).getByRole('button').first().click()
  await atHand.getByText('One topic').click()
  await expect(told).toHaveText(new RegExp(`^${joined + 1} joined, ${added - 1} added`))
  await plan.getByRole('combobox', { name: 'Which decisions' }).click()
  await page.getByRole('option', { name: /^The same/ }).click()
  await plan.getByRole('region', { name: 'Decisions' }).getByText('Replacing a well').first().click()
  await atHand.getByText('Two topics').click()
  await expect(told).toHaveText(new RegExp(`^${joined} joined, ${added} added`))
  const result = plan.getByRole('region', { name: 'The result' })
  await expect(result.getByText(/^The result as outline, \d+ topics/)).toBeVisible()
  await result.getByText('as map', { exact: true }).click()
  await expect(result.getByRole('img')).toBeVisible()

  await plan.getByRole('textbox', { name: 'Name of the result' }).fill('Wells of the bog')
  await plan.getByRole('button', { name: 'Merge', exact: true }).click()
  const report = page.getByRole('dialog', { name: 'Merge report' })
  await expect(report).toContainText('Merged into Wells of the bog')
  await expect(report.getByText(`${joined} topics joined with one that was there`)).toBeVisible()
  const download = page.waitForEvent('download')
  await report.getByRole('link', { name: 'As a table (CSV)' }).click()
  const csv = readFileSync((await (await download).path())!, 'utf8')
  expect(csv.split('\r\n')).toHaveLength(joined + added + 2)
  await expectNoBarriers(page, '[role="dialog"]')
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(topic(page, 'Replacing a well')).toHaveCount(2)
  await expect(topic(page, name)).toHaveCount(0)
  await page.getByRole('button', { name: 'Put away' }).click()
  await page.getByRole('button', { name: /^Undo: merge Notes on dipwells/ }).click()
  await expect(topic(page, 'Replacing a well')).toHaveCount(1)

  // An outline from a file is merged without being imported first.
  await choose(page, 'Dipwells and readings', 'Network', /^Merge/)
  const chooser = page.waitForEvent('filechooser')
  await plan.getByRole('button', { name: 'From a file …' }).click()
  const outline = '# Wells\n\n- Replacing a well\n- Well of the canal board\n'
  await (await chooser).setFiles({ name: 'wells.md', mimeType: 'text/markdown', buffer: Buffer.from(outline) })
  await expect(plan.getByText(/^\d+ joined, \d+ added/)).toBeVisible()
  await expect(plan.getByText('Wells', { exact: true }).first()).toBeVisible()
  await plan.getByRole('button', { name: 'Back to the map' }).click()
  await expect(page.getByText(/What was brought in stays as a map/)).toBeVisible()
  await page.getByRole('button', { name: /^Undo: import/ }).click()
  await expect(page.getByRole('button', { name: /^Undo: import/ })).toBeHidden()
})

test('a map of another collection is brought in while merging, and its own stays as it is', async ({ page }) => {
  await plantGarden(page, '- Sow peas\n- Sow leeks')
  await allSaved(page)
  const made = await page.request.post('/api/collections', { data: { title: 'Allotment' } })
  const { collection } = (await made.json()) as { collection: string }
  await page.goto(`/c/${collection}`)
  await makeMap(page, 'Plot')
  await choose(page, 'Plot', 'Network', /^Merge/)
  const plan = page.getByRole('dialog', { name: 'Merge plan' })
  await plan.getByRole('button', { name: 'From another collection …' }).click()
  const asked = page.getByRole('dialog', { name: 'A map of another collection' })
  await expectNoBarriers(page, '[role="dialog"]')
  await asked.getByRole('combobox', { name: 'Collection' }).click()
  await page.getByRole('option', { name: 'My collection' }).click()
  await asked.getByRole('combobox', { name: 'Map', exact: true }).click()
  await page.getByRole('option', { name: 'Garden' }).click()
  await asked.getByRole('button', { name: 'Bring it here' }).click()
  await expect(plan.getByText(/^1 joined, 2 added/)).toBeVisible()
  await plan.getByRole('button', { name: 'Merge', exact: true }).click()
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(topic(page, 'Sow leeks')).toBeVisible()
  await allSaved(page)

  // A copy that is merged back brings nothing back that was taken out here, unless somebody says so.
  await page.goto(`/c/${collection}`)
  await page.getByRole('button', { name: 'Plot: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Duplicate', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Plot, copy' })).toBeVisible()
  await page.getByRole('region', { name: 'Plot', exact: true }).getByRole('link').click()
  await selectTopic(page, 'Sow leeks')
  await page.keyboard.press('Delete')
  await allSaved(page)
  await choose(page, 'Plot', 'Network', /^Merge/)
  await plan.getByRole('combobox', { name: 'Maps to take over' }).click()
  await page.getByRole('option', { name: 'Plot, copy' }).click()
  await page.keyboard.press('Escape')
  await expect(plan.getByText(/^2 joined, 0 added/)).toBeVisible()
  await plan.getByRole('combobox', { name: 'Which decisions' }).click()
  await page.getByRole('option', { name: 'Taken out here 1' }).click()
  await expect(plan.getByText(/^It stays away: it was taken out here/)).toBeVisible()
  await plan.getByRole('button', { name: 'Add it all the same' }).click()
  await expect(plan.getByText(/^2 joined, 1 added/)).toBeVisible()
})

test('doorways are made, peeked into and unfolded in place, and links are drawn by hand, labelled, and become branches', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n  - Peas\n- Summer\n- Autumn')
  await selectTopic(page, 'Spring')
  await page.keyboard.press('Alt+d')
  await allSaved(page)

  // A second doorway, by dropping the map on a topic; it can become the way to its map.
  const surroundings = page.getByRole('navigation', { name: 'Surroundings' })
  await drag(page, surroundings.getByRole('button', { name: /^Spring/ }), topic(page, 'Summer'))
  await expect(topic(page, 'Summer')).toHaveAttribute('aria-label', /opens a map with 2 topics/)
  await choose(page, 'Summer', 'Network', 'Reach its map through this doorway')
  await expect(page.getByRole('button', { name: /^Undo: make Summer the way to Spring/ })).toBeVisible()

  await topic(page, 'Summer').locator('.behind').hover()
  const card = page.locator('[data-peek]')
  await expect(card.getByText('Peas')).toBeVisible()
  await card.getByRole('button', { name: 'Unfold here' }).click()
  await expect(topic(page, 'Peas')).toBeVisible()
  // What is unfolded is worked on as if it stood here.
  await selectTopic(page, 'Peas')
  await page.keyboard.press('F2')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Sugar peas')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Sugar peas')).toBeVisible()
  await allSaved(page)
  await choose(page, 'Summer', 'Network', 'Fold the map behind it away again')
  await expect(topic(page, 'Sugar peas')).toHaveCount(0)
  await choose(page, 'Summer', 'Network', 'Open nothing any more')
  await expect(topic(page, 'Summer')).not.toHaveAttribute('aria-label', /opens a map/)

  await selectTopic(page, 'Summer')
  await drag(page, page.getByRole('button', { name: 'Draw a cross-link from Summer' }), topic(page, 'Autumn'))
  await expect(page.getByRole('button', { name: /^Undo: link Summer/ })).toBeVisible()
  const line = page.locator('[data-crosslink] .crosslink-reach').first()
  await line.dispatchEvent('click', { clientX: 500, clientY: 300 })
  await page.getByRole('menuitem', { name: 'Label it …' }).click()
  await page.getByRole('textbox', { name: 'What it says' }).fill('then comes')
  await page.keyboard.press('Enter')
  await expect(page.locator('.crosslink-label')).toHaveText('then comes')
  await line.dispatchEvent('click', { clientX: 500, clientY: 300 })
  await page.getByRole('menuitem', { name: /^Make it a branch/ }).click()
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '3')
  await choose(page, 'Autumn', 'Network', 'Cross-link it instead of hanging it there')
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '2')
})

test('a line is bent by hand, runs where it was led, and finds its own way again', async ({ page }) => {
  await plantGarden(page, '- Spring\n- Summer\n- Autumn\n- Winter')
  await selectTopic(page, 'Spring')
  await drag(page, page.getByRole('button', { name: 'Draw a cross-link from Spring' }), topic(page, 'Winter'))
  await expect(page.getByRole('button', { name: /^Undo: link Spring/ })).toBeVisible()
  await selectTopic(page, 'Garden')
  const line = page.locator('[data-crosslink] .crosslink-reach').first()
  const unbent = (await line.getAttribute('d'))!
  const onLine = await line.evaluate((path: SVGPathElement) => {
    const { x, y } = path.getPointAtLength(path.getTotalLength() * 0.5)
    const at = new DOMPoint(x, y).matrixTransform(path.getScreenCTM()!)
    return { x: at.x, y: at.y }
  })
  const aside = { x: onLine.x + 20, y: onLine.y + 130 }
  await drag(page, onLine, aside)
  await expect(page.getByRole('button', { name: /^Undo: bend a cross-link/ })).toBeVisible()
  const isUnderHand = ({ x, y }: typeof aside) =>
    line.evaluate(
      (path: SVGPathElement, at) =>
        path.isPointInStroke(new DOMPoint(at.x, at.y).matrixTransform(path.getScreenCTM()!.inverse())),
      { x, y },
    )
  expect(await isUnderHand(aside)).toBe(true)
  await line.dispatchEvent('click', { clientX: 500, clientY: 300 })
  await page.getByRole('menuitem', { name: 'Let its line find its own way' }).click()
  await expect(line).toHaveAttribute('d', unbent)
})

test('several topics are tied to one another in one step, or become one child map together', async ({ page }) => {
  await plantGarden(page, '- Spring\n  - Peas\n- Summer\n- Autumn\n- Winter')
  await selectTopic(page, 'Autumn')
  for (const name of ['Spring', 'Summer']) await topic(page, name).click({ modifiers: ['Control'] })
  await topic(page, 'Summer').click({ button: 'right' })
  await chooseFromMenu(page, 'Network', 'Tie these topics to one another')
  await expect(page.getByRole('button', { name: /^Undo: tie 3 topics/ })).toBeVisible()
  for (const name of ['Spring', 'Summer', 'Autumn'])
    await expect(topic(page, name)).toHaveAttribute('aria-label', /2 cross-links/)
  // The sign of quiet links shows what stands around their far ends, and leads there.
  await topic(page, 'Autumn').locator('[data-sign="link"]').hover()
  const shown = page.locator('[data-peek]')
  await expect(shown).toContainText(/below Garden.*Spring.*Peas/)
  await shown.getByRole('button', { name: /Spring/ }).click()
  await expect(topic(page, 'Spring')).toHaveAttribute('aria-selected', 'true')

  for (const name of ['Autumn', 'Summer']) await topic(page, name).click({ modifiers: ['Control'] })
  await topic(page, 'Summer').click({ button: 'right' })
  await chooseFromMenu(page, 'Network', /^Make one child map/)
  await page.getByRole('textbox', { name: /^Its name/ }).fill('The bright months')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'The bright months')).toBeVisible()
  await expect(topic(page, 'Spring')).toHaveCount(0)
  await expect(topic(page, 'Winter')).toBeVisible()
  await allSaved(page)
  await page.getByRole('button', { name: /^Undo: split off The bright months/ }).click()
  await expect(topic(page, 'Spring')).toBeVisible()
  await expect(topic(page, 'The bright months')).toHaveCount(0)
})

test('the ledger shows every link, makes few quiet against many crossings, and links what is only named', async ({
  page,
}) => {
  const beds = ['Leeks', 'Beans', 'Carrots', 'Parsnips']
  const list = (name: string) => `- ${name}\n${beds.map((bed) => `  - ${name} ${bed}`).join('\n')}`
  await plantGarden(page, `${list('Sow')}\n${list('Harvest')}\n- Soup of harvest carrots`)
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const idOf = (name: string) => topic(page, name).getAttribute('data-topic')
  const command = async (name: string, args: object) => {
    const asked = { id: await page.evaluate(() => crypto.randomUUID()), args }
    const answer = await page.request.post(`/api/collections/${collection}/commands/${name}`, { data: asked })
    expect(answer.status()).toBe(200)
    return (await answer.json()) as { change: { edits: { kind: string; id: string }[] } }
  }
  // Each is linked with the one at the other end of the other row: lines that cross.
  const links: string[] = []
  for (const [i, bed] of beds.entries()) {
    const to = { kind: 'topic', id: await idOf(`Harvest ${beds.at(-1 - i)}`) }
    const ends = { from: await idOf(`Sow ${bed}`), to, drawn: 'quiet' }
    const { change } = await command('link', ends)
    links.push(change.edits[0]!.id)
  }
  await command('draw-links', { crosslinks: links, drawn: 'line' })
  const [weblink, change] = await page.evaluate(() => [crypto.randomUUID(), crypto.randomUUID()])
  const after = {
    id: weblink,
    topic: await idOf('Sow Leeks'),
    url: 'http://127.0.0.1:1/',
    title: 'Seeds',
    rank: 'a0',
    trashed: false,
  }
  const edits = [{ kind: 'weblink', id: weblink, before: null, after }]
  const data = { changes: [{ id: change, label: 'Add a web link', edits, undoes: null }] }
  expect((await page.request.post(`/api/collections/${collection}/changes`, { data })).status()).toBe(200)
  await page.locator('[data-stage]').getByRole('treeitem').first().click()
  await choose(page, 'Sow Leeks', 'Network', 'See all links of the collection')

  await expect(page.getByRole('heading', { name: 'Links' })).toBeVisible()
  const clutter = page.getByRole('region', { name: 'Clutter' })
  await expect(clutter.getByText(/crossings? on Garden/)).toBeVisible()
  await expect(clutter.getByRole('img')).toHaveCount(2)
  await expect(page.getByRole('row', { name: /Sow Leeks.*Harvest Parsnips/ })).toBeVisible()
  await clutter.getByRole('button', { name: /^Make/ }).click()
  await expect(clutter.getByText(/crossings? on Garden/)).toBeHidden()
  await page.getByRole('button', { name: /^Undo: Make/ }).click()
  await expect(clutter.getByText(/crossings? on Garden/)).toBeVisible()

  await page.getByText(/^Named but not linked/).click()
  const named = page.getByRole('row', { name: /Soup of harvest carrots.*Harvest Carrots/ })
  await named.getByRole('button', { name: /^Ignore/ }).click()
  await expect(named).toHaveCount(0)
  await page.getByRole('button', { name: /^Undo: Leave Soup of harvest carrots/ }).click()
  await named.getByRole('button', { name: /^Link/ }).click()
  await expect(named).toHaveCount(0)
  await page.getByText(/^Quiet/).click()
  await expect(named).toBeVisible()

  // Whether the pages are there is looked at by the server, which asks nobody in its own network.
  await page.getByText(/^Web links 1/).click()
  await page.getByRole('button', { name: 'Look whether the pages are there' }).click()
  await expect(page.getByText(/^Last looked at today/)).toBeVisible()
  await page.getByText(/^Web links in doubt 1/).click()
  await expect(page.getByRole('row', { name: /Sow Leeks.*Seeds.*own network/ })).toBeVisible()

  const way = page.getByRole('region', { name: 'Shortest way' })
  for (const [end, name] of [
    ['From', 'Sow Leeks'],
    ['To', 'Harvest Parsnips'],
  ]) {
    await way.getByRole('button', { name: new RegExp(`^${end}:`) }).click()
    await page.getByRole('combobox').fill(name!)
    await page.getByRole('option', { name: new RegExp(`^${name}`) }).click()
  }
  await expect(way.getByRole('listitem')).toHaveText([/Sow Leeks/, /by a cross-link to Harvest Parsnips/])
  await expectNoBarriersInBoth(page)
  await way.getByRole('link', { name: 'Sow Leeks' }).click()
  await expect(topic(page, 'Sow Leeks')).toHaveAttribute('aria-selected', 'true')
  await page.goto(`/c/${collection}`)
  await page.getByRole('button', { name: 'Garden: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Duplicate', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Garden, copy' })).toBeVisible()
})

test('the atlas shows all maps as they hang together; several are chosen and merged from there', async ({
  page,
  lookAtDemo,
}) => {
  await lookAtDemo()
  await toAllMaps(page)
  await page.getByRole('link', { name: 'Atlas', exact: true }).click()
  const plates = page.getByRole('region', { name: 'All maps' }).getByRole('link')
  const named = (name: string) => page.getByRole('link', { name: new RegExp(`^${name}, `) })
  await expect(plates).not.toHaveCount(0)
  await expect(named('Vennmoor handbook')).toHaveAttribute('aria-label', /home map.*maps behind it/)
  await expect(named('Water and ditch blocking')).toHaveAttribute('aria-label', /crowded/)
  // True shapes come as they are drawn.
  await expect(named('Dipwells and readings').locator('svg path').first()).toBeAttached()
  const at = async (name: string) => (await named(name).boundingBox())!
  expect((await at('Vegetation')).x).toBeGreaterThan((await at('Vennmoor handbook')).x)

  // Maps that are linked stand together, and back.
  await page.getByText('as they are linked').click()
  await expect(page.getByText('Linked with nothing')).toBeVisible()
  await page.getByText('as they open one another').click()
  await expect(page.getByText('Linked with nothing')).toBeHidden()
  await page.getByRole('textbox', { name: 'Find a map' }).fill('dipw')
  await expect(page.getByText('2 found')).toBeVisible()
  await page.getByRole('textbox', { name: 'Find a map' }).fill('')
  const before = await at('Dipwells and readings')
  await named('Dipwells and readings').click()
  // Nothing moves when something is chosen: a second press hits the same map.
  expect(await at('Dipwells and readings')).toEqual(before)
  await named('Notes on dipwells from the readers').click({ modifiers: ['Control'] })
  const chosen = page.getByRole('group', { name: 'Chosen maps' })
  await expect(chosen.getByText('2 maps chosen')).toBeVisible()
  await expectNoBarriersInBoth(page)
  // The same choice stands in the table beside.
  await page.getByText('Table beside').click({ force: true })
  const table = page.getByRole('region', { name: 'The maps as a table' })
  await expect(table.getByRole('button', { name: 'Dipwells and readings' })).toHaveAttribute('aria-pressed', 'true')
  await table.getByRole('button', { name: 'Topics' }).click()
  await expect(table.getByRole('row').nth(1)).toContainText(/Water and ditch blocking.*crowded/)
  // With Shift all from the one to the other, in the order in which they stand there.
  const inRow = (nth: number) => table.getByRole('row').nth(nth).getByRole('button')
  await inRow(1).click()
  await inRow(4).click({ modifiers: ['Shift'] })
  await expect(chosen.getByText('4 maps chosen')).toBeVisible()
  await table.getByRole('button', { name: 'Files' }).click()
  await expect(table.getByRole('row').nth(1)).toContainText('today')
  await page.getByText('Table beside').click({ force: true })
  await expect(table).toBeHidden()
  // The maps take the room of the table before one of them is taken hold of.
  let seen = ''
  await expect
    .poll(async () => {
      const before = seen
      seen = JSON.stringify(await at('Peat'))
      return seen === before
    })
    .toBe(true)

  // Dragged, a map stays where it was put; dropped onto another one it hangs behind that.
  const [peat, funding] = [await at('Peat'), await at('Funding')]
  await drag(page, { x: peat.x + 15, y: peat.y + 15 }, { x: funding.x + 15, y: funding.y + funding.height + 180 })
  await expect.poll(async () => Math.round((await at('Peat')).y)).toBeGreaterThan(funding.y + funding.height)
  await expect(page.getByRole('radio', { name: 'as I put them' })).toBeChecked()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Let them fall into place' })).toBeVisible()
  const [peatNow, fundingNow] = [await at('Peat'), await at('Funding')]
  await drag(page, { x: peatNow.x + 15, y: peatNow.y + 15 }, { x: fundingNow.x + 15, y: fundingNow.y + 15 })
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Hang it behind Funding/ })
    .click()
  await expect(named('Funding')).toHaveAttribute('aria-label', /1 map behind it/)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(named('Funding')).not.toHaveAttribute('aria-label', /behind it/)
  await page.getByRole('button', { name: 'Let them fall into place' }).click()
  await expect(page.getByRole('button', { name: 'Let them fall into place' })).toBeHidden()
  // From near, the first topics of a map are there, and one is carried to another map.
  const school = await at('School visits')
  await page.mouse.move(school.x + school.width + 10, school.y + 20)
  for (let step = 0; step < 3; step++) await page.mouse.wheel(0, -300)
  const branch = named('School visits').locator('[data-topic]').first()
  await expect(branch).toBeVisible()
  const words = await branch.textContent()
  await drag(page, branch, named('Funding'))
  const sent = page.getByRole('dialog', { name: `${words}, dropped onto Funding` })
  await sent.getByRole('button', { name: 'Move it to Funding' }).click()
  await expect(named('Funding').locator('[data-topic]').last()).toHaveText(words!)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(branch).toHaveText(words!)
  await page.getByRole('button', { name: 'Fit' }).click()

  await named('Dipwells and readings').click()
  await named('Notes on dipwells from the readers').click({ modifiers: ['Control'] })
  await chosen.getByRole('link', { name: /^Merge into Dipwells/ }).click()
  const merge = page.getByRole('dialog', { name: 'Merge plan' })
  await expect(merge.getByText('Notes on dipwells from the readers').first()).toBeVisible()
  await page.goBack()
  // Some maps alone become the site.
  await named('Peat').click()
  await named('Funding').click({ modifiers: ['Control'] })
  await chosen.getByRole('link', { name: 'Publish them …' }).click()
  await expect(page.getByText('The site will hold 2 maps')).toBeVisible()
  await expect(page.getByText(/^Only .*Nothing of the other 12 is in it\./)).toBeVisible()
  await page.getByRole('button', { name: 'All maps instead' }).click()
  await expect(page.getByText('The site will hold 14 maps')).toBeVisible()
  await page.goBack()
  await named('Vegetation').focus()
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Vegetation')).toBeVisible()
})
