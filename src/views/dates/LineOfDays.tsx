import { ActionIcon, Button, Group, SegmentedControl } from '@mantine/core'
import { useElementSize } from '@mantine/hooks'
import { IconChevronLeft, IconChevronRight } from '@tabler/icons-react'
import { type PointerEvent, useMemo, useRef, useState } from 'react'
import { isOverdue, lastDay } from '../../core/dates/agenda'
import { dayNumber, isoDay } from '../../core/text/days'
import { swallowClick } from '../app/swallow-click'
import { sayDays } from '../app/when'
import { useSessionHandle } from '../sync/use-session'
import styles from './dates.module.css'
import { addressOf, type DateActs, type DatedTopic, keyOf } from './dates-answer'

/** How many days the line shows, by name. */
const SPANS = { week: 7, month: 31, quarter: 92, year: 366, 'five years': 1_827 } as const
type Span = keyof typeof SPANS
/** Of the days shown so large a part lies before today at first. */
const BEFORE = 0.2
/** Px: height of the scale, of a row of marks, and the width that a mark needs at least; rows of marks that are shown. */
const [SCALE, ROW, LEAST] = [26, 18, 14]
const MOST_ROWS = 8
/** Room for what is written at a tick, in px. */
const TICK_WIDTH = 56
/** How far the pointer moves before a press becomes a drag, in px. */
const THRESHOLD = 4

interface Mark {
  row: DatedTopic
  x: number
  width: number
  line: number
}

/** What is dated as marks on one line of days, in the hue of their maps; dragged, a mark is on another day. */
export function LineOfDays({ rows, today, acts }: { rows: readonly DatedTopic[]; today: string; acts: DateActs }) {
  const { id } = useSessionHandle()
  const { ref, width } = useElementSize()
  const [span, setSpan] = useState<Span>('quarter')
  const days = SPANS[span]
  const [first, setFirst] = useState(() => Math.round(dayNumber(today) - days * BEFORE))
  const [drag, setDrag] = useState<{ topic: string; days: number } | null>(null)
  const pressed = useRef<{ x: number; row: DatedTopic } | null>(null)
  const perDay = Math.max(1, width) / days
  const { marks, lines, hidden } = useMemo(() => marksOn(rows, first, days, perDay), [rows, first, days, perDay])
  const zoom = (next: Span) => {
    // The day that is a fifth from the left stays where it is.
    setFirst(Math.round(first + (days - SPANS[next]) * BEFORE))
    setSpan(next)
  }
  const follow = (event: PointerEvent) => {
    const from = pressed.current
    if (!from) return
    const by = event.clientX - from.x
    if (!drag && Math.abs(by) < THRESHOLD) return
    if (!drag) event.currentTarget.setPointerCapture(event.pointerId)
    setDrag({ topic: from.row.topic, days: Math.round(by / perDay) })
  }
  const drop = () => {
    const from = pressed.current
    pressed.current = null
    if (from && drag) {
      acts.move(from.row, drag.days)
      swallowClick()
    }
    setDrag(null)
  }
  const giveUp = () => {
    pressed.current = null
    setDrag(null)
  }
  const now = (dayNumber(today) - first + 0.5) * perDay
  return (
    <section aria-label="Line of days">
      <Group justify="space-between" mb={4}>
        <SegmentedControl
          size="xs"
          aria-label="How many days"
          value={span}
          data={Object.keys(SPANS)}
          onChange={(value) => zoom(value as Span)}
        />
        <Group gap={4}>
          <ActionIcon variant="default" aria-label="Earlier days" onClick={() => setFirst(first - Math.ceil(days / 2))}>
            <IconChevronLeft size={18} />
          </ActionIcon>
          <Button
            variant="default"
            size="compact-sm"
            onClick={() => setFirst(Math.round(dayNumber(today) - days * BEFORE))}
          >
            Today
          </Button>
          <ActionIcon variant="default" aria-label="Later days" onClick={() => setFirst(first + Math.ceil(days / 2))}>
            <IconChevronRight size={18} />
          </ActionIcon>
        </Group>
      </Group>
      <div
        ref={ref}
        className={styles.line}
        style={{ height: SCALE + Math.max(2, lines) * ROW + 6 }}
        onPointerMove={follow}
        onPointerUp={drop}
        onPointerCancel={giveUp}
      >
        {ticksOf(first, days, perDay).map(({ day, words }) => (
          <span key={day} className={styles.tick} style={{ left: (day - first) * perDay }}>
            {words}
          </span>
        ))}
        {now > 0 && now < width && <span className={styles.now} style={{ left: now }} title="Today" />}
        {marks.map(({ row, x, width: wide, line }) => {
          const isMoved = drag?.topic === row.topic && !row.isRepetition
          const dates = isMoved ? { ...row.dates, start: isoDay(dayNumber(row.dates.start) + drag.days) } : row.dates
          return (
            <a
              key={keyOf(row)}
              className={`${styles.mark} ${acts.hueOf(row.map)}`}
              style={{ left: x + (isMoved ? drag.days * perDay : 0), width: wide, top: SCALE + line * ROW }}
              data-late={isOverdue(row, today) || undefined}
              data-done={row.task === 'done' || undefined}
              data-moved={isMoved || undefined}
              href={addressOf(id, row)}
              draggable={false}
              aria-label={`${row.text || 'Untitled'}, ${sayDays(row.dates)}`}
              title={`${row.text || 'Untitled'}, ${sayDays(dates)}, ${row.mapTitle}`}
              onPointerDown={(event) => {
                if (event.button === 0 && acts.mayEdit(row.map) && !row.isRepetition)
                  pressed.current = { x: event.clientX, row }
              }}
            >
              {wide > 40 && <span className={styles.markWords}>{row.text || 'Untitled'}</span>}
              {isMoved && <span className={styles.moved}>{sayDays({ start: dates.start, end: null })}</span>}
            </a>
          )
        })}
      </div>
      {hidden > 0 && <span className={styles.quiet}>and {hidden} more in these days; look closer to see them</span>}
    </section>
  )
}

/** Marks of what lies within the days shown, in lines so that none covers another. */
function marksOn(rows: readonly DatedTopic[], first: number, days: number, perDay: number) {
  const ends: number[] = []
  const marks: Mark[] = []
  let hidden = 0
  const seen = rows
    .map((row) => ({ row, from: dayNumber(row.dates.start), to: dayNumber(lastDay(row.dates)) + 1 }))
    .filter(({ from, to }) => to > first && from < first + days)
    .sort((a, b) => a.from - b.from)
  for (const { row, from, to } of seen) {
    const x = Math.max(0, (from - first) * perDay)
    const width = Math.max(LEAST, (Math.min(to, first + days) - first) * perDay - x)
    const free = ends.findIndex((end) => end <= x)
    const line = free >= 0 ? free : ends.length
    if (line >= MOST_ROWS) {
      hidden++
      continue
    }
    ends[line] = x + width + 2
    marks.push({ row, x, width, line })
  }
  return { marks, lines: ends.length, hidden }
}

const words = (options: Intl.DateTimeFormatOptions) => {
  const format = new Intl.DateTimeFormat(undefined, { ...options, timeZone: 'UTC' })
  return (day: number) => format.format(new Date(isoDay(day)))
}
const asDay = words({ weekday: 'short', day: 'numeric', month: 'short' })
const asDayOfMonth = words({ day: 'numeric', month: 'short' })
const asMonth = words({ month: 'short', year: '2-digit' })
const asYear = words({ year: 'numeric' })

/** What is written along the line: days, weeks, months or years, as many as have room. */
function ticksOf(first: number, days: number, perDay: number): { day: number; words: string }[] {
  const all = Array.from({ length: days }, (_, i) => first + i)
  const isMonday = (day: number) => (((day + 3) % 7) + 7) % 7 === 0
  const isFirst = (day: number) => isoDay(day).endsWith('-01')
  const [isTick, say] =
    days <= 7
      ? [() => true, asDay]
      : days <= 31
        ? [isMonday, asDayOfMonth]
        : days <= 366
          ? [isFirst, asMonth]
          : [(day: number) => isoDay(day).endsWith('-01-01'), asYear]
  const ticks = all.filter(isTick)
  const apart = ((ticks[1] ?? first + days) - (ticks[0] ?? first)) * perDay
  const every = Math.max(1, Math.ceil(TICK_WIDTH / apart))
  return ticks.filter((_, i) => i % every === 0).map((day) => ({ day, words: say(day) }))
}
