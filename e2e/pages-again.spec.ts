import { zipSync } from 'fflate'
import { allSaved, beginWithoutAccount, expectNoBarriersInBoth, selectTopic, topic } from './person'
import { expect, test } from './watched'

const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg=='
const WATER =
  '# Water\n\nSee [the gate](sub/gate.html).\n\n![Dam](dam.png)\n\n## Dams\n\n- Peat\n- Steel\n\n## Ditches\n\n- One\n'
const GATE = '<html><head><title>Gate</title></head><body><h1>Gate</h1><ul><li>Hinges</li></ul></body></html>'

const zip = (pages: Record<string, string>) => ({
  name: 'handbook.zip',
  mimeType: 'application/zip',
  buffer: Buffer.from(
    zipSync({
      ...Object.fromEntries(Object.entries(pages).map(([path, text]) => [`book/${path}`, Buffer.from(text)])),
      'book/dam.png': Buffer.from(PIXEL, 'base64'),
      'book/unused.csv': Buffer.from('a,b\n'),
    }),
  ),
})

test('a folder of pages comes in with its picture, and once more with what was changed at its source', async ({
  page,
}) => {
  await beginWithoutAccount(page)
  const collection = page.url()
  const choose = async (pages: Record<string, string>) => {
    await page.goto(collection)
    await page.getByRole('button', { name: 'Import text' }).click()
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Choose files' }).click()
    await (await chooser).setFiles(zip(pages))
  }
  await choose({ 'water.md': WATER, 'sub/gate.html': GATE, 'draft.md': '# Draft\n\n- Not yet\n' })
  await expect(page.getByText('3 of 3 pages, and of 2 files those to which they lead')).toBeVisible()
  await page.getByRole('checkbox', { name: 'draft.md' }).click()
  await page.getByRole('button', { name: 'Make 2 maps' }).click()
  await expect(page.getByRole('link', { name: 'Gate', exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Water', exact: true }).first().click()
  await expect(topic(page, 'Peat')).toBeVisible()
  await expect(page.getByRole('treeitem', { name: /^Water, Note, 1 file/ })).toBeVisible()

  // Somebody works on it here, and somebody else at the source.
  await selectTopic(page, 'Steel')
  await page.keyboard.press('F2')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Steel sheets')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await choose({
    'water.md': WATER.replace('- Peat\n', '- Peat and planks\n- Rush\n')
      .replace('- One\n', '')
      .replace('- Steel', '- Iron'),
    'weir.md': '# Weir\n\n- Planks\n',
  })
  const told = page.getByRole('region', { name: 'What is different' })
  await expect(told.getByRole('heading', { name: 'water.md the map Water' })).toBeVisible()
  await expect(told.getByText('Peat and planks')).toBeVisible()
  await expect(told.getByRole('definition')).toHaveText([
    'Peat and planks',
    'Rush',
    'Iron',
    'Peat',
    'One',
    'Steel sheets',
  ])
  await expect(told.getByText('weir.md becomes a map')).toBeVisible()
  await told.getByRole('checkbox', { name: /gate.html: put the map Gate into the trash/ }).click()
  await expectNoBarriersInBoth(page)
  await page.getByRole('button', { name: 'Take the changes' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(page.getByRole('link', { name: 'Weir', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Gate', exact: true })).toBeHidden()
  await page.getByRole('link', { name: 'Water', exact: true }).first().click()
  for (const name of ['Peat and planks', 'Rush', 'Steel sheets', 'Ditches'])
    await expect(topic(page, name)).toBeVisible()
  await expect(topic(page, 'One')).toBeHidden()
})
