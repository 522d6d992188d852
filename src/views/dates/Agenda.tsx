import { Button, Checkbox, Group, Popover, Stack, Text, Title, UnstyledButton } from '@mantine/core'
import { type ReactNode, useState } from 'react'
import { agendaOf, isOverdue } from '../../core/dates/agenda'
import { repeatWords } from '../../core/dates/words'
import { dayNumber, isoDay } from '../../core/text/days'
import { DayField } from '../app/fields/DayField'
import { calendarHere, sayDays } from '../app/when'
import { useSessionHandle } from '../sync/use-session'
import styles from './dates.module.css'
import { addressOf, type DateActs, type DatedTopic, keyOf } from './dates-answer'

interface Props {
  rows: readonly DatedTopic[]
  today: string
  acts: DateActs
}

/** So many weeks that are ahead, and that are over, are shown before somebody asks for more. */
const [AHEAD, OVER] = [26, 4]

/** What is dated, by week: what is overdue first, then what is ahead, then what is over. */
export function Agenda({ rows, today, acts }: Props) {
  const { overdue, ahead, over } = agendaOf(rows, today)
  const [shown, setShown] = useState(OVER)
  const [shownAhead, setShownAhead] = useState(AHEAD)
  const list = (of: readonly DatedTopic[]) => (
    <ul className={styles.rows}>
      {of.map((row) => (
        <Row key={keyOf(row)} row={row} today={today} acts={acts} />
      ))}
    </ul>
  )
  return (
    <Stack gap="lg">
      {overdue.length > 0 && (
        <section aria-label="Overdue">
          <Title order={2} size="h5" c="var(--ember-text)">
            Overdue
          </Title>
          {list(overdue)}
        </section>
      )}
      {ahead.slice(0, shownAhead).map(({ monday, rows: of }) => (
        <Week key={monday} monday={monday} today={today} order={2}>
          {list(of)}
        </Week>
      ))}
      {ahead.length > shownAhead && (
        <Button variant="default" size="compact-sm" mr="auto" onClick={() => setShownAhead(shownAhead + AHEAD)}>
          Later ones
        </Button>
      )}
      {over.length > 0 && (
        <section aria-label="What is over">
          <Title order={2} size="h5" c="dimmed">
            What is over
          </Title>
          <Stack gap="md" mt="xs">
            {over.slice(0, shown).map(({ monday, rows: of }) => (
              <Week key={monday} monday={monday} today={today} order={3}>
                {list(of)}
              </Week>
            ))}
          </Stack>
          {over.length > shown && (
            <Button variant="default" size="compact-sm" mt="sm" onClick={() => setShown(shown + 3 * OVER)}>
              Earlier ones
            </Button>
          )}
        </section>
      )}
    </Stack>
  )
}

interface WeekProps {
  monday: string
  today: string
  /** How deep its heading stands on the page. */
  order: 2 | 3
  children: ReactNode
}

function Week({ monday, today, order, children }: WeekProps) {
  const away = (dayNumber(monday) - dayNumber(today)) / 7
  const name = away > -1 && away <= 0 ? 'This week' : away > 0 && away <= 1 ? 'Next week' : null
  const days = sayDays({ start: monday, end: isoDay(dayNumber(monday) + 6) })
  return (
    <section aria-label={name ?? days}>
      <Title order={order} size="h6">
        {name && `${name}: `}
        <span className={styles.quiet}>{days}</span>
      </Title>
      {children}
    </section>
  )
}

function Row({ row, today, acts }: { row: DatedTopic; today: string; acts: DateActs }) {
  const { id } = useSessionHandle()
  const mayEdit = acts.mayEdit(row.map) && !row.isRepetition
  const name = row.text || 'Untitled'
  const isLate = isOverdue(row, today)
  return (
    <li className={styles.row}>
      {row.task === null ? (
        <span className={styles.noTask} />
      ) : (
        <Checkbox
          size="xs"
          aria-label={`${name} is done`}
          checked={row.task === 'done'}
          indeterminate={row.task === 'begun'}
          disabled={!mayEdit}
          onChange={(event) => acts.tick(row, event.currentTarget.checked)}
        />
      )}
      <a
        className={styles.name}
        data-done={row.task === 'done' || undefined}
        data-again={row.isRepetition}
        href={addressOf(id, row)}
      >
        {name}
        {row.work?.who && <span className={styles.who}> {row.work.who.map(({ name: doer }) => doer).join(', ')}</span>}
        {row.work?.progress !== undefined && row.task !== 'done' && (
          <span className={styles.who}> {row.work.progress} %</span>
        )}
        {row.dates.repeats && (
          <span className={styles.who}> {repeatWords(row.dates.repeats, row.dates.start, calendarHere())}</span>
        )}
      </a>
      <span className={styles.map}>
        <span className={`${styles.hue} ${acts.hueOf(row.map)}`} /> {row.mapTitle || 'Untitled'}
      </span>
      <Days row={row} isLate={isLate} mayEdit={mayEdit} acts={acts} />
    </li>
  )
}

/** The days of a topic; pressed, they are given anew. */
function Days({ row, isLate, mayEdit, acts }: { row: DatedTopic; isLate: boolean; mayEdit: boolean; acts: DateActs }) {
  const [opened, setOpened] = useState(false)
  const [start, setStart] = useState<string | null>(row.dates.start)
  const [end, setEnd] = useState(row.dates.end)
  const words = sayDays(row.dates)
  const open = () => {
    setStart(row.dates.start)
    setEnd(row.dates.end)
    setOpened(true)
  }
  if (!mayEdit)
    return (
      <Text span size="sm" c={isLate ? 'var(--ember-text)' : undefined} className={styles.days}>
        {words}
      </Text>
    )
  return (
    <Popover opened={opened} onChange={setOpened} trapFocus position="bottom-end" transitionProps={{ duration: 0 }}>
      <Popover.Target>
        <UnstyledButton
          className={styles.days}
          data-late={isLate || undefined}
          onClick={open}
          aria-label={`${words}: change`}
        >
          {words}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={(event) => {
            event.preventDefault()
            if (start === null) return
            setOpened(false)
            acts.setDates(row, { ...row.dates, start, end: end !== null && end < start ? null : end })
          }}
        >
          <Stack gap="xs">
            <DayField label="Day, or the first one" value={start} take={setStart} />
            <DayField label="Last day, of several" value={end} min={start ?? undefined} take={setEnd} />
            <Group justify="space-between">
              <Button
                size="compact-sm"
                variant="subtle"
                color="gray"
                c="var(--quiet-ink)"
                onClick={() => {
                  setOpened(false)
                  acts.setDates(row, null)
                }}
              >
                No date
              </Button>
              <Button size="compact-sm" type="submit" disabled={start === null}>
                Set
              </Button>
            </Group>
          </Stack>
        </form>
      </Popover.Dropdown>
    </Popover>
  )
}
