import sharp from 'sharp'
import { allSaved, choose, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

/** A list of so many branches with four topics each. */
const long = (branches: number) =>
  Array.from(
    { length: branches },
    (_, i) => `- Branch ${i}\n${[1, 2, 3, 4].map((n) => `  - Topic ${i}.${n}`).join('\n')}`,
  ).join('\n')

test('a large map is seen whole as bars, with an overview, and every way of fitting leads back', async ({ page }) => {
  await plantGarden(page, long(90))
  const stage = page.locator('[data-stage]')
  // Seen whole, its words cannot be read: bars on a canvas stand for them, and only what is selected is an element.
  await expect(stage.locator('canvas').first()).toBeVisible()
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeLessThan(10)
  const box = (await stage.boundingBox())!
  await page.mouse.dblclick(box.x + box.width / 2 + 14, box.y + box.height / 2)
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeGreaterThan(20)
  await page.keyboard.press('Alt+z')
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeLessThan(10)
  await page.keyboard.press('Alt+Shift+f')
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeGreaterThan(20)
  await expect(topic(page, 'Branch 0')).toBeInViewport()
  await selectTopic(page, 'Branch 0')
  await page.keyboard.press('Alt+g')
  for (const name of ['Branch 0', 'Topic 0.1', 'Topic 0.4']) await expect(topic(page, name)).toBeInViewport()
  // A press on the overview goes there.
  const overview = stage.getByTitle(/^The whole map/)
  const small = (await overview.boundingBox())!
  await page.mouse.click(small.x + small.width / 2, small.y + small.height - 12)
  await expect(topic(page, 'Branch 0')).not.toBeInViewport()
  await page.keyboard.press('Alt+v')
  await expect(overview).toHaveCount(0)
})

test('while the view moves the map looks as it does at rest', async ({ page }) => {
  await plantGarden(page, long(12), false)
  const stage = page.locator('[data-stage]')
  const box = (await stage.boundingBox())!
  await page.mouse.click(box.x + 20, box.y + 20)
  await page.mouse.move(box.x + 60, box.y + 60)
  await page.keyboard.down('Control')
  for (let turn = 0; turn < 4; turn++) await page.mouse.wheel(0, -60)
  await page.keyboard.up('Control')
  // The page holds no more than is near, once the view rests.
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeLessThan(61)
  await expect(stage.locator('canvas')).toBeHidden()
  // A hand that never rests: what has come into view is on the canvas then, not in the page.
  await stage.evaluate((element) => {
    const wheel = (deltaX: number, deltaY: number) =>
      element.dispatchEvent(new WheelEvent('wheel', { deltaX, deltaY, bubbles: true, cancelable: true }))
    wheel(500, 500)
    Object.assign(window, { hand: setInterval(() => wheel(0, 0.001), 20) })
  })
  await expect(stage.locator('canvas')).toBeVisible()
  const moving = await stage.screenshot()
  const topics = () => stage.locator('[data-topic]').evaluateAll((all) => all.map((each) => each.id))
  const inPage = await topics()
  await page.evaluate(() => clearInterval((window as unknown as { hand: number }).hand))
  await expect(stage.locator('canvas')).toBeHidden()
  const resting = await stage.screenshot()
  expect((await topics()).filter((id) => !inPage.includes(id))).not.toEqual([])
  // Edges of letters are smoothed in two ways: what counts is where there is ink.
  const pixels = (picture: Buffer) => sharp(picture).greyscale().blur(2).raw().toBuffer()
  const [a, b] = await Promise.all([pixels(moving), pixels(resting)])
  expect(b.filter((tone) => tone < 240).length).toBeGreaterThan(b.length * 0.01)
  expect(b.filter((tone, i) => Math.abs(tone - a[i]!) > 24).length).toBeLessThan(b.length * 0.001)
})

test('nothing moves by a pixel when it is pointed at, selected or written', async ({ page }) => {
  await plantGarden(
    page,
    '- Spring\n  - Sow peas in rows\n  - Prick out leeks\n- Summer\n  - Water every evening\n- Autumn',
  )
  await page.getByRole('button', { name: /choose what to see/ }).click()
  await page.getByRole('menuitem', { name: '100 %' }).click()
  const drawn = () =>
    page.locator('[data-stage] [data-topic] text').evaluateAll((texts) =>
      texts.map((text) => {
        const { x, y, width, height } = text.getBoundingClientRect()
        return `${text.textContent} ${[x, y, width, height].map((length) => length.toFixed(2)).join(' ')}`
      }),
    )
  for (const name of ['Sow peas in rows', 'Water every evening', 'Spring']) {
    const words = topic(page, name).locator('text').first()
    const { x, y, width, height } = (await words.boundingBox())!
    const clip = {
      x: Math.floor(x) - 2,
      y: Math.floor(y) + 3,
      width: Math.ceil(width) + 4,
      height: Math.ceil(height) - 6,
    }
    /** The middle of the ink of the letters, in px of the clip. */
    const middle = async () => {
      const { data, info } = await sharp(await page.screenshot({ clip }))
        .greyscale()
        .raw()
        .toBuffer({ resolveWithObject: true })
      const ground = [...data].sort((a, b) => b - a)[Math.floor(data.length * 0.3)]!
      let [ink, across, down] = [0, 0, 0]
      data.forEach((tone, i) => {
        const dark = Math.max(0, ground - tone - 8)
        ink += dark
        across += dark * (i % info.width)
        down += dark * Math.floor(i / info.width)
      })
      return { across: across / ink, down: down / ink }
    }
    const away = () => page.mouse.move(640, 795)
    await away()
    const [texts, rest] = [await drawn(), await middle()]
    await topic(page, name).hover()
    await expect.poll(drawn).toEqual(texts)
    await topic(page, name).click()
    await away()
    await expect(topic(page, name)).toHaveAttribute('aria-selected', 'true')
    expect(await drawn()).toEqual(texts)
    // What can be dragged shows it.
    await expect(topic(page, name)).toHaveCSS('cursor', 'grab')
    await page.keyboard.press('F2')
    const field = page.getByRole('textbox', { name: 'Text of the topic' })
    await field.press('End')
    await field.evaluate((element) => element.style.setProperty('caret-color', 'transparent'))
    const written = await middle()
    expect(Math.abs(written.across - rest.across)).toBeLessThan(1)
    expect(Math.abs(written.down - rest.down)).toBeLessThan(1)
    expect(texts).toEqual(expect.arrayContaining(await drawn()))
    await page.keyboard.press('Escape')
    await expect(field).toHaveCount(0)
    expect(await drawn()).toEqual(texts)
  }
})

test('the selection is never lost: deleted or filtered away it hands over to what is above', async ({ page }) => {
  await plantGarden(page, '- Spring\n  - Sow peas\n    - In rows\n- Summer')
  await selectTopic(page, 'In rows')
  await page.keyboard.press('Delete')
  await expect(page.locator('[aria-selected="true"]')).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await selectTopic(page, 'In rows')
  await page.getByRole('button', { name: /^Filter/ }).click()
  await page.getByLabel('Topics with these words').fill('summer')
  await page.getByLabel('Show nothing else').check()
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
})

test('the keyboard stays on the map after undo, folding, and what somebody else takes away', async ({
  page,
  context,
}) => {
  await plantGarden(page, '- Spring\n  - Sow peas\n    - In rows\n- Summer')
  const selected = page.locator('[data-stage] [aria-selected="true"]')
  const tree = page.getByRole('tree')
  // What was just written is taken back: what it hung on, or stood beside, has the keyboard.
  await selectTopic(page, 'Sow peas')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Late ones')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Late ones')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'Late ones')).toHaveCount(0)
  await expect(selected).toHaveCount(1)
  await expect(tree).toBeFocused()
  // A fold over the selected topic hands over to the topic that folds.
  await selectTopic(page, 'In rows')
  await choose(page, 'In rows', 'Shape', 'The map to level 1')
  await expect(topic(page, 'Spring')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press(' ')
  await selectTopic(page, 'Sow peas')
  await allSaved(page)
  const other = await context.newPage()
  await other.goto(page.url())
  await selectTopic(other, 'Spring')
  await other.keyboard.press('Delete')
  await expect(topic(page, 'Spring')).toHaveCount(0)
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
  await page.bringToFront()
  await page.keyboard.press('Tab')
  await page.keyboard.type('Autumn')
  await page.keyboard.press('Enter')
  await expect(topic(page, 'Autumn')).toHaveAttribute('aria-level', '2')
})

test('with fingers: a tap selects, a long press opens the menu, a drag moves the map', async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, permissions: ['clipboard-read', 'clipboard-write'] })
  const page = await context.newPage()
  await plantGarden(page, '- Spring\n- Summer')
  await topic(page, 'Spring').tap()
  await expect(topic(page, 'Spring')).toHaveAttribute('aria-selected', 'true')
  const client = await context.newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] })
  const summer = (await topic(page, 'Summer').boundingBox())!
  const at = { x: summer.x + summer.width / 2, y: summer.y + summer.height / 2 }
  await touch('touchStart', at.x, at.y)
  await expect(page.getByRole('menuitem', { name: 'Add a child' })).toBeVisible()
  await touch('touchEnd')
  await page.keyboard.press('Escape')
  await topic(page, 'Spring').tap()
  const before = (await topic(page, 'Summer').boundingBox())!
  await touch('touchStart', before.x + 4, before.y + 4)
  for (const step of [20, 50, 90]) await touch('touchMove', before.x + 4, before.y + 4 - step)
  await touch('touchEnd')
  await expect.poll(async () => (await topic(page, 'Summer').boundingBox())!.y).toBeLessThan(before.y - 40)
  // Two fingers moving apart bring the map nearer.
  const { width } = (await topic(page, 'Summer').boundingBox())!
  const stage = (await page.locator('[data-stage]').boundingBox())!
  const [x, y] = [stage.x + stage.width / 2, stage.y + stage.height - 60]
  const pinch = (type: 'touchStart' | 'touchMove', apart: number) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: [
        { x: x - apart, y, id: 0 },
        { x: x + apart, y, id: 1 },
      ],
    })
  await pinch('touchStart', 30)
  for (const apart of [40, 50, 60]) await pinch('touchMove', apart)
  await touch('touchEnd')
  await expect.poll(async () => (await topic(page, 'Summer').boundingBox())!.width).toBeGreaterThan(width * 1.6)
  await context.close()
})
