import type { TopicBox } from '../layout/boxes'
import { BESIDE_STEM } from '../layout/kinds/time'
import { type Calendar, DAY_MS, dayNumber, isoDay, yearOf } from '../text/days'
import { type Drawing, drawing, px } from './drawing'

/** Least distance between two dates that are written at the axis, a letter of longer ones, and between two marks of its scale, in px. */
const LABEL_WIDTH = 48
const LETTER_WIDTH = 7
const YEAR_WIDTH = 28
const MARK_APART = 64
/** Nearer than this to today a mark of the scale has no words, in px. */
const NEAR_TODAY = 30

/** Steps of the calendar from which the marks of a scale are chosen: so many days or months. */
const STEPS: readonly { days?: number; months?: number }[] = [
  { days: 1 },
  { days: 7 },
  { months: 1 },
  { months: 3 },
  { months: 12 },
  { months: 60 },
  { months: 120 },
  { months: 600 },
]
const MONTH_DAYS = 30.4

/** Where the stem of a topic stands that hangs on a scale of days. */
export const stemX = (child: TopicBox): number => child.x - BESIDE_STEM

/** What is written at a scale of days: its marks and today above the axis, the dates of the topics beneath it. */
export function drawScale(dated: readonly TopicBox[], y: number, calendar: Calendar): Drawing[] {
  const stems = dated.map((child) => ({ x: stemX(child), day: child.topic.dates!.start })).sort((a, b) => a.x - b.x)
  const [first, last] = [stems[0], stems.at(-1)]
  const labels = dates(stems, y, calendar)
  if (!first || !last || last.x <= first.x) return labels
  const [from, to] = [dayNumber(first.day), dayNumber(last.day)]
  const perDay = (last.x - first.x) / (to - from)
  const at = (day: number) => first.x + (day - from) * perDay
  const now = calendar.today === null ? Number.NaN : dayNumber(calendar.today)
  const isNow = now >= from && now <= to
  return [
    ...labels,
    // The line of today runs through no word.
    ...marks(from, to, perDay, calendar).flatMap(({ day, words }) =>
      mark(at(day), y, isNow && Math.abs(at(day) - at(now)) < NEAR_TODAY ? '' : words),
    ),
    ...(isNow ? todayAt(at(now), y) : []),
  ]
}

/** Dates of topics beside their stems, as many as can be read, the first one always; the year where it begins or changes and has room. */
function dates(stems: readonly { x: number; day: string }[], y: number, calendar: Calendar): Drawing[] {
  let year = ''
  return stems.flatMap(({ x, day }, i) => {
    const itsYear = yearOf(day)
    const isNewYear = itsYear !== year
    const named = calendar.dayAndMonth(day)
    const room = (stems[i + 1]?.x ?? Number.POSITIVE_INFINITY) - x
    const hasRoom = room >= Math.max(LABEL_WIDTH, named.length * LETTER_WIDTH) + (isNewYear ? YEAR_WIDTH : 0)
    // Without the first nobody knows where the scale begins; its year is told by the next that has room for one.
    if (!hasRoom && i > 0) return []
    if (hasRoom) year = itsYear
    const words = isNewYear && hasRoom ? calendar.wholeDay(day) : named
    return drawing('text', { x: px(x + 4), y: px(y + 13), class: 'axis-date' }, [words])
  })
}

/** The days at which a scale is marked, with their words. */
function marks(from: number, to: number, perDay: number, calendar: Calendar): { day: number; words: string }[] {
  const step =
    STEPS.find(({ days = 0, months = 0 }) => (days + months * MONTH_DAYS) * perDay >= MARK_APART) ?? STEPS.at(-1)!
  const found: { day: number; words: string }[] = []
  for (let day = firstMark(from, step); day <= to; day = nextMark(day, step)) {
    const iso = isoDay(day)
    const { months = 0 } = step
    const isNewYear = months > 0 && iso.endsWith('-01-01')
    found.push({
      day,
      words: months >= 12 || isNewYear ? yearOf(iso) : months === 0 ? calendar.dayAndMonth(iso) : calendar.month(iso),
    })
  }
  return found
}

/** The first day at or after one on which a step of the calendar begins; weeks begin on Mondays. */
function firstMark(from: number, { days, months = 0 }: { days?: number; months?: number }): number {
  // 1970-01-01 was a Thursday.
  if (days) return days === 7 ? Math.ceil((from + 3) / 7) * 7 - 3 : from
  const day = new Date(from * DAY_MS)
  const past = day.getUTCFullYear() * 12 + day.getUTCMonth() + (day.getUTCDate() > 1 ? 1 : 0)
  return monthNumber(Math.ceil(past / months) * months)
}

function nextMark(day: number, { days, months = 0 }: { days?: number; months?: number }): number {
  if (days) return day + days
  const at = new Date(day * DAY_MS)
  return monthNumber(at.getUTCFullYear() * 12 + at.getUTCMonth() + months)
}

/** The first day of a month that is counted from the year 0. */
function monthNumber(month: number): number {
  const day = new Date(0)
  day.setUTCFullYear(Math.floor(month / 12), month % 12, 1)
  return day.getTime() / DAY_MS
}

const mark = (x: number, y: number, words: string): Drawing[] => [
  drawing('path', { d: `M${px(x)} ${px(y)}V${px(y - 5)}`, class: 'axis-mark' }),
  ...(words === ''
    ? []
    : [drawing('text', { x: px(x), y: px(y - 8), class: 'axis-scale', 'text-anchor': 'middle' }, [words])]),
]

const todayAt = (x: number, y: number): Drawing[] => [
  drawing('path', { d: `M${px(x)} ${px(y - 18)}V${px(y + 6)}`, class: 'axis-today' }),
  drawing('text', { x: px(x), y: px(y - 22), class: 'axis-today-word', 'text-anchor': 'middle' }, ['today']),
]
