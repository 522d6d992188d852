import { Anchor, Button, Text } from '@mantine/core'
import { IconCalendarPlus } from '@tabler/icons-react'
import { Suspense, useState } from 'react'
import type { TopicRecord } from '../../core/records/topic'
import { useAround } from '../app/around'
import { late } from '../app/late'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart } from '../sync/use-session'
import { useCalendars } from './calendars'

const PutEntryDialog = late(() => import('./PutEntryDialog'))

const rightsIn = ({ id, mayEditAll }: CollectionSession) => ({ id, mayEditAll })

/** In which calendars elsewhere a topic is, with the way to put an entry on it. */
export function InCalendars({ topic }: { topic: TopicRecord }) {
  const { id, mayEditAll } = useCalmPart(rightsIn)
  const { calendars } = useCalendars(id, mayEditAll)
  const own = useAround(topic)?.calendars ?? []
  const [isChoosing, setChoosing] = useState(false)
  if (!mayEditAll || calendars.length === 0) return null
  return (
    <>
      {own.map(({ calendar, name, isOpen }) => (
        <Text key={calendar} size="sm">
          Goes with its entry in {name}
          {isOpen && (
            <Text span c="var(--ember-text)">
              {' '}
              – changed on both sides: choose on <Anchor href={`/c/${id}/dates?calendars`}>Dates</Anchor>
            </Text>
          )}
        </Text>
      ))}
      {own.length < calendars.length && (
        <Button
          size="compact-sm"
          variant="default"
          mr="auto"
          leftSection={<IconCalendarPlus size={16} aria-hidden />}
          onClick={() => setChoosing(true)}
        >
          From a calendar …
        </Button>
      )}
      {isChoosing && (
        <Suspense>
          <PutEntryDialog topic={topic} onClose={() => setChoosing(false)} />
        </Suspense>
      )}
    </>
  )
}
