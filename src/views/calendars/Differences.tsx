import { Button, Text } from '@mantine/core'
import { repeatWords } from '../../core/dates/words'
import { TASK_NAMES } from '../../core/scene/signs'
import { calendarHere, sayDays } from '../app/when'
import { addressOfTopic } from '../dates/dates-answer'
import type { Difference, Planned, Side } from './calendars'
import styles from './calendars.module.css'

const FIELD_NAMES = { text: 'Words', note: 'Note', dates: 'Date', task: 'Task' } as const

function said(side: Planned, field: keyof typeof FIELD_NAMES): string {
  if (field === 'task') return side.task ? TASK_NAMES[side.task] : 'no task'
  if (field !== 'dates') return side[field] || 'nothing'
  if (!side.dates) return 'no date'
  const { repeats, start } = side.dates
  return sayDays(side.dates) + (repeats ? `, ${repeatWords(repeats, start, calendarHere())}` : '')
}

interface Props {
  collection: string
  differences: readonly Difference[]
  isBusy: boolean
  onChoose(difference: Difference, side: Side): void
}

/** What both sides changed, each in its own way: side by side, to choose one. */
export function Differences({ collection, differences, isBusy, onChoose }: Props) {
  return (
    <ul className={styles.differences} aria-label="What both sides changed">
      {differences.map((difference) => {
        const { href, topic, map, conflict, here, there } = difference
        const name = here?.text || there?.text || 'Untitled'
        const fields = 'fields' in conflict ? conflict.fields : []
        const side = (which: Side, planned: Planned | null) => (
          <div className={styles.side}>
            <Text size="xs" c="dimmed">
              {which === 'here' ? 'Here' : 'In the calendar'}
            </Text>
            {planned === null ? (
              <Text size="sm">It was {which === 'here' ? 'taken off, or trashed' : 'removed'}.</Text>
            ) : (
              (fields.length > 0 ? fields : (['text', 'dates'] as const)).map((field) => (
                <Text key={field} size="sm" lineClamp={6} className={styles.said}>
                  {fields.length > 1 && <span className={styles.field}>{FIELD_NAMES[field]}: </span>}
                  {said(planned, field)}
                </Text>
              ))
            )}
            <Button
              size="compact-sm"
              variant="default"
              disabled={isBusy}
              aria-label={`${name}: take what is ${which === 'here' ? 'here' : 'in the calendar'}`}
              onClick={() => onChoose(difference, which)}
            >
              {planned === null ? 'Let it be gone' : 'Take this'}
            </Button>
          </div>
        )
        return (
          <li key={href}>
            <Text size="sm" fw={600} className={styles.said}>
              {topic && map ? (
                <a className={styles.name} href={addressOfTopic(collection, map, topic)}>
                  {name}
                </a>
              ) : (
                name
              )}
            </Text>
            <div className={styles.sides}>
              {side('here', here)}
              {side('there', there)}
            </div>
          </li>
        )
      })}
    </ul>
  )
}
