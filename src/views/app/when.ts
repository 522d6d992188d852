import type { DayOrder } from '../../core/dates/read-day'
import type { Dates } from '../../core/records/dates'
import { type Calendar, dayNumber } from '../../core/text/days'
import { settingsNow } from './personal'

/**
 * A moment as people say it, in the words of the browser's language: "today 14:20", "yesterday 09:05", "3 March", "3 March 2025".
 * `now` is the moment at which it is said.
 */
export function sayWhen(at: Date, now = new Date(), language = dateLanguage()): string {
  const timeZone = settingsNow().timeZone ?? undefined
  const days = dayNumber(today(at)) - dayNumber(today(now))
  if (days === 0 || days === -1) {
    const day = new Intl.RelativeTimeFormat(language, { numeric: 'auto' }).format(days, 'day')
    return `${day} ${at.toLocaleTimeString(language, { hour: '2-digit', minute: '2-digit', hour12: false, timeZone })}`
  }
  const year = today(at).slice(0, 4) === today(now).slice(0, 4) ? undefined : 'numeric'
  return at.toLocaleDateString(language, { day: 'numeric', month: 'long', year, timeZone })
}

const MINUTE_MS = 60_000
let last: { minute: number; timeZone: string | null; day: string } | null = null

/** The date of today where the person is, as ISO 8601. What is drawn asks for it topic by topic: within a minute it is the same. */
export function today(now = new Date()): string {
  const { timeZone } = settingsNow()
  const minute = Math.floor(now.getTime() / MINUTE_MS)
  if (last?.minute !== minute || last.timeZone !== timeZone) last = { minute, timeZone, day: dayOf(now, timeZone) }
  return last.day
}

function dayOf(at: Date, timeZone: string | null): string {
  const words = new Intl.DateTimeFormat('en-GB', {
    ...(timeZone && { timeZone }),
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  })
  const { year, month, day } = Object.fromEntries(words.formatToParts(at).map(({ type, value }) => [type, value]))
  return `${year}-${month}-${day}`
}

/** The language in which days are written; undefined for the browser's. */
const dateLanguage = (): string | undefined => settingsNow().dateLanguage ?? undefined

/** Writes days, as ISO 8601 says them, in the browser's language. */
export function daysInWords(options: Intl.DateTimeFormatOptions, language = dateLanguage()): (day: string) => string {
  const words = new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' })
  return (day) => words.format(new Date(day))
}

/** In which order days are written in figures in the browser's language. */
export function dayOrder(language = dateLanguage()): DayOrder {
  const parts = new Intl.DateTimeFormat(language).formatToParts(0)
  const order = parts.flatMap(({ type }) => (/^(day|month|year)$/.test(type) ? type[0] : [])).join('')
  return order === 'mdy' || order === 'ymd' ? order : 'dmy'
}

/** On which day weeks begin where the browser's language is spoken, Sunday is 0; on Monday where that is not known. */
export function firstDayOfWeek(language = dateLanguage() ?? navigator.language): 0 | 1 | 2 | 3 | 4 | 5 | 6 {
  const own = settingsNow().weekBegins
  if (own !== null) return own
  const locale: Intl.Locale & { weekInfo?: { firstDay: number }; getWeekInfo?(): { firstDay: number } } =
    new Intl.Locale(language)
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1
  return ([0, 1, 2, 3, 4, 5, 6] as const)[first % 7]!
}

let known: (Calendar & { language: string | undefined }) | null = null

/** Days as the browser's language writes them, and which one is today; the same object all day long. */
export function calendarHere(now?: Date, language = dateLanguage()): Calendar {
  const day = today(now)
  if (known?.today === day && known.language === language) return known
  const written = (options: Intl.DateTimeFormatOptions) => daysInWords(options, language)
  const calendar: Calendar = {
    today: day,
    dayAndMonth: written({ day: 'numeric', month: 'short' }),
    wholeDay: written({ day: 'numeric', month: 'short', year: 'numeric' }),
    month: written({ month: 'short' }),
  }
  known = { ...calendar, language }
  return known
}

/** A day, or the first and the last day of a span, with times of day, in the words of the browser's language: "4 May 2026 – 3 June 2026". */
export function sayDays({ start, end, from, to }: Dates, language = dateLanguage()): string {
  const words = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })
  const at = (day: string, time: string | undefined) =>
    [words.format(new Date(day)), ...(time ? [time] : [])].join(', ')
  if (end === null || end === start) return `${at(start, from)}${to ? ` – ${to}` : ''}`
  return `${at(start, from)} – ${at(end, to)}`
}
