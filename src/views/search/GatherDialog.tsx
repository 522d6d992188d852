import { Button, Group, Select, Stack, Text } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useState } from 'react'
import { gatherList } from '../../core/commands/searches'
import { isAsking } from '../../core/gathering/asked'
import { writeAsked } from '../../core/gathering/asked-address'
import type { TopicId } from '../../core/records/ids'
import { NOTHING_ASKED } from '../../core/records/search'
import { wordsFor } from '../app/api'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import { AskedFields } from './AskedFields'
import { foundWords, useGatheredBy } from './gathered-by'
import { useSearches } from './kept'
import styles from './search.module.css'

/** Says what a gathered list finds, with what that is at the moment. */
export default function GatherDialog({ topic: id, onClose }: { topic: TopicId; onClose(): void }) {
  const session = useSession()
  const topic = session.records.get('topic', id)
  const [asked, setAsked] = useState(topic?.gathers ?? NOTHING_ASKED)
  const kept = useSearches(session.id, session.readsAll)
  const [parameters] = useDebouncedValue(writeAsked(asked).toString(), 250)
  const { data, error } = useGatheredBy(session.id, parameters)
  const gather = (asks: typeof asked | null) => {
    onClose()
    session.run((records, newIds) => gatherList(records, { topic: id, asked: asks }, newIds))
  }
  return (
    <Modal opened onClose={onClose} size="lg" title={`Gather a list below ${topic?.text.slice(0, 60) || 'Untitled'}`}>
      <Stack>
        <Text size="sm" c="dimmed">
          Topics from all over the collection that have all of this are shown below it, as long as they do. Each keeps
          its own place.
        </Text>
        {kept.length > 0 && (
          <Select
            label="As a kept search does"
            placeholder="Choose one, or say it below"
            data={kept.map((search) => ({ value: search.id, label: search.name }))}
            value={null}
            onChange={(value) => {
              const search = kept.find((each) => each.id === value)
              if (search) setAsked(search.asked)
            }}
          />
        )}
        <AskedFields
          label="Words of what is gathered"
          asked={asked}
          change={(part) => setAsked((before) => ({ ...before, ...part }))}
        />
        <div className={styles.preview} aria-live="polite">
          {error && <Text size="sm">{wordsFor(error)}</Text>}
          {!isAsking(asked) && (
            <Text size="sm" c="dimmed">
              Say what is to be found: words, a map, a tag, a task, a date or a person.
            </Text>
          )}
          {isAsking(asked) && data && (
            <>
              <Text size="sm" fw={600}>
                {data.count === 0 ? 'Nothing has all of this now.' : `Now: ${foundWords(data)}`}
              </Text>
              <ul>
                {data.topics.map(({ id, text, map }) => (
                  <li key={id}>
                    {text || 'Untitled'} <span className={styles.where}>in {session.titleOf(map)}</span>
                  </li>
                ))}
              </ul>
              {data.count > data.topics.length && (
                <Text size="sm" c="dimmed">
                  and {data.count - data.topics.length} more
                </Text>
              )}
            </>
          )}
        </div>
        <Group justify="flex-end">
          {topic?.gathers && (
            <Button variant="default" mr="auto" onClick={() => gather(null)}>
              Gather nothing here
            </Button>
          )}
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!isAsking(asked)} onClick={() => gather(asked)}>
            Gather
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
