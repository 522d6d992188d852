import { ActionIcon, Popover, TextInput, type TextInputProps } from '@mantine/core'
import { DatePicker } from '@mantine/dates'
import { IconCalendar } from '@tabler/icons-react'
import { useState } from 'react'
import { LONGEST_DAY, readDay } from '../../../core/dates/read-day'
import { calendarHere, dayOrder, daysInWords, firstDayOfWeek } from '../when'
import { type Reading, useWritten } from './use-written'

interface Props extends Omit<TextInputProps, 'value' | 'onChange' | 'min' | 'error'> {
  /** As ISO 8601; null where there is none. */
  value: string | null
  /** The first day that it may be. */
  min?: string | undefined
  take(day: string | null): void
}

/** A day: written in figures or words, or chosen from a month. */
export function DayField({ value, min, take, disabled, ...others }: Props) {
  const [isOpen, setOpen] = useState(false)
  const { wholeDay, today } = calendarHere()
  const shown = value === null ? '' : wholeDay(value)
  const read = (text: string): Reading<string | null> => {
    if (text.trim() === '') return { value: null }
    const day = readDay(text, { today: today ?? '', order: dayOrder() })
    if (day === null)
      return { problem: `No day is known by that. Write it as ${wholeDay('2027-03-15')}, or next Friday.` }
    return min && day < min ? { problem: `It cannot be before ${wholeDay(min)}.` } : { value: day }
  }
  const written = useWritten({ shown, read, take: (day) => day !== value && take(day) })
  return (
    <TextInput
      placeholder="15 Mar, next Friday …"
      autoComplete="off"
      maxLength={LONGEST_DAY}
      {...others}
      disabled={disabled}
      value={written.text}
      error={written.problem}
      onChange={(event) => written.write(event.currentTarget.value)}
      onBlur={written.commit}
      onKeyDown={written.onKeyDown}
      rightSection={
        !disabled && (
          <Popover
            opened={isOpen}
            onChange={setOpen}
            trapFocus
            withinPortal
            returnFocus
            transitionProps={{ duration: 0 }}
          >
            <Popover.Target>
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                aria-label={`Choose from a month: ${others['aria-label'] ?? String(others.label ?? 'day')}`}
                onClick={() => setOpen(!isOpen)}
              >
                <IconCalendar size={16} />
              </ActionIcon>
            </Popover.Target>
            <Popover.Dropdown>
              <DatePicker
                value={value}
                defaultDate={value ?? min ?? today ?? undefined}
                minDate={min}
                firstDayOfWeek={firstDayOfWeek()}
                // Red is for what is due.
                weekendDays={[]}
                hideOutsideDates
                monthLabelFormat={daysInWords({ month: 'long', year: 'numeric' })}
                monthsListFormat={daysInWords({ month: 'short' })}
                weekdayFormat={daysInWords({ weekday: 'short' })}
                getDayAriaLabel={wholeDay}
                onChange={(day) => {
                  setOpen(false)
                  written.choose(day)
                }}
              />
            </Popover.Dropdown>
          </Popover>
        )
      }
    />
  )
}
