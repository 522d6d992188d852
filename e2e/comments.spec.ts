import {
  allSaved,
  expectNoBarriers,
  expectNoBarriersInBoth,
  openSection,
  plantGarden,
  selectTopic,
  topic,
} from './person'
import { expect, test } from './watched'

test('two people talk about a topic: one who may only comment answers, and both see what is new and what is settled', async ({
  page,
  browser,
  allow,
}) => {
  allow(/^503 GET .*\/maps\//)
  await plantGarden(page, '- Peas\n- Beans')
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Alt+m')
  const field = page.getByRole('textbox', { name: 'Say something about this topic' })
  await expect(field).toBeInViewport()
  await field.fill('Is March too early?')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Is March too early?')).toBeVisible()
  await expect(topic(page, 'Peas')).toHaveAccessibleName(/1 open comment/)
  await allSaved(page)

  const address = page.url()
  const collection = new URL(address).pathname.split('/')[2]!
  const asked = { to: 'link', role: 'commenter', maps: null, withChildMaps: false, endsAt: null }
  const given = await page.request.post(`/api/collections/${collection}/grants`, { data: asked })
  const { secret } = (await given.json()) as { secret: string }
  const context = await browser.newContext({ baseURL: new URL(address).origin, reducedMotion: 'reduce' })
  const other = await context.newPage()
  await other.request.post('/api/guests')
  await other.request.post('/api/links', { data: { secret } })
  await other.goto(address)
  // What was said is new to them, until they have seen it.
  await expect(other.getByRole('link', { name: '1 new comment' })).toBeVisible()
  await selectTopic(other, 'Peas')
  await openSection(other, /^Comments/)
  await expect(other.getByText('new', { exact: true })).toBeVisible()
  await other.getByRole('button', { name: 'Answer' }).click()
  await other.getByRole('textbox', { name: /^Answer/ }).fill('Not in a cold frame.')
  await other.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(other.getByRole('link', { name: '1 new comment' })).toHaveCount(0)
  await expect(other.getByText('Not in a cold frame.')).toBeVisible()
  await allSaved(other)
  await other.keyboard.press('Escape')
  await selectTopic(other, 'Beans')
  await other.keyboard.type('X')
  await other.keyboard.press('Enter')
  await expect(topic(other, 'Beans')).toBeVisible()

  // It arrives where the first one is, is told as new, and is settled in the list of all.
  await expect(page.getByText('Not in a cold frame.')).toBeVisible()
  await page.goto(`/c/${collection}`)
  await page.getByRole('link', { name: 'Comments', exact: true }).click()
  await expect(page.getByText('Open 1')).toBeVisible()
  await expect(page.getByText('Not in a cold frame.')).toBeVisible()
  await expectNoBarriersInBoth(page)
  // What cannot be said just now stays in its field.
  const away = { error: 'The database is away just now.' }
  await page.route('**/maps/*', (route) => route.fulfill({ status: 503, json: away }))
  await page.getByRole('button', { name: 'Answer' }).click()
  const answer = page.getByRole('textbox', { name: /^Answer/ })
  await answer.fill('April, then.')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText(away.error)).toBeVisible()
  await expect(answer).toHaveValue('April, then.')
  await page.unroute('**/maps/*')
  await page.getByRole('button', { name: 'Answer', exact: true }).click()
  await expect(answer).toHaveCount(0)
  await expect(page.getByText('April, then.')).toBeVisible()
  await page.getByRole('button', { name: 'Mark as settled' }).click()
  await expect(page.getByText('Settled 1')).toBeVisible()
  await expect(page.getByText('Open 0')).toBeVisible()
  await expect(topic(other, 'Peas')).not.toHaveAccessibleName(/open comment/)
  await page.getByText('Settled 1').click()
  await page.getByRole('link', { name: 'Peas' }).click()
  await page.getByRole('button', { name: 'One that is settled' }).click()
  await page.getByRole('button', { name: 'Remove: Is March too early?' }).click()
  await expect(page.getByText('Not in a cold frame.')).toHaveCount(0)
  await page.getByRole('button', { name: /^Undo: remove a comment/ }).click()
  await expect(page.getByText('Not in a cold frame.')).toBeVisible()
  await expectNoBarriers(page)
  await context.close()
})
