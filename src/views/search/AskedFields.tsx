import { Autocomplete, Group, Select, TextInput } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { dueWords } from '../../core/gathering/asked'
import { MAX_DOER_NAME } from '../../core/records/dates'
import { MapId, PersonId, TagId } from '../../core/records/ids'
import { type AskedDays, AskedTask, FARTHEST_DAY, MOST_SEARCH_WORDS, type SearchAsked } from '../../core/records/search'
import { NumberField } from '../app/fields/NumberField'
import { usePeople } from '../comments/comments'
import { useSession } from '../sync/use-session'
import styles from './search.module.css'
import { useTags } from './use-tags'

const TASKS: Record<AskedTask, string> = { left: 'Still to do', open: 'To do', begun: 'Begun', done: 'Done' }

/** Days that are often asked for, from today on. */
const DUE: readonly AskedDays[] = [
  { from: null, to: -1 },
  { from: 0, to: 0 },
  { period: 'week' },
  { period: 'month' },
  { from: 0, to: 7 },
  { from: 0, to: 30 },
  { from: 0, to: 60 },
  { from: 0, to: 365 },
  { from: null, to: null },
]
const OWN = 'own'
const keyOf = (due: AskedDays) => ('period' in due ? due.period : `${due.from ?? ''}..${due.to ?? ''}`)
const sentence = (words: string) => words[0]!.toUpperCase() + words.slice(1)

interface Props {
  asked: SearchAsked
  change(part: Partial<SearchAsked>): void
  /** What stands at the right edge of the words. */
  rightSection?: React.ReactNode
  label: string
}

/** What a search asks for: words, and beneath them in which map, with which tag, task, date and person alone. */
export function AskedFields({ asked, change, rightSection, label }: Props) {
  const session = useSession()
  const tags = useTags(session.id) ?? []
  const people = usePeople()
  const { due, who } = asked
  const own = due === null || 'period' in due || DUE.some((each) => keyOf(each) === keyOf(due)) ? null : due
  return (
    <div className={styles.asked}>
      <TextInput
        className={styles.words}
        aria-label={label}
        placeholder="Words in topics and what lies behind them"
        leftSection={<IconSearch size={18} aria-hidden />}
        rightSection={rightSection}
        value={asked.words}
        maxLength={MOST_SEARCH_WORDS}
        data-autofocus
        autoFocus
        onChange={(event) => change({ words: event.currentTarget.value })}
      />
      <div className={styles.filters}>
        <Select
          aria-label="In which map"
          placeholder="In all maps"
          searchable
          clearable
          data={session.maps
            .filter(({ trashed }) => !trashed)
            .map(({ id, title }) => ({ value: id, label: title || 'Untitled' }))}
          value={asked.map}
          onChange={(map) => change({ map: map === null ? null : MapId.parse(map) })}
        />
        <Select
          aria-label="With which tag"
          placeholder="With any tag"
          searchable
          clearable
          data={tags.map(({ id, name }) => ({ value: id, label: name }))}
          value={asked.tag}
          onChange={(tag) => change({ tag: tag === null ? null : TagId.parse(tag) })}
        />
        <Select
          aria-label="With which task"
          placeholder="Task or not"
          clearable
          data={AskedTask.options.map((value) => ({ value, label: TASKS[value] }))}
          value={asked.task}
          onChange={(task) => change({ task: AskedTask.safeParse(task).data ?? null })}
        />
        <Select
          aria-label="With which date"
          placeholder="Dated or not"
          clearable
          data={[
            ...DUE.map((each) => ({ value: keyOf(each), label: sentence(dueWords(each)) })),
            { value: OWN, label: 'Other days …' },
          ]}
          value={due === null ? null : own ? OWN : keyOf(due)}
          onChange={(value) => {
            if (value === OWN) return change({ due: { from: -14, to: 14 } })
            change({ due: DUE.find((each) => keyOf(each) === value) ?? null })
          }}
        />
        <Autocomplete
          aria-label="By whom"
          placeholder="By anybody"
          clearable
          data={[...new Set(people.map(({ name }) => name))]}
          value={who?.name ?? ''}
          maxLength={MAX_DOER_NAME}
          onChange={(name) => {
            const person = people.find((other) => other.name === name)
            change({ who: name.trim() === '' ? null : { person: person ? PersonId.parse(person.id) : null, name } })
          }}
        />
      </div>
      {own && (
        <Group gap="xs" align="flex-end">
          <Days
            label="From so many days after today"
            value={own.from}
            onChange={(from) => change({ due: { ...own, from } })}
          />
          <Days label="To so many days after today" value={own.to} onChange={(to) => change({ due: { ...own, to } })} />
        </Group>
      )}
    </div>
  )
}

interface DaysProps {
  label: string
  value: number | null
  onChange(days: number | null): void
}

/** A number of days after today, before it where it is negative; empty leaves that end open. */
const Days = ({ label, value, onChange }: DaysProps) => (
  <NumberField
    size="sm"
    label={label}
    placeholder="any"
    min={-FARTHEST_DAY}
    max={FARTHEST_DAY}
    allowDecimal={false}
    value={value}
    take={onChange}
  />
)
