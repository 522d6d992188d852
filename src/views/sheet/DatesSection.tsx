import { Button, Group, SegmentedControl, Stack, Text, TextInput } from '@mantine/core'
import { setDates } from '../../core/commands/set-dates'
import { setTask } from '../../core/commands/set-task'
import { TaskState, type TopicRecord } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { useMayEdit, useSessionHandle } from '../sync/use-session'
import { common } from './holds'

const NO_TASK = 'none'

/** When a topic is due or takes place, and how far its task is. */
export function DatesSection({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  return (
    <Stack gap="sm">
      <Days topics={topics} />
      <div>
        <Text size="sm" fw={600} id="task-label">
          Task
        </Text>
        <SegmentedControl
          size="xs"
          fullWidth
          aria-labelledby="task-label"
          disabled={!mayEdit}
          value={common(topics, ({ task }) => task ?? NO_TASK) ?? ''}
          data={[
            { value: NO_TASK, label: 'no task' },
            ...TaskState.options.map((value) => ({ value, label: TASK_NAMES[value] })),
          ]}
          onChange={(value) => {
            const task = TaskState.safeParse(value).data ?? null
            session.run((records, newIds) => setTask(records, { topics: topics.map(({ id }) => id), task }, newIds))
          }}
        />
      </div>
    </Stack>
  )
}

/** The day of topics, or the first and the last day of a span; where they differ, what is chosen holds for all. */
function Days({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const dates = common(topics, ({ dates }) => dates)
  const areSome = topics.some(({ dates }) => dates)
  if (!mayEdit && !areSome) return <Text c="dimmed">No date.</Text>
  const set = (start: string, end: string | null) =>
    session.run((records, newIds) =>
      setDates(
        records,
        {
          topics: topics.map(({ id }) => id),
          dates: start === '' ? null : { start, end: end === '' ? null : end },
        },
        newIds,
      ),
    )
  return (
    <Group gap="xs" align="flex-end" grow>
      <TextInput
        type="date"
        size="sm"
        label={dates?.end ? 'From' : 'On'}
        description={dates === undefined ? 'different days' : undefined}
        value={dates?.start ?? ''}
        disabled={!mayEdit}
        onChange={(event) => set(event.currentTarget.value, dates?.end ?? null)}
      />
      <TextInput
        type="date"
        size="sm"
        label="Until"
        value={dates?.end ?? ''}
        min={dates?.start}
        disabled={!mayEdit || !dates}
        onChange={(event) => dates && set(dates.start, event.currentTarget.value)}
      />
      {areSome && mayEdit && (
        <Button size="sm" variant="default" onClick={() => set('', null)}>
          No date
        </Button>
      )}
    </Group>
  )
}
