import { Alert, Anchor, Button, Group, PasswordInput, Radio, Stack, Text, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { MapId } from '../../core/records/ids'
import { ask, wordsFor } from '../app/api'
import { calendarsPath, type FoundCalendar, FoundCalendars, type Terms, useAskCalendar } from './calendars'
import { TermsFields } from './TermsFields'

interface Props {
  collection: string
  home: MapId
  /** A calendar that was started to try it with. */
  standIn: string | null
  known: ReadonlySet<string>
  onDone(): void
  onCancel(): void
}

/** Asks for the address of a calendar, shows which there are, and what is to go where. */
export function ConnectForm({ collection, home, standIn, known, onDone, onCancel }: Props) {
  const askCalendar = useAskCalendar(collection)
  const [door, setDoor] = useState({ address: '', user: '', password: '' })
  const [found, setFound] = useState<FoundCalendar[] | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const [terms, setTerms] = useState<Terms>({ gives: 'all', takes: 'all', intoMap: home })
  const [isBusy, setBusy] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const give = (part: Partial<typeof door>) => {
    setDoor((before) => ({ ...before, ...part }))
    setFound(null)
    setTrouble(null)
  }
  const find = async (at = door) => {
    setBusy(true)
    setTrouble(null)
    try {
      const all = await ask(FoundCalendars, `${calendarsPath(collection)}/found`, {
        method: 'POST',
        body: at,
        limit: 60_000,
      })
      setFound(all)
      setChosen(all.find(({ address }) => !known.has(address))?.address ?? null)
    } catch (error) {
      setTrouble(wordsFor(error))
    } finally {
      setBusy(false)
    }
  }
  const connect = async () => {
    const calendar = found?.find(({ address }) => address === chosen)
    if (!calendar) return
    setBusy(true)
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
    const body = { ...door, ...calendar, ...terms, zone }
    const isDone = await askCalendar('', { method: 'POST', body })
    setBusy(false)
    if (isDone) onDone()
  }
  return (
    <Stack
      component="form"
      gap="sm"
      onSubmit={(event) => {
        event.preventDefault()
        void (found && chosen ? connect() : find())
      }}
    >
      <TextInput
        data-autofocus
        label="Address of the calendar, or of the server on which it is"
        placeholder="https://calendar.example.org/"
        description={
          standIn && (
            <>
              A small calendar was started to try it with:{' '}
              <Anchor
                component="button"
                type="button"
                size="xs"
                onClick={() => {
                  give({ address: standIn, user: '', password: '' })
                  void find({ address: standIn, user: '', password: '' })
                }}
              >
                {standIn}
              </Anchor>
            </>
          )
        }
        value={door.address}
        onChange={(event) => give({ address: event.currentTarget.value })}
      />
      <Group grow align="flex-start" gap="sm">
        <TextInput
          label="Name there"
          placeholder="if it asks for one"
          autoComplete="off"
          value={door.user}
          onChange={(event) => give({ user: event.currentTarget.value })}
        />
        <PasswordInput
          label="Password there"
          placeholder="if it asks for one"
          autoComplete="off"
          visibilityToggleButtonProps={{ 'aria-label': 'Show the password' }}
          value={door.password}
          onChange={(event) => give({ password: event.currentTarget.value })}
        />
      </Group>
      {trouble && (
        <Alert color="ember" role="alert">
          {trouble}
        </Alert>
      )}
      {found && (
        <>
          <Radio.Group label="Which one" value={chosen ?? ''} onChange={setChosen}>
            <Stack gap={6} mt={4}>
              {found.map(({ address, name }) => (
                <Radio
                  key={address}
                  value={address}
                  label={name}
                  disabled={known.has(address)}
                  description={known.has(address) ? 'kept in step already' : address}
                  styles={{ description: { overflowWrap: 'anywhere' } }}
                />
              ))}
            </Stack>
          </Radio.Group>
          <TermsFields terms={terms} onChange={setTerms} />
          <Text size="sm" c="dimmed">
            Entries that were over a month ago stay where they are. What is done from now on is done on both sides, in
            your name.
          </Text>
        </>
      )}
      <Group gap="xs">
        {found ? (
          <Button type="submit" loading={isBusy} disabled={!chosen}>
            Keep in step
          </Button>
        ) : (
          <Button type="submit" loading={isBusy} disabled={door.address.trim() === ''}>
            Look for calendars
          </Button>
        )}
        <Button variant="default" onClick={onCancel}>
          Cancel
        </Button>
      </Group>
    </Stack>
  )
}
