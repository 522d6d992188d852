import { Loader, Stack, Text, TextInput, UnstyledButton } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { repeatWords } from '../../core/dates/words'
import type { TopicRecord } from '../../core/records/topic'
import { foldForFinding, wordsForFinding } from '../../core/text/folding'
import { ask, tell, wordsFor } from '../app/api'
import { Modal } from '../app/Modal'
import { calendarHere, sayDays } from '../app/when'
import { useSessionHandle } from '../sync/use-session'
import { calendarsPath, useAskCalendar, WaitingEntries, type WaitingEntry } from './calendars'
import styles from './calendars.module.css'

/** Most entries that are shown at once. */
const MOST_SHOWN = 100

function whenOf({ dates, task }: WaitingEntry): string {
  if (!dates) return task ? 'to do, without a day' : ''
  return sayDays(dates) + (dates.repeats ? `, ${repeatWords(dates.repeats, dates.start, calendarHere())}` : '')
}

/** Chooses an entry of a calendar that gives a topic its day and goes with it from then on. */
export default function PutEntryDialog({ topic, onClose }: { topic: TopicRecord; onClose(): void }) {
  const { id } = useSessionHandle()
  const queries = useQueryClient()
  const askCalendar = useAskCalendar(id)
  const [words, setWords] = useState('')
  const { data, error } = useQuery({
    queryKey: ['waiting entries', id],
    queryFn: () => ask(WaitingEntries, `${calendarsPath(id)}/waiting`),
    staleTime: 0,
  })
  const wanted = wordsForFinding(words)
  const fits = ({ text, name }: WaitingEntry) => {
    const folded = foldForFinding(`${text} ${name}`)
    return wanted.every((word) => folded.includes(word))
  }
  const found = (data ?? []).filter(fits)
  const areSeveral = new Set((data ?? []).map(({ calendar }) => calendar)).size > 1
  const put = async ({ calendar, href, text }: WaitingEntry) => {
    onClose()
    if (!(await askCalendar(`/${calendar}`, { method: 'POST', body: { act: 'put', href, topic: topic.id } }))) return
    tell(`${topic.text || 'Untitled'} goes with ${text} in the calendar from now on.`)
    await queries.invalidateQueries({ queryKey: ['around', id, topic.id] })
  }
  return (
    <Modal opened onClose={onClose} size="lg" title={`From a calendar onto ${topic.text.slice(0, 60) || 'Untitled'}`}>
      <Stack gap="sm">
        <Text size="sm" c="dimmed">
          The topic gets the date of the entry and keeps its words. What is changed on one of them is changed on the
          other from then on; where the date is taken off here, the entry stays in its calendar.
        </Text>
        <TextInput
          data-autofocus
          aria-label="Words of the entry"
          placeholder="Words of the entry"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        {error && <Text c="var(--ember-text)">{wordsFor(error)}</Text>}
        {!data && !error && <Loader size="sm" aria-label="Reading the calendars" />}
        {data && found.length === 0 && (
          <Text size="sm">
            {data.length === 0
              ? 'Every entry of the calendars goes with a topic already.'
              : 'No entry has these words.'}
          </Text>
        )}
        <ul className={styles.entries} aria-label="Entries of calendars">
          {found.slice(0, MOST_SHOWN).map((entry) => (
            <li key={`${entry.calendar} ${entry.href}`}>
              <UnstyledButton className={styles.entry} onClick={() => void put(entry)}>
                <span>
                  {entry.text}
                  {areSeveral && <span className={styles.when}> in {entry.name}</span>}
                </span>
                <span className={styles.when}>{whenOf(entry)}</span>
              </UnstyledButton>
            </li>
          ))}
        </ul>
        {found.length > MOST_SHOWN && (
          <Text size="sm" c="dimmed">
            and {found.length - MOST_SHOWN} more: write some of its words
          </Text>
        )}
      </Stack>
    </Modal>
  )
}
