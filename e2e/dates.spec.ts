import { readFileSync } from 'node:fs'
import { allSaved, drag, expectNoBarriersInBoth, openSection, plantGarden, selectTopic, topic, write } from './person'
import { expect, test } from './watched'

/** The date of a day so many days from today, as ISO 8601. */
function dayFromToday(days: number): string {
  const day = new Date()
  day.setDate(day.getDate() + days)
  return [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((part) => String(part).padStart(2, '0')).join('-')
}

/** A day as it stands in a field. */
const written = (day: string): string =>
  new Intl.DateTimeFormat('en-US', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(day),
  )

test('a season is planned: what is late comes first, days are dragged and ticked off, a calendar comes in and goes out', async ({
  page,
}) => {
  await plantGarden(page, '- Spring\n  - Sow peas\n  - Lime the beds\n- Autumn\n  - Lift leeks')
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const command = async (name: string, args: object) => {
    const asked = { id: await page.evaluate(() => crypto.randomUUID()), args }
    const answer = await page.request.post(`/api/collections/${collection}/commands/${name}`, { data: asked })
    expect(answer.status()).toBe(200)
  }
  const idOf = (name: string) => topic(page, name).getAttribute('data-topic')
  await allSaved(page)
  for (const [name, days, task] of [
    ['Sow peas', 3, null],
    ['Lime the beds', -20, 'open'],
    ['Lift leeks', 40, 'open'],
  ] as const) {
    await command('set-dates', { topics: [await idOf(name)], dates: { start: dayFromToday(days), end: null } })
    if (task) await command('set-task', { topics: [await idOf(name)], task, today: dayFromToday(0) })
  }
  await expect(topic(page, 'Lime the beds')).toHaveAccessibleName(/Task to do, overdue/)

  // In the topic sheet: a time of day, how it repeats, who does it, and how far all is that hangs below.
  await selectTopic(page, 'Sow peas')
  await openSection(page, /^Dates and task/)
  await page.getByLabel('Time of day at which it begins').fill('930')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Time of day at which it begins')).toHaveValue('09:30')
  await page.getByRole('combobox', { name: 'Repeats' }).click()
  await page.getByRole('option', { name: 'every two weeks' }).click()
  await page.getByRole('combobox', { name: 'Who' }).fill('Ada Moor')
  await page.keyboard.press('Enter')
  await page.getByText('to do', { exact: true }).click()
  await page.getByText('done', { exact: true }).click()
  await expect(page.getByRole('button', { name: /^Undo: tick off Sow peas: again on/ })).toBeVisible()
  await selectTopic(page, 'Spring')
  await expect(page.getByText('Below it: 0 of 2 tasks done, 0 %')).toBeVisible()
  await page.getByRole('button', { name: /^Undo/ }).first().click()
  await allSaved(page)
  await page.goto(`/c/${collection}`)
  await page.getByRole('link', { name: 'Dates', exact: true }).click()
  // What repeats is shown at each of its times, and tells who does it.
  await expect(page.getByRole('listitem').filter({ hasText: 'Ada Moor' }).first()).toContainText('09:30')
  expect(await page.getByRole('listitem').filter({ hasText: 'Ada Moor' }).count()).toBeGreaterThan(10)
  const overdue = page.getByRole('region', { name: 'Overdue' })
  await expect(overdue.getByRole('link')).toHaveText(['Lime the beds'])
  await overdue.getByRole('checkbox', { name: 'Lime the beds is done' }).click()
  await expect(overdue).toBeHidden()
  await expect(page.getByRole('region', { name: 'What is over' }).getByRole('link')).toHaveText(['Lime the beds'])
  await expectNoBarriersInBoth(page)

  // Dragged along the line of days, a topic is on another day.
  const line = page.getByRole('region', { name: 'Line of days' })
  const peas = line.getByRole('link', { name: /^Sow peas, / }).first()
  const before = (await peas.getAttribute('aria-label'))!
  const box = (await peas.boundingBox())!
  await drag(page, { x: box.x + 6, y: box.y + 6 }, { x: box.x + 106, y: box.y + 6 })
  await expect(peas).not.toHaveAttribute('aria-label', before)
  await page.getByRole('button', { name: /^Undo: Date Sow peas/ }).click()
  await expect(peas).toHaveAttribute('aria-label', before)

  // Or with the keyboard, by its days.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Lift leeks' })
    .getByRole('button', { name: /: change$/ })
    .click()
  const lastDay = page.getByRole('textbox', { name: 'Last day, of several' })
  await lastDay.fill(dayFromToday(1))
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^It cannot be before/)).toBeVisible()
  await lastDay.fill('in 6 weeks')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('listitem').filter({ hasText: 'Lift leeks' })).toContainText('–')

  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Bring a calendar in' }).click()
  const day = dayFromToday(10).replaceAll('-', '')
  const calendar = `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:${day}\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:Plant fair\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`
  await (await chooser).setFiles({ name: 'fairs.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar) })
  await expect(page.getByText('1 entry came into Garden.')).toBeVisible()
  await expect(line.getByRole('link', { name: /^Plant fair, / })).toBeVisible()
  await page.getByText('still to do').click()
  await expect(line.getByRole('link', { name: /^Lift leeks, / })).toBeVisible()
  await expect(line.getByRole('link', { name: /^Plant fair, / })).toHaveCount(0)
  await page.getByText('all', { exact: true }).click()
  await page.getByText('a month').click()
  await expect(page.getByRole('region', { name: 'Month' }).getByRole('columnheader')).toHaveCount(7)

  // Another calendar fetches them from an address of its own.
  await page.getByRole('button', { name: 'In another calendar' }).click()
  await page.getByRole('button', { name: 'Make an address' }).click()
  const address = await page.getByText(/\/feeds\//).textContent()
  expect(await (await page.request.get(address!)).text()).toContain('RRULE:FREQ=WEEKLY;INTERVAL=2')
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByRole('button', { name: 'Make an address' })).toBeVisible()
  await page.keyboard.press('Escape')

  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'As a calendar file' }).click()
  const written = readFileSync((await (await download).path())!, 'utf8')
  expect(
    written
      .match(/^SUMMARY:.*$/gm)
      ?.map((each) => each.trim())
      .sort(),
  ).toEqual(['Lift leeks', 'Lime the beds', 'Plant fair', 'Sow peas'].map((text) => `SUMMARY:${text}`).sort())
  await page.getByText('by week').click()
  await page.getByRole('listitem').getByRole('link', { name: 'Plant fair' }).first().click()
  await expect(topic(page, 'Plant fair')).toHaveAttribute('aria-selected', 'true')
})

test('a season is kept in step with a calendar elsewhere: both ways, with a choice where both changed, and single entries put on topics', async ({
  page,
  context,
  allow,
}) => {
  // There is none at the first address that is tried.
  allow(/^409 POST .*\/calendars\/found/)
  await plantGarden(page, '- Spring\n  - Sow peas\n- Autumn\n  - Lift leeks')
  const collection = new URL(page.url()).pathname.split('/')[2]!
  const map = page.url()
  await selectTopic(page, 'Sow peas')
  await openSection(page, /^Dates and task/)
  await page.getByLabel('On', { exact: true }).fill(dayFromToday(6))
  await page.keyboard.press('Enter')
  await allSaved(page)

  // The small calendar that is started with the application is found, and chosen.
  await page.goto(`/c/${collection}/dates`)
  await page.getByRole('button', { name: 'In step with calendars' }).click()
  const dialog = page.getByRole('dialog', { name: 'Calendars elsewhere' })
  const address = dialog.getByRole('textbox', { name: /^Address of the calendar/ })
  await address.fill('http://192.168.0.1/')
  await page.keyboard.press('Enter')
  await expect(dialog.getByRole('alert')).toHaveText('It lies in the server’s own network, and is not asked.')
  const offered = dialog.getByRole('button', { name: /^http/ })
  const standIn = (await offered.textContent())!
  await offered.click()
  await expect(dialog.getByRole('radio', { name: 'Season of the reserve' })).toBeChecked()
  await dialog.getByRole('button', { name: 'Keep in step' }).click()
  const card = dialog.getByRole('region', { name: 'Season of the reserve' })
  await expect(card.getByRole('status')).toContainText('7 of 7 entries with a topic')
  await dialog.getByRole('button', { name: 'Another calendar' }).click()
  await dialog.getByRole('button', { name: /^http/ }).click()
  await expect(dialog.getByRole('radio', { name: 'Season of the reserve' })).toBeDisabled()
  await dialog.getByRole('radio', { name: 'Boat and tools' }).click()
  await dialog.getByRole('combobox', { name: 'Into the calendar go' }).click()
  await page.getByRole('option', { name: 'no others than those that are in it' }).click()
  await dialog.getByRole('combobox', { name: 'New entries there' }).click()
  await page.getByRole('option', { name: 'wait until they are put on a topic' }).click()
  await dialog.getByRole('button', { name: 'Keep in step' }).click()
  await expect(dialog.getByRole('region', { name: 'Boat and tools' }).getByRole('status')).toContainText('0 of 2')
  await expectNoBarriersInBoth(page, '[role=dialog]')
  await page.keyboard.press('Escape')
  // What came is on the page behind it.
  await expect(page.getByRole('link', { name: 'Day of the open gate', exact: true })).toBeVisible()

  // There, on its own page: what came from here, and what is changed.
  const there = await context.newPage()
  await there.goto(standIn)
  await expect(there.getByLabel('Words of Sow peas')).toBeVisible()
  const change = async (name: string, words: string) => {
    await there.reload()
    await there.goto(standIn)
    await there.getByLabel(`Words of ${name}`, { exact: true }).fill(words)
    await there.getByRole('button', { name: `Change ${name}`, exact: true }).click()
    await expect(there.getByRole('status')).toHaveText(`${words} was changed.`)
  }
  const look = async () => {
    await page.goto(`/c/${collection}/dates?calendars`)
    const now = card.getByRole('button', { name: 'Look now' })
    const answered = page.waitForResponse((response) => response.url().endsWith('/calendars') && response.ok())
    await now.click()
    await answered
    await expect(now).toBeEnabled()
    await expect(now).not.toHaveAttribute('data-loading', 'true')
  }
  // A topic that is changed brings both in step soon: of what both change, the calendar is first.
  await change('Sow peas', 'Sow early peas')
  await change('Day of the open gate', 'Gates open')
  await page.goto(map)
  for (const [before, after] of [
    ['Day of the open gate', 'Open gates'],
    ['Inspection of the sluices', 'Look at the sluices'],
  ] as const) {
    await selectTopic(page, before)
    await page.keyboard.press('F2')
    await page.keyboard.press('Control+a')
    await write(page, after)
  }
  await allSaved(page)
  await look()
  // Both had changed the words of one: neither was touched, and one is chosen.
  await expect(card).toContainText('changed on both sides')
  await card.getByRole('button', { name: 'Open gates: take what is in the calendar' }).click()
  // Jobs of other stories may come before it.
  await expect(card).not.toContainText('changed on both sides', { timeout: 60_000 })
  await there.goto(standIn)
  await expect(there.getByLabel('Words of Look at the sluices')).toBeVisible()
  await page.goto(map)
  await expect(topic(page, 'Sow early peas')).toBeVisible()
  await expect(topic(page, 'Gates open')).toBeVisible()

  // A single entry of the other calendar is put on a topic by the keyboard.
  await selectTopic(page, 'Lift leeks')
  await openSection(page, /^Dates and task/)
  await page.getByRole('button', { name: 'From a calendar …' }).click()
  const words = page.getByRole('dialog').getByRole('textbox', { name: 'Words of the entry' })
  await expect(words).toBeFocused()
  await page.keyboard.type('saws')
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(1)
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('On', { exact: true })).toHaveValue(written(dayFromToday(20)), { timeout: 15_000 })
  await expect(topic(page, 'Lift leeks')).toHaveAccessibleName(/Task to do/)
})
