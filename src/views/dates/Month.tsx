import { ActionIcon, Button, Group, Text } from '@mantine/core'
import { IconChevronLeft, IconChevronRight } from '@tabler/icons-react'
import { useState } from 'react'
import { isOverdue, lastDay, monthWeeks } from '../../core/dates/agenda'
import { useSessionHandle } from '../sync/use-session'
import styles from './dates.module.css'
import { addressOf, type DateActs, type DatedTopic, keyOf } from './dates-answer'

const named = (options: Intl.DateTimeFormatOptions) => {
  const words = new Intl.DateTimeFormat(undefined, { ...options, timeZone: 'UTC' })
  return (day: string) => words.format(new Date(day))
}
const monthWords = named({ month: 'long', year: 'numeric' })
const weekday = named({ weekday: 'short' })
const wholeDay = named({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })

/** The month so many later, or earlier; as `2026-03`. */
function monthFrom(month: string, by: number): string {
  const [year = 0, number = 1] = month.split('-').map(Number)
  return new Date(Date.UTC(year, number - 1 + by, 1)).toISOString().slice(0, 7)
}

/** A month in weeks, with what is on each day. */
export function Month({ rows, today, acts }: { rows: readonly DatedTopic[]; today: string; acts: DateActs }) {
  const { id } = useSessionHandle()
  const [month, setMonth] = useState(today.slice(0, 7))
  const weeks = monthWeeks(month)
  return (
    <section aria-label="Month">
      <Group gap="xs" mb="xs">
        <ActionIcon variant="default" aria-label="The month before" onClick={() => setMonth(monthFrom(month, -1))}>
          <IconChevronLeft size={18} />
        </ActionIcon>
        <Text fw={600} miw={150} ta="center" aria-live="polite">
          {monthWords(`${month}-01`)}
        </Text>
        <ActionIcon variant="default" aria-label="The month after" onClick={() => setMonth(monthFrom(month, 1))}>
          <IconChevronRight size={18} />
        </ActionIcon>
        <Button variant="subtle" size="compact-sm" onClick={() => setMonth(today.slice(0, 7))}>
          Today
        </Button>
      </Group>
      <div className={styles.monthScroll} tabIndex={0}>
        <table className={styles.month}>
          <thead>
            <tr>
              {weeks[0]!.map((day) => (
                <th key={day}>{weekday(day)}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {weeks.map((week) => (
              <tr key={week[0]}>
                {week.map((day) => (
                  <td
                    key={day}
                    data-other={!day.startsWith(month) || undefined}
                    data-today={day === today || undefined}
                    aria-label={wholeDay(day)}
                  >
                    <span className={styles.dayNumber}>{Number(day.slice(8))}</span>
                    {rows
                      .filter(({ dates }) => dates.start <= day && day <= lastDay(dates))
                      .map((row) => (
                        <a
                          key={keyOf(row)}
                          className={`${styles.onDay} ${acts.hueOf(row.map)}`}
                          data-late={isOverdue(row, today) || undefined}
                          data-done={row.task === 'done' || undefined}
                          href={addressOf(id, row)}
                          title={`${row.text || 'Untitled'}, ${row.mapTitle}`}
                        >
                          {row.text || 'Untitled'}
                        </a>
                      ))}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}
