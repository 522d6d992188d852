import { newEntry } from './page.mjs'

const dayFrom = (now, days) => new Date(now.getTime() + days * 86_400_000).toISOString().slice(0, 10)

/** What is in the calendars at first: as if a small trust for a bog kept them, seen from the day on which it begins. */
export function beginnings(now) {
  const at = (days, words, more = {}) => ({ day: dayFrom(now, days), words, ...more })
  const calendar = (entries) =>
    Object.fromEntries(
      entries.map((entry, i) => [`entry-${i + 1}.ics`, newEntry({ uid: `${entry.words}@small-calendar`, ...entry })]),
    )
  return {
    'Season-of-the-reserve': calendar([
      at(3, 'Read the dipwells', { time: '09:00', rule: 'FREQ=WEEKLY;INTERVAL=2' }),
      at(9, 'Evening for volunteers', { time: '18:30', rule: 'FREQ=MONTHLY' }),
      at(16, 'Walk along the boardwalk', { time: '14:00' }),
      at(24, 'Inspection of the sluices'),
      at(40, 'Day of the open gate'),
      at(12, 'Order coir logs', { isTask: true }),
    ]),
    'Field-season': calendar([
      at(6, 'Excavator arrives', { time: '07:30' }),
      at(18, 'The hut is booked for a school'),
      at(27, 'Meeting with the canal board', { time: '10:00', rule: 'FREQ=MONTHLY;INTERVAL=3' }),
    ]),
    'Boat-and-tools': calendar([at(5, 'Boat to the yard'), at(20, 'Saws back from sharpening', { isTask: true })]),
  }
}
