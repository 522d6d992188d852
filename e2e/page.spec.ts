import { allSaved, expectNoBarriers, plantGarden, topic } from './person'
import { expect, test } from './watched'

test('a text is written on the page from its first idea: headings are topics, what is below them notes', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n  - Peas\n- Summer')
  await page.keyboard.press('Alt+3')
  const text = page.getByRole('document', { name: 'Page of Garden' })
  const heading = (name: string) =>
    text.getByRole('textbox', { name: /^Heading/ }).and(page.locator(`:text-is("${name}")`))
  const note = text.getByRole('textbox', { name: 'Note' })
  const section = (name: string) =>
    text.locator('[data-topic]').filter({ has: page.locator(`textarea:text-is("${name}")`) })
  await expect(heading('Spring')).toBeVisible()
  await expectNoBarriers(page)

  // From a heading into its note, and from the end of the note to the next heading, without the mouse.
  await heading('Summer').click()
  await page.keyboard.press('Enter')
  await expect(note).toBeFocused()
  await page.keyboard.type('The beds lie dry by June.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Water in the evening.')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(text.locator('textarea:focus')).toHaveValue('')
  // New headings are gathered like topics on the map: Enter begins the next, Tab one below, an empty one is none.
  await page.keyboard.type('Autumn')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Winter')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Prune')
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.type('Rest')
  await expect(section('Winter')).toHaveAttribute('data-level', '1')
  await expect(section('Prune')).toHaveAttribute('data-level', '2')
  await page.keyboard.press('Escape')
  await expect(section('Rest')).toHaveAttribute('data-level', '1')
  await heading('Autumn').click()
  await page.keyboard.press('Enter')
  await expect(note).toBeFocused()
  await page.keyboard.type('Leaves are gathered.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Frost')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Cover the leeks.')
  // The heading command: a paragraph becomes a topic, and what follows goes along.
  await note.getByText('Frost').click()
  await page.keyboard.press('Control+Enter')
  await expect(text.locator('textarea:focus')).toHaveValue('Frost')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(section('Autumn')).toContainText('Leaves are gathered.')
  await expect(section('Frost')).toContainText('Cover the leeks.')
  await expect(section('Frost')).toHaveAttribute('data-level', '2')

  // A heading is written where it stands; the contents lead there.
  await heading('Peas').click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Early peas')
  await page.keyboard.press('Escape')
  await page.getByRole('navigation', { name: 'Contents' }).getByRole('button', { name: 'Autumn' }).click()
  await expect(section('Autumn')).toHaveAttribute('data-selected', 'true')
  await allSaved(page)

  // A press into a note writes there.
  await text.getByText('Water in the evening.').click()
  await expect(note).toBeFocused()
  await page.keyboard.press('End')
  await page.keyboard.type(' Never at noon.')
  await page.keyboard.press('Escape')
  await expect(text.getByText('Water in the evening. Never at noon.')).toBeVisible()

  // What stands only in a note is found, and the way leads to it.
  await page.keyboard.press('Control+k')
  await page.keyboard.type('leeks cover')
  await page.getByRole('option', { name: /Cover the leeks.*note of Frost/ }).click()
  await expect(section('Frost')).toHaveAttribute('data-selected', 'true')
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toContainText('Cover the leeks.')

  // On the map it is all there, and each heading leads to its topic.
  await text.getByRole('button', { name: 'Show Frost on the map' }).click()
  await expect(topic(page, 'Frost, Note')).toHaveAttribute('aria-selected', 'true')
  await expect(topic(page, 'Early peas')).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'Peas')).toBeVisible()

  // Beside the map they follow one another.
  await page.getByRole('button', { name: 'Open a second pane' }).click()
  await page.getByRole('option', { name: 'This map as page' }).click()
  await page.locator('[data-stage]').getByRole('tree').focus()
  await page.keyboard.press('Alt+f')
  await topic(page, 'Autumn, Note').click()
  await expect(section('Autumn')).toHaveAttribute('data-selected', 'true')
  await text
    .getByRole('textbox', { name: /^Heading/ })
    .first()
    .click()
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
})

test('of a long page only what is seen is there, and it has room on a telephone', async ({ page }) => {
  const lines = Array.from({ length: 1_500 }, (_, i) => `${i % 10 === 0 ? '' : '  '}- Part ${i} of a long manual`)
  await plantGarden(page, lines.join('\n'))
  await page.keyboard.press('Alt+3')
  const text = page.getByRole('document', { name: 'Page of Garden' })
  await expect(text.getByText('Part 0 of a long manual')).toBeVisible()
  expect(await text.locator('[data-topic]').count()).toBeLessThan(60)
  await text.focus()
  await page.keyboard.press('End')
  await expect(text.getByText('Part 1499 of a long manual')).toBeVisible()
  await page.setViewportSize({ width: 390, height: 800 })
  await expect(page.getByRole('navigation', { name: 'Contents' })).toBeHidden()
  expect(await text.evaluate(({ scrollWidth, clientWidth }) => scrollWidth - clientWidth)).toBe(0)
})
