import { Button, Group, Text, TextInput } from '@mantine/core'
import { setDates } from '../../core/commands/set-dates'
import type { TopicRecord } from '../../core/records/topic'
import { useSession } from '../sync/use-session'

/** The day of a topic, or the first and the last day of a span. */
export function DatesSection({ topic }: { topic: TopicRecord }) {
  const session = useSession()
  const { dates } = topic
  if (!session.mayEdit && !dates) return <Text c="dimmed">No date.</Text>
  const set = (start: string, end: string | null) =>
    session.run((records, making) =>
      setDates(
        records,
        { topic: topic.id, dates: start === '' ? null : { start, end: end === '' ? null : end } },
        making,
      ),
    )
  return (
    <Group gap="xs" align="flex-end" grow>
      <TextInput
        type="date"
        size="sm"
        label={dates?.end ? 'From' : 'On'}
        value={dates?.start ?? ''}
        disabled={!session.mayEdit}
        onChange={(event) => set(event.currentTarget.value, dates?.end ?? null)}
      />
      <TextInput
        type="date"
        size="sm"
        label="Until"
        value={dates?.end ?? ''}
        min={dates?.start}
        disabled={!session.mayEdit || !dates}
        onChange={(event) => dates && set(dates.start, event.currentTarget.value)}
      />
      {dates && session.mayEdit && (
        <Button size="sm" variant="default" onClick={() => set('', null)}>
          No date
        </Button>
      )}
    </Group>
  )
}
