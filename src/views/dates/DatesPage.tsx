import { Alert, Button, FileButton, Group, Loader, SegmentedControl, Select, Stack, Text, Title } from '@mantine/core'
import { IconCalendarDown, IconCalendarUp } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { z } from 'zod'
import { movedBy } from '../../core/dates/agenda'
import { toneClass } from '../../core/look/families'
import type { Dates } from '../../core/records/dates'
import { ask, tell, wordsFor } from '../app/api'
import { today } from '../app/when'
import { CalendarsButton } from '../calendars/CalendarsButton'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { useTags } from '../search/use-tags'
import { useSession } from '../sync/use-session'
import { Agenda } from './Agenda'
import { type DateActs, type DatedTopic, DatesAnswer, withRepetitions } from './dates-answer'
import { FeedButton } from './FeedButton'
import { LineOfDays } from './LineOfDays'
import { Month } from './Month'

export default function DatesPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <DatesOfAll />
    </OpenedCollection>
  )
}

const CalendarReport = z.object({ entries: z.number(), unread: z.array(z.string()) })

/** What is due and when, in all maps: as a line of days, as an agenda by week or as a month, with iCalendar out and in. */
function DatesOfAll() {
  const session = useSession()
  const queries = useQueryClient()
  const key = ['dates', session.id]
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => ask(DatesAnswer, `/api/collections/${session.id}/dates`),
    staleTime: 0,
  })
  const tags = useTags(session.id) ?? []
  const [map, setMap] = useState<string | null>(null)
  const [tag, setTag] = useState<string | null>(null)
  const [who, setWho] = useState<string | null>(null)
  const [which, setWhich] = useState<'all' | 'tasks'>('all')
  const [view, setView] = useState<'agenda' | 'month'>('agenda')
  const day = today()
  const rows = useMemo(
    () =>
      (data ?? []).filter(
        (row) =>
          (map === null || row.map === map) &&
          (tag === null || row.tags.includes(tag)) &&
          (who === null || (row.work?.who ?? []).some(({ name }) => name === who)) &&
          (which === 'all' || (row.task !== null && row.task !== 'done')),
      ),
    [data, map, tag, who, which],
  )
  const all = useMemo(() => withRepetitions(rows, day), [rows, day])
  const doers = useMemo(
    () => [...new Set((data ?? []).flatMap(({ work }) => (work?.who ?? []).map(({ name }) => name)))].sort(),
    [data],
  )
  const maps = useMemo(() => [...new Set((data ?? []).map((row) => row.map))].sort(), [data])
  const refresh = () => queries.invalidateQueries({ queryKey: key })
  /** Shows what is done at once, has the server do it, and then shows what came of it. */
  const set = (row: DatedTopic, part: { dates: Dates | null } | { task: DatedTopic['task'] }) => {
    queries.setQueryData<DatedTopic[]>(key, (before) =>
      before?.flatMap((each) => {
        if (each.topic !== row.topic) return each
        if ('task' in part) return { ...each, task: part.task }
        return part.dates ? { ...each, dates: part.dates } : []
      }),
    )
    const name = 'task' in part ? 'set-task' : 'set-dates'
    const on = 'task' in part ? { today: day } : {}
    void session.server.command(name, { topics: [row.topic], ...part, ...on }).then(refresh)
  }
  const acts: DateActs = {
    mayEdit: (of) => session.mayEditMap(of),
    setDates: (row, dates) => set(row, { dates }),
    move: (row, days) => {
      if (days !== 0) set(row, { dates: movedBy(row.dates, days) })
    },
    tick: (row, isDone) => set(row, { task: isDone ? 'done' : 'open' }),
    hueOf: (of) => toneClass('spruce', Math.max(0, maps.indexOf(of)) % 8),
  }
  const home = session.maps.find(({ id }) => id === (map ?? session.collection.homeMap))
  const bringIn = async (file: File | null) => {
    if (!file || !home) return
    const name = file.name.replace(/\.[^.]*$/, '')
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    const done = await session.server.command('bring-calendar', { map: home.id, name, text: await file.text(), zone })
    if (!done) return
    const { entries, unread } = CalendarReport.parse(done.report)
    const words = `${entries === 1 ? '1 entry' : `${entries} entries`} came into ${home.title || 'Untitled'}.`
    tell(
      [words, ...unread.slice(0, 5), ...(unread.length > 5 ? [`and ${unread.length - 5} more like these`] : [])].join(
        ' ',
      ),
    )
    await refresh()
  }
  return (
    <CollectionFrame place="dates">
      <Stack gap="md">
        <Group justify="space-between">
          <Group gap="md">
            <Title order={1} size="h2">
              Dates
            </Title>
          </Group>
          <Group gap="xs">
            {session.mayEditAll && home && (
              <FileButton accept=".ics,text/calendar" onChange={(file) => void bringIn(file)}>
                {(props) => (
                  <Button {...props} variant="default" leftSection={<IconCalendarDown size={18} aria-hidden />}>
                    Bring a calendar in
                  </Button>
                )}
              </FileButton>
            )}
            {session.mayEditAll && <CalendarsButton onInStep={() => void refresh()} />}
            <FeedButton />
            <Button
              variant="default"
              component="a"
              href={`/api/collections/${session.id}/dates.ics${map ? `?map=${map}` : ''}`}
              download
              leftSection={<IconCalendarUp size={18} aria-hidden />}
            >
              As a calendar file
            </Button>
          </Group>
        </Group>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader aria-label="Reading all dates" />}
        {data && (
          <>
            <LineOfDays rows={all} today={day} acts={acts} />
            <Group gap="sm">
              <SegmentedControl
                size="sm"
                aria-label="How"
                value={view}
                data={[
                  { value: 'agenda', label: 'by week' },
                  { value: 'month', label: 'a month' },
                ]}
                onChange={(value) => setView(value === 'month' ? 'month' : 'agenda')}
              />
              <SegmentedControl
                size="sm"
                aria-label="Which"
                value={which}
                data={[
                  { value: 'all', label: 'all' },
                  { value: 'tasks', label: 'still to do' },
                ]}
                onChange={(value) => setWhich(value === 'tasks' ? 'tasks' : 'all')}
              />
              <Select
                size="sm"
                aria-label="In which map"
                placeholder="In all maps"
                clearable
                data={maps.map((id) => ({ value: id, label: session.titleOf(id) }))}
                value={map}
                onChange={setMap}
              />
              {doers.length > 0 && (
                <Select
                  size="sm"
                  aria-label="Who"
                  placeholder="Whoever does it"
                  clearable
                  data={doers}
                  value={who}
                  onChange={setWho}
                />
              )}
              {tags.length > 0 && (
                <Select
                  size="sm"
                  aria-label="With which tag"
                  placeholder="With any tag"
                  clearable
                  data={tags.map(({ id, name }) => ({ value: id, label: name }))}
                  value={tag}
                  onChange={setTag}
                />
              )}
            </Group>
            {rows.length === 0 && (
              <Text c="dimmed">
                {data.length === 0
                  ? `No topic has a date yet. On a map, dates are given in the topic sheet${home ? '; or bring a calendar in' : ''}.`
                  : 'Nothing of this kind has a date.'}
              </Text>
            )}
            {view === 'agenda' ? (
              <Agenda rows={all} today={day} acts={acts} />
            ) : (
              <Month rows={all} today={day} acts={acts} />
            )}
          </>
        )}
      </Stack>
    </CollectionFrame>
  )
}
