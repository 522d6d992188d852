import { Alert, Button, Loader, Stack, Text } from '@mantine/core'
import { IconPlus } from '@tabler/icons-react'
import { useState } from 'react'
import { wordsFor } from '../app/api'
import { Modal } from '../app/Modal'
import { useSession } from '../sync/use-session'
import { CalendarCard } from './CalendarCard'
import { ConnectForm } from './ConnectForm'
import { useCalendars } from './calendars'

/** The calendars elsewhere with which a collection is kept in step. */
export default function CalendarsDialog({ onClose }: { onClose(): void }) {
  const session = useSession()
  const { calendars, isBusy, standIn, data, error } = useCalendars(session.id, session.mayEditAll)
  const [isAdding, setAdding] = useState(false)
  const home = session.maps.find(({ id }) => id === session.collection.homeMap) ?? session.maps[0]
  const isConnecting = isAdding || calendars.length === 0
  return (
    <Modal opened onClose={onClose} size="lg" title="Calendars elsewhere">
      <Stack gap="md">
        <Text size="sm" c="dimmed">
          Topics with a date and the entries of a calendar elsewhere are kept in step: words, note, date and task, in
          both directions. The calendar has to speak CalDAV, as most servers of calendars do.
        </Text>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader size="sm" aria-label="Reading the calendars" />}
        {calendars.map((calendar) => (
          <CalendarCard key={calendar.id} calendar={calendar} collection={session.id} isBusy={isBusy} />
        ))}
        {data && home && isConnecting && (
          <ConnectForm
            collection={session.id}
            home={home.id}
            standIn={standIn}
            known={new Set(calendars.map(({ address }) => address))}
            onDone={() => setAdding(false)}
            onCancel={() => (calendars.length === 0 ? onClose() : setAdding(false))}
          />
        )}
        {data && !home && <Text size="sm">There is no map yet whose topics could go into a calendar.</Text>}
        {data && home && !isConnecting && (
          <Button
            variant="default"
            mr="auto"
            leftSection={<IconPlus size={16} aria-hidden />}
            onClick={() => setAdding(true)}
          >
            Another calendar
          </Button>
        )}
      </Stack>
    </Modal>
  )
}
