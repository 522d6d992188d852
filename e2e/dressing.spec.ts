import AxeBuilder from '@axe-core/playwright'
import {
  allSaved,
  atRest,
  choose,
  expectNoOverlap,
  makeMap,
  openSection,
  plantGarden,
  selectTopic,
  topic,
  write,
} from './person'
import { expect, type Page, test } from './watched'

const GARDEN =
  '- Spring\n  - Sow peas\n  - Prune\n- Summer\n  - Pick beans\n    - Dwarf\n  - Water\n- Autumn\n  - Leaves\n- Winter'

const sheet = (page: Page) => page.getByRole('complementary', { name: 'Topic sheet' })
/** The style with which the browser draws the text of a topic. */
const textStyle = (page: Page, name: string, property: string) =>
  topic(page, name)
    .locator('text')
    .first()
    .evaluate((element, name) => getComputedStyle(element).getPropertyValue(name), property)

test('whole looks are seen on the map before one is taken, and nothing overlaps in any', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Garden')
  await openSection(page, /^Look/)
  for (const look of ['Lantern', 'Galley', 'Pencil', 'Mosaic', 'Willow', 'Laid']) {
    await sheet(page)
      .getByRole('button', { name: new RegExp(`^${look}:`) })
      .click()
    await expect(page.getByRole('button', { name: `Undo: dress the map in ${look}` })).toBeVisible()
    await expectNoOverlap(page)
  }
  const pencil = sheet(page).getByRole('button', { name: /^Pencil:/ })
  await pencil.hover()
  await expect.poll(() => textStyle(page, 'Sow peas', 'font-family')).toContain('Kalam')
  await page.mouse.move(640, 780)
  await expect.poll(() => textStyle(page, 'Sow peas', 'font-family')).toContain('Source Sans 3')
  await expect(page.getByRole('button', { name: 'Undo: dress the map in Laid' })).toBeVisible()
  await pencil.click()
  await page.reload()
  await expect.poll(() => textStyle(page, 'Sow peas', 'font-family')).toContain('Kalam')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map(({ id }) => id)).toEqual([])
})

test('a branch and a topic are set apart, say where it comes from, and go back to what they inherit', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Summer')
  await openSection(page, /^Look/)
  await sheet(page).getByRole('button', { name: 'a pill', exact: true }).click()
  await expect(topic(page, 'Pick beans').locator('.ground-pill')).toHaveCount(1)
  await expect(topic(page, 'Sow peas').locator('.ground-pill')).toHaveCount(0)
  await selectTopic(page, 'Dwarf')
  const shape = sheet(page).getByRole('group', { name: 'Shape' })
  await expect(shape).toContainText('from Summer')
  await sheet(page).getByText('Topic', { exact: true }).click()
  await shape.getByRole('button', { name: 'nothing' }).click()
  await expect(shape).toContainText('set here')
  await expect(topic(page, 'Dwarf').locator('.ground-pill')).toHaveCount(0)
  await shape.getByRole('button', { name: 'Shape: take it back to what is inherited' }).click()
  await expect(topic(page, 'Dwarf').locator('.ground-pill')).toHaveCount(1)
  // The look of a branch goes to another one by two keys.
  await selectTopic(page, 'Summer')
  await page.keyboard.press('Control+Alt+c')
  await selectTopic(page, 'Autumn')
  await page.keyboard.press('Control+Alt+v')
  await expect(topic(page, 'Leaves').locator('.ground-pill')).toHaveCount(1)
  await expectNoOverlap(page)
})

test('layouts too are seen on the map before one is taken', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Summer')
  await openSection(page, /^Layout/)
  const below = async () =>
    (await topic(page, 'Pick beans').boundingBox())!.y - (await topic(page, 'Summer').boundingBox())!.y
  await atRest(page)
  const beside = await below()
  const layout = sheet(page).getByRole('group', { name: 'This branch is set' })
  // What comes to lie below a pointer that rests was not pointed at.
  const choice = layout.getByRole('button', { name: 'indented' })
  const { x, y } = (await choice.boundingBox())!
  const section = sheet(page).getByRole('button', { name: /^Layout/ })
  await section.click()
  await expect(choice).toBeHidden()
  await page.mouse.move(x + 12, y + 8)
  await section.press('Enter')
  await expect(choice).toBeVisible()
  await atRest(page)
  expect(await below()).toBeCloseTo(beside, 0)
  await page.mouse.move(x + 14, y + 9)
  await expect.poll(below).toBeGreaterThan(beside + 10)
  await page.mouse.move(640, 780)
  await expect.poll(below).toBeCloseTo(beside, 0)
  await layout.getByRole('button', { name: 'indented' }).click()
  await expect(page.getByRole('button', { name: 'Undo: set Summer indented' })).toBeVisible()
  await expect.poll(below).toBeGreaterThan(beside + 10)
})

test('text on a fill that is picked can always be read, and a look is saved under a name', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await openSection(page, /^Look/)
  await sheet(page).getByText('Topic', { exact: true }).click()
  const fill = sheet(page).getByRole('textbox', { name: 'Fill' })
  await fill.fill('#102030')
  await fill.press('Enter')
  await fill.blur()
  await expect.poll(() => textStyle(page, 'Spring', 'fill')).toBe('rgb(251, 250, 246)')
  await sheet(page)
    .getByRole('button', { name: /Save what is set here/ })
    .click()
  await page.getByRole('textbox', { name: /^Name under which/ }).fill('Night')
  await page.keyboard.press('Enter')
  await selectTopic(page, 'Winter')
  await sheet(page).getByText('Topic', { exact: true }).click()
  await sheet(page).getByRole('button', { name: 'Night', exact: true }).click()
  await expect.poll(() => textStyle(page, 'Winter', 'fill')).toBe('rgb(251, 250, 246)')
  await allSaved(page)
})

test('badges, tags and a task mark topics, and a filter finds them by each', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Prune')
  await page.keyboard.press('Alt+b')
  await page.getByRole('textbox', { name: 'Find a badge' }).fill('scissors')
  await page.getByRole('button', { name: 'scissors', exact: true }).first().click()
  await expect(topic(page, 'Prune, scissors')).toBeVisible()
  await selectTopic(page, 'Prune, scissors')
  await page.keyboard.press('Alt+t')
  await page.locator('input[name=text]').fill('dry days')
  await page.keyboard.press('Enter')
  await choose(page, 'Prune, scissors, tagged dry days', 'Enrich', 'It is begun')
  const marked = topic(page, 'Prune, scissors, tagged dry days, Task begun')
  await expect(marked).toBeVisible()
  await page.getByRole('button', { name: /^Filter/ }).click()
  const popover = page.getByRole('dialog')
  await popover.getByText('dry days').click()
  await expect(page.getByRole('button', { name: 'Filter: 1 of them' })).toBeVisible()
  await popover.getByLabel('Show nothing else').check()
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Sow peas')).toHaveCount(0)
  await expect(marked).toBeVisible()
  await page.getByRole('button', { name: /^Filter/ }).click()
  await popover.getByRole('button', { name: 'Show all alike' }).click()
  await page.keyboard.press('Escape')
  // A click on the badge changes it.
  await marked.locator('[data-badge]').click()
  await page.getByRole('button', { name: 'Take it off' }).click()
  await expect(topic(page, 'Prune, tagged dry days, Task begun')).toBeVisible()
})

test('a drawing is put on a topic and resized by its corner; the width of a text is dragged', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await openSection(page, /^Badges, tags, picture/)
  await sheet(page).getByRole('button', { name: 'From the drawings' }).click()
  await page.getByRole('textbox', { name: 'Find a drawing' }).fill('bird')
  await page.getByRole('button', { name: 'wader' }).click()
  const spring = topic(page, 'Spring, with a picture')
  await expect(spring.locator('image')).toHaveAttribute('width', '160')
  await page.getByRole('button', { name: 'Close the drawings' }).click()
  const dragBy = async (handle: string, dx: number) => {
    const { x, y, width, height } = (await page.getByRole('button', { name: handle }).boundingBox())!
    await page.mouse.move(x + width / 2, y + height / 2)
    await page.mouse.down()
    await page.mouse.move(x + width / 2 + dx, y + height / 2, { steps: 5 })
    await page.mouse.up()
  }
  await dragBy('Resize the picture of Spring', 60)
  await expect.poll(async () => Number(await spring.locator('image').getAttribute('width'))).toBeGreaterThan(180)
  await page.keyboard.press('Escape')
  await selectTopic(page, 'Sow peas')
  const height = async () => (await topic(page, 'Sow peas').boundingBox())!.height
  const before = await height()
  await dragBy('Change the width of Sow peas', -30)
  await expect.poll(height).toBeGreaterThan(before)
  await expectNoOverlap(page)
  await choose(page, 'Sow peas', 'Dress', 'As wide as its words')
  await expect.poll(height).toBeCloseTo(before, 0)
})

test('a level looks alike on one map, and then on all of them', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Sow peas')
  await openSection(page, /^Look/)
  await sheet(page).getByText('Level', { exact: true }).click()
  await expect(sheet(page).getByText('The second level of this map')).toBeVisible()
  await sheet(page).getByText('and of all maps').click()
  await sheet(page).getByRole('button', { name: 'a card', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Undo: change the look of all maps' })).toBeVisible()
  await expect(topic(page, 'Leaves').locator('.ground-card')).toHaveCount(1)
  await expect(topic(page, 'Autumn').locator('.ground-card')).toHaveCount(0)
  await allSaved(page)
  await page.getByRole('link', { name: 'All maps' }).click()
  await makeMap(page, 'Orchard')
  await page.keyboard.press('Tab')
  await write(page, 'Apples')
  await page.keyboard.press('Tab')
  await write(page, 'Early ones')
  await expect(topic(page, 'Early ones').locator('.ground-card')).toHaveCount(1)
  await expect(topic(page, 'Apples').locator('.ground-card')).toHaveCount(0)
})

test('a picture that was copied elsewhere is pasted onto a topic, and text onto the root where none is selected', async ({
  page,
}) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Prune')
  await page.evaluate(async () => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 320, height: 200 })
    const context = canvas.getContext('2d')!
    context.fillStyle = '#1f6f63'
    context.fillRect(40, 40, 240, 120)
    const png = await new Promise<Blob>((done) => canvas.toBlob((blob) => done(blob!), 'image/png'))
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })])
  })
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Prune, with a picture').locator('image')).toHaveAttribute('width', '240')
  await expectNoOverlap(page)
  await page.keyboard.press('Escape')
  const stage = (await page.locator('[data-stage]').boundingBox())!
  await page.mouse.click(stage.x + 8, stage.y + stage.height - 8)
  await expect(page.locator('[aria-selected="true"]')).toHaveCount(0)
  await page.evaluate(() => navigator.clipboard.writeText('Compost'))
  await page.keyboard.press('Control+v')
  await expect(topic(page, 'Compost')).toHaveAttribute('aria-level', '2')
})

test('a draft and the drawings stand side by side', async ({ page }) => {
  await plantGarden(page, GARDEN)
  await selectTopic(page, 'Spring')
  await choose(page, 'Spring', 'Gather', /^Draft/)
  await openSection(page, /^Badges, tags, picture/)
  await sheet(page).getByRole('button', { name: 'From the drawings' }).click()
  const [draft, drawings] = await Promise.all(
    ['Draft', 'Drawings'].map(async (name) => (await page.getByRole('region', { name }).boundingBox())!),
  )
  const apart = draft!.x + draft!.width <= drawings!.x || drawings!.x + drawings!.width <= draft!.x
  expect(apart).toBe(true)
})

test('on a connector a topic is put between, and a branch is taken off', async ({ page }) => {
  await plantGarden(page, '- Spring\n  - Sow peas')
  await selectTopic(page, 'Garden')
  const peas = (await topic(page, 'Sow peas').boundingBox())!
  await page.mouse.click(peas.x - 6, peas.y + peas.height / 2)
  await page.getByRole('menuitem', { name: 'Put a topic between' }).click()
  await page.keyboard.type('March')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'March')).toHaveAttribute('aria-level', '3')
  await expect(topic(page, 'Sow peas')).toHaveAttribute('aria-level', '4')
  await selectTopic(page, 'Garden')
  const march = (await topic(page, 'March').boundingBox())!
  await page.mouse.click(march.x - 6, march.y + march.height / 2)
  await page.getByRole('menuitem', { name: 'Take the branch off' }).click()
  await expect(topic(page, 'March')).toHaveAttribute('aria-level', '1')
  await expectNoOverlap(page)
})
