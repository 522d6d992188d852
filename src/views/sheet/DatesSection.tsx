import { Button, Group, SegmentedControl, Select, Slider, Stack, TagsInput, Text } from '@mantine/core'
import { useCallback } from 'react'
import { setDates } from '../../core/commands/set-dates'
import { setTask } from '../../core/commands/set-task'
import { setWork } from '../../core/commands/set-work'
import { nthOf } from '../../core/dates/repeating'
import { repeatWords } from '../../core/dates/words'
import { type Dates, MOST_EFFORT, MOST_WHO, type Repeats, TaskState } from '../../core/records/dates'
import { PersonId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import { TASK_NAMES } from '../../core/scene/signs'
import { progressBelow } from '../../core/tree/progress'
import { DayField } from '../app/fields/DayField'
import { NumberField } from '../app/fields/NumberField'
import { TimeField } from '../app/fields/TimeField'
import { calendarHere, sayDays, today } from '../app/when'
import { InCalendars } from '../calendars/InCalendars'
import { usePeople } from '../comments/comments'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { common } from './holds'
import styles from './sheet.module.css'

const NO_TASK = 'none'

/** When a topic is due or takes place, how far its task is, who does it and how much work it is. */
export default function DatesSection({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const task = common(topics, ({ task }) => task ?? NO_TASK)
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
          value={task ?? ''}
          data={[
            { value: NO_TASK, label: 'no task' },
            ...TaskState.options.map((value) => ({ value, label: TASK_NAMES[value] })),
          ]}
          onChange={(value) => {
            const next = TaskState.safeParse(value).data ?? null
            const args = { topics: topics.map(({ id }) => id), task: next, today: today() }
            session.run((records, newIds) => setTask(records, args, newIds))
          }}
        />
        {topics.length === 1 && topics[0]!.work?.doneOn && (
          <Text size="sm" c="dimmed" mt={4}>
            Done on {sayDays({ start: topics[0]!.work.doneOn, end: null })}
          </Text>
        )}
      </div>
      {topics.length === 1 && <InCalendars topic={topics[0]!} />}
      <WorkOn topics={topics} />
      {topics.length === 1 && <Below topic={topics[0]!} />}
    </Stack>
  )
}

/** How far the tasks below a topic are. */
function Below({ topic }: { topic: TopicRecord }) {
  const progress = useCalmPart(useCallback(({ records }: CollectionSession) => progressBelow(records, topic), [topic]))
  if (!progress) return null
  const { tasks, done, percent } = progress
  return (
    <div>
      <Text size="sm">
        Below it: {done} of {tasks === 1 ? '1 task' : `${tasks} tasks`} done, {percent} %
      </Text>
      <div className={styles.bar} role="img" aria-label={`${percent} % of what lies below is done`}>
        <div style={{ width: `${percent}%` }} />
      </div>
    </div>
  )
}

/** Who does it, how much it is, and how far. */
function WorkOn({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const people = usePeople()
  const who = common(topics, ({ work }) => work?.who ?? null)
  const effort = common(topics, ({ work }) => work?.effort ?? null)
  const progress = common(topics, ({ work }) => work?.progress ?? null)
  const isTask = topics.some(({ task }) => task !== null)
  if (!mayEdit && !who && !effort && !progress) return null
  const set = (work: Parameters<typeof setWork>[1]['work']) =>
    session.run((records, newIds) => setWork(records, { topics: topics.map(({ id }) => id), work }, newIds))
  return (
    <>
      <TagsInput
        size="sm"
        label="Who"
        description={who === undefined ? 'different people' : undefined}
        placeholder={who && who.length > 0 ? '' : 'A name'}
        data={people.map(({ name }) => name).filter((name, i, all) => all.indexOf(name) === i)}
        value={who?.map(({ name }) => name) ?? []}
        maxTags={MOST_WHO}
        disabled={!mayEdit}
        acceptValueOnBlur
        onChange={(names) =>
          set({
            who: names.map((name) => {
              const person = people.find((other) => other.name === name)
              return { person: person ? PersonId.parse(person.id) : null, name: name.slice(0, 200) }
            }),
          })
        }
      />
      {isTask && (
        <Group gap="xs" align="flex-start" grow>
          <NumberField
            size="sm"
            label="Effort, in hours"
            description={effort === undefined ? 'different' : undefined}
            min={0}
            max={MOST_EFFORT / 60}
            step={0.5}
            decimalScale={2}
            value={effort ? effort / 60 : null}
            disabled={!mayEdit}
            take={(hours) => set({ effort: hours ? Math.max(1, Math.round(hours * 60)) : null })}
          />
          <div>
            <Text size="sm" fw={500} id="progress-label">
              How far: {progress === undefined ? 'different' : `${progress ?? 0} %`}
            </Text>
            <Slider
              key={`${topics.map(({ id }) => id).join()} ${progress}`}
              aria-labelledby="progress-label"
              thumbLabel="How far, in percent"
              mt={10}
              step={10}
              label={(value) => `${value} %`}
              defaultValue={progress ?? 0}
              disabled={!mayEdit}
              onChangeEnd={(value) => set({ progress: value === 0 ? null : value })}
            />
          </div>
        </Group>
      )}
    </>
  )
}

/** The day of topics, or the first and the last day of a span, with times of day; where they differ, what is chosen holds for all. */
function Days({ topics }: { topics: readonly TopicRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const dates = common(topics, ({ dates }) => dates)
  const areSome = topics.some(({ dates }) => dates)
  if (!mayEdit && !areSome) return <Text c="dimmed">No date.</Text>
  const set = (next: Dates | null) =>
    session.run((records, newIds) => setDates(records, { topics: topics.map(({ id }) => id), dates: next }, newIds))
  /** The dates with another part; what is left out by it goes. */
  const change = (part: { [Field in keyof Dates]?: Dates[Field] | undefined }) => {
    const { start, end, from, to, repeats } = { start: dates?.start ?? '', end: dates?.end ?? null, ...dates, ...part }
    if (start === '') return set(null)
    const last = end !== null && end < start ? null : end
    const isSameDay = last === null || last === start
    const until = from && to && (!isSameDay || to >= from) ? { to } : {}
    return set({ start, end: last, ...(from ? { from, ...until } : {}), ...(repeats ? { repeats } : {}) })
  }
  return (
    <Stack gap="xs">
      <div className={styles.days}>
        <DayField
          size="sm"
          label={dates?.end ? 'From' : 'On'}
          description={dates === undefined ? 'different days' : undefined}
          value={dates?.start ?? null}
          disabled={!mayEdit}
          data-leads="dates"
          take={(start) => change({ start: start ?? '' })}
        />
        <TimeField
          size="sm"
          label="at"
          aria-label="Time of day at which it begins"
          value={dates?.from ?? null}
          disabled={!mayEdit || !dates}
          take={(from) => change({ from: from ?? undefined })}
        />
        <DayField
          size="sm"
          label="Until"
          value={dates?.end ?? null}
          min={dates?.start}
          disabled={!mayEdit || !dates}
          take={(end) => dates && change({ end })}
        />
        <TimeField
          size="sm"
          label="at"
          aria-label="Time of day at which it ends"
          value={dates?.to ?? null}
          disabled={!mayEdit || !dates?.from}
          take={(to) => change({ to: to ?? undefined })}
        />
      </div>
      {dates && (mayEdit || dates.repeats) && (
        <Repeating dates={dates} mayEdit={mayEdit} change={(repeats) => change({ repeats })} />
      )}
      {areSome && mayEdit && (
        <Button size="compact-sm" variant="default" mr="auto" onClick={() => set(null)}>
          No date
        </Button>
      )}
    </Stack>
  )
}

/** The ways in which most things repeat. */
const WAYS: { value: string; label: string; of(start: string): Repeats | undefined }[] = [
  { value: 'never', label: 'never', of: () => undefined },
  { value: 'day', label: 'every day', of: () => ({ every: 1, unit: 'day' }) },
  { value: 'workday', label: 'every working day', of: () => ({ every: 1, unit: 'week', weekdays: [0, 1, 2, 3, 4] }) },
  { value: 'week', label: 'every week', of: () => ({ every: 1, unit: 'week' }) },
  { value: 'fortnight', label: 'every two weeks', of: () => ({ every: 2, unit: 'week' }) },
  { value: 'month', label: 'every month on this day', of: () => ({ every: 1, unit: 'month' }) },
  {
    value: 'weekday',
    label: 'every month on this weekday',
    of: (start) => ({ every: 1, unit: 'month', nth: nthOf(start) === 5 ? -1 : nthOf(start) }),
  },
  { value: 'year', label: 'every year', of: () => ({ every: 1, unit: 'year' }) },
]

interface RepeatingProps {
  dates: Dates
  mayEdit: boolean
  change(repeats: Repeats | undefined): void
}

function Repeating({ dates, mayEdit, change }: RepeatingProps) {
  const { repeats, start } = dates
  const { until, ...plain } = repeats ?? {}
  const same = (of: Repeats | undefined) => JSON.stringify(of ?? {}) === JSON.stringify(plain)
  const way = WAYS.find(({ of }) => same(of(start)))
  const words = repeats && repeatWords(repeats, start, calendarHere())
  return (
    <div className={styles.days}>
      <Select
        size="sm"
        label="Repeats"
        data={[
          ...WAYS.map(({ value, label }) => ({ value, label })),
          ...(way || !words ? [] : [{ value: 'other', label: words }]),
        ]}
        value={way?.value ?? 'other'}
        allowDeselect={false}
        disabled={!mayEdit}
        onChange={(value) => {
          const chosen = WAYS.find((each) => each.value === value)
          if (!chosen) return
          const next = chosen.of(start)
          change(next && until ? { ...next, until } : next)
        }}
      />
      {repeats && (
        <DayField
          size="sm"
          label="Until"
          aria-label="Last day on which it repeats"
          value={until ?? null}
          min={start}
          disabled={!mayEdit}
          take={(day) => {
            const { until: _, ...rest } = repeats
            change(day === null ? rest : { ...rest, until: day })
          }}
        />
      )}
    </div>
  )
}
