import { allSaved, expectNoBarriersInBoth, openSection, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test('ideas are written down from any screen, and pages of the web are kept in the drawer or below a topic', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  await allSaved(page)
  const map = page.url()
  const collection = new URL(map).pathname.split('/')[2]!
  await page.goto(`/c/${collection}/files`)
  await expect(page.getByRole('heading', { name: 'Files' })).toBeVisible()
  await page.keyboard.press('Alt+j')
  const idea = page.getByRole('textbox', { name: 'The idea' })
  await idea.fill('Net the peas')
  await page.keyboard.press('Enter')
  await expect(idea).toHaveValue('')
  await idea.fill('Ask about\nthe water butt')
  await page.keyboard.press('Control+Enter')
  await expect(idea).toBeHidden()

  // The bookmark opens this page with what it found on a page of somebody else.
  await page.goto('/capture')
  const bookmark = page.getByText('Keep in Folvet')
  await expect(bookmark).toHaveAttribute('href', /^javascript:.*\/capture\?/)
  const found = {
    title: 'Pea moth <b>& co</b>',
    url: 'https://example.org/moth',
    text: 'It lays its eggs in June.',
  }
  await page.goto(`/capture?${new URLSearchParams(found)}`)
  await expect(page.getByRole('textbox', { name: 'What it is called' })).toHaveValue(found.title)
  await expectNoBarriersInBoth(page)
  await page.getByRole('button', { name: 'In the drawer To place …' }).click()
  await page.getByRole('dialog').getByRole('combobox').fill('bea')
  await page.getByRole('option', { name: /^Beans/ }).click()
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('It is in Beans, in My collection.')).toBeVisible()

  await page.goto(map)
  await selectTopic(page, 'Pea moth <b>& co</b>')
  await openSection(page, /^Links/)
  await expect(page.getByRole('link', { name: 'example.org/moth' }).first()).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Note' })).toContainText('It lays its eggs in June.')
  await page.getByRole('button', { name: /^To place/ }).click()
  const drawer = page.getByRole('list', { name: 'Ideas to place' })
  await expect(drawer.getByText('Net the peas')).toBeVisible()
  await expect(drawer.getByText('Ask about')).toBeVisible()
  await expect(topic(page, 'Peas')).toBeVisible()
})
