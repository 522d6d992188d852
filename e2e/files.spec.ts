import { allSaved, expectNoBarriersInBoth, openSection, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test('the files ledger tells where each file is and what is the same, renames, and removes what is nowhere', async ({
  page,
}) => {
  await plantGarden(page, '- Sow peas\n- Lift leeks')
  await allSaved(page)
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const hang = async (name: string, file: string, text: string) => {
    const on = await topic(page, name).getAttribute('data-topic')
    const answer = await page.request.post(`/api/collections/${collection}/files?topic=${on}&name=${file}`, {
      data: Buffer.from(text),
    })
    expect(answer.status()).toBe(201)
  }
  await hang('Sow peas', 'plan.txt', 'Rows of two.')
  await hang('Lift leeks', 'plan-again.txt', 'Rows of two.')
  await hang('Lift leeks', 'counts.csv', 'day,leeks\n1,4\n')
  await page.goto(`/c/${collection}`)
  await page.getByRole('link', { name: 'Files', exact: true }).click()
  await expect(page.getByText(/^3 files, /)).toBeVisible()
  const row = (name: string) => page.getByRole('row', { name: new RegExp(name) })
  await expect(row('plan.txt')).toContainText('another file is the same')
  await page.getByText('The same content 2').click()
  await expect(page.getByText(/^2 files, /)).toBeVisible()
  await page.getByText('All 3').click()
  await expectNoBarriersInBoth(page)
  await page.getByRole('button', { name: 'counts.csv: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Rename …' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('leeks counted.csv')
  await page.keyboard.press('Enter')
  await expect(row('leeks counted.csv')).toBeVisible()

  // Taken off its topic, a file is nowhere, until it is removed.
  await row('leeks counted.csv').getByRole('link', { name: 'Lift leeks' }).click()
  await selectTopic(page, 'Lift leeks')
  await openSection(page, /^Files/)
  await page.getByRole('button', { name: 'leeks counted.csv: what can be done' }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await page.getByRole('button', { name: 'Choose files' }).evaluate((button) => {
    const carried = new DataTransfer()
    carried.items.add(new File(['Frost on the ninth.'], 'pasted.txt', { type: 'text/plain' }))
    button.dispatchEvent(new ClipboardEvent('paste', { clipboardData: carried, bubbles: true, cancelable: true }))
  })
  await expect(page.getByRole('button', { name: 'pasted.txt', exact: true })).toBeVisible()
  await allSaved(page)
  await page.goto(`/c/${collection}/files`)
  await page.getByText('Nowhere 1').click()
  await page.getByRole('button', { name: 'Remove it' }).click()
  await expect(page.getByText('No file is like this.')).toBeVisible()
  await page.getByRole('button', { name: /^Undo: Remove leeks counted\.csv/ }).click()
  await expect(row('leeks counted.csv')).toContainText('nowhere')
})
