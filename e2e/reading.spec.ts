import { smallDocx, smallPdf } from '../tests/small-documents'
import { allSaved, expectNoBarriersInBoth, openSection, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test('five sources are collected on a branch and read beside the map, and what is taken over keeps where it is from', async ({
  page,
}) => {
  await plantGarden(page, '- Peas\n  - Sowing\n  - Frost')
  await selectTopic(page, 'Peas')
  await openSection(page, /^Files/)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles([
    {
      name: 'growing.pdf',
      mimeType: 'application/pdf',
      buffer: smallPdf(['Peas want sun.', 'Sow peas before the last frost, two fingers deep.']),
    },
    {
      name: 'letter.docx',
      mimeType: 'application/zip',
      buffer: await smallDocx('<w:p><w:r><w:t>Mulch keeps the roots cool.</w:t></w:r></w:p>'),
    },
    {
      name: 'rain.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('day,rain\n2025-04-01,3\n2025-04-02,5.5\n2025-04-03,0\n'),
    },
    { name: 'notes.md', mimeType: 'text/markdown', buffer: Buffer.from('# Varieties\n\n- *Round* peas\n') },
  ])
  await expect(page.getByRole('button', { name: 'notes.md', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Add a web link' }).click()
  await page.getByRole('textbox', { name: 'Address' }).pressSequentially('example.org/pea-weevil.html')
  await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Pea weevil')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Done', exact: true }).click()

  // By the keyboard: the first that is still to be read.
  await selectTopic(page, 'Peas')
  await page.keyboard.press('Alt+s')
  const pane = page.getByRole('region', { name: 'Reading growing.pdf' })
  await expect(pane.getByRole('button', { name: '1 of 5 5 to read' })).toBeVisible()
  await pane.getByText('Sow peas before the last frost').selectText()
  await page.getByRole('button', { name: 'As a topic' }).click()
  await expect(topic(page, 'Sow peas before the last frost, two fingers deep.')).toBeVisible()
  await expect(page.getByText('Taken as a topic below Peas.')).toBeVisible()
  await pane.getByRole('checkbox', { name: 'Read' }).click()
  await expect(pane.getByRole('checkbox', { name: 'Read' })).toBeChecked()
  await expectNoBarriersInBoth(page)

  await page.getByRole('button', { name: 'The next source' }).click()
  await page.getByText('Mulch keeps the roots cool.').selectText()
  await page.keyboard.press('Alt+Shift+q')
  await expect(page.getByText('Taken into the note of Peas.')).toBeVisible()
  await expect(
    page.getByRole('complementary', { name: 'Topic sheet' }).getByText('Mulch keeps the roots cool.'),
  ).toBeVisible()
  await page.getByRole('button', { name: 'The next source' }).click()
  await expect(page.getByRole('cell', { name: '5.5' })).toBeVisible()
  await page.getByText('Chart', { exact: true }).click()
  await page.getByRole('button', { name: 'Put the chart on Peas' }).click()
  await expect(page.getByText('The chart is the picture of Peas')).toBeVisible()
  await expect(topic(page, 'Peas').locator('image')).toBeVisible()
  await page.getByRole('button', { name: 'The next source' }).click()
  await expect(page.getByRole('region', { name: 'Reading notes.md' }).getByText('Varieties')).toBeVisible()
  await page.getByRole('button', { name: 'The next source' }).click()
  await page.getByRole('textbox', { name: 'A passage of it' }).fill('The weevil eats the edges of the leaves.')
  // As a hand drags: with more than one move on the way.
  await page.getByTitle('Drag it onto a topic').hover()
  await page.mouse.down()
  await topic(page, 'Sowing').hover()
  await topic(page, 'Frost').hover()
  await page.mouse.up()
  await expect(topic(page, 'The weevil eats the edges of the leaves.')).toBeVisible()
  await page.getByRole('button', { name: '5 of 5 4 to read' }).click()
  await expect(page.getByRole('menuitem', { name: 'growing.pdf' })).toContainText('read')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Close what is read' }).click()
  await allSaved(page)

  // A newer version takes its place; the earlier one is still there.
  await selectTopic(page, 'Peas')
  await openSection(page, /^Files/)
  await page.getByRole('button', { name: 'rain.csv: what can be done' }).click()
  const newer = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: 'Replace by a newer version …' }).click()
  await (await newer).setFiles({
    name: 'rain-2.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('day,rain\n2025-05-01,1\n'),
  })
  await expect(page.getByRole('button', { name: 'rain-2.csv', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'an earlier version' }).click()
  await page.getByRole('menuitem', { name: 'Put this one back' }).click()
  await expect(page.getByRole('button', { name: 'rain.csv', exact: true })).toBeVisible()

  // A sentence that is only inside the PDF is found, and search arrives at its page.
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused()
  await page.keyboard.type('two fingers')
  await page.getByRole('option', { name: /Inside a file/ }).click()
  await expect(page.locator('[data-page="2"]').getByText('two fingers deep')).toBeInViewport()
})
