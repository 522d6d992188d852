import { ActionIcon, Alert, Button, Group, Menu, Stack, Text } from '@mantine/core'
import { IconDots, IconRefresh } from '@tabler/icons-react'
import { useState } from 'react'
import { counted } from '../../core/text/counted'
import { sayWhen } from '../app/when'
import { type KeptCalendar, type Terms, useAskCalendar } from './calendars'
import styles from './calendars.module.css'
import { Differences } from './Differences'
import { TermsFields } from './TermsFields'

/** A calendar elsewhere: whether it is in step, what somebody has to choose about, and what can be done. */
export function CalendarCard({
  calendar,
  collection,
  isBusy,
}: {
  calendar: KeptCalendar
  collection: string
  isBusy: boolean
}) {
  const askCalendar = useAskCalendar(collection)
  const [terms, setTerms] = useState<Terms | null>(null)
  const { id, name, address, person, inStepAt, trouble, entries, paired, conflicts } = calendar
  const act = (body: object) => void askCalendar(`/${id}`, { method: 'POST', body })
  return (
    <section aria-label={name} className={styles.card}>
      <Group justify="space-between" align="flex-start" gap="xs">
        <div className={styles.about}>
          <Text fw={600} className={styles.said}>
            {name}
          </Text>
          <Text size="sm" c="dimmed" role="status">
            {inStepAt ? `In step since ${sayWhen(new Date(inStepAt))}` : 'Being looked at for the first time'}
            {inStepAt && `, ${paired} of ${counted(entries, 'entry', 'entries')} with a topic`}
          </Text>
          <Text size="xs" c="dimmed" className={styles.said}>
            {address} · in the name of {person}
          </Text>
        </div>
        <Group gap={4} wrap="nowrap">
          <Button
            size="compact-sm"
            variant="default"
            loading={isBusy}
            leftSection={<IconRefresh size={16} aria-hidden />}
            onClick={() => act({ act: 'look' })}
          >
            Look now
          </Button>
          <Menu position="bottom-end" transitionProps={{ duration: 0 }}>
            <Menu.Target>
              <ActionIcon variant="subtle" color="gray" aria-label={`${name}: what can be done`}>
                <IconDots size={16} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={() => setTerms(calendar.terms)}>Change what goes where …</Menu.Item>
              <Menu.Item c="var(--ember-text)" onClick={() => void askCalendar(`/${id}`, { method: 'DELETE' })}>
                Keep in step no longer
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </Group>
      </Group>
      {trouble && (
        <Alert color="ember" role="alert" mt="xs">
          {trouble}
          {calendar.asksToLose && (
            <Group gap="xs" mt="xs">
              <Button size="compact-sm" variant="default" onClick={() => act({ act: 'lose' })}>
                That is meant: let them go on the other side too
              </Button>
            </Group>
          )}
        </Alert>
      )}
      {terms && (
        <Stack
          component="form"
          gap="xs"
          mt="sm"
          onSubmit={(event) => {
            event.preventDefault()
            void askCalendar(`/${id}`, { method: 'PUT', body: terms }).then((isDone) => isDone && setTerms(null))
          }}
        >
          <TermsFields terms={terms} onChange={setTerms} />
          <Group gap="xs">
            <Button type="submit" size="compact-sm">
              Change
            </Button>
            <Button variant="default" size="compact-sm" onClick={() => setTerms(null)}>
              Cancel
            </Button>
          </Group>
        </Stack>
      )}
      {conflicts.length > 0 && (
        <>
          <Text size="sm" mt="sm">
            {conflicts.length === 1
              ? 'One was changed on both sides, each in its own way. Neither was touched: choose which one holds.'
              : `${conflicts.length} were changed on both sides, each in its own way. Neither was touched: choose which one holds.`}
          </Text>
          <Differences
            collection={collection}
            differences={conflicts}
            isBusy={isBusy}
            onChoose={({ href }, side) => act({ act: 'choose', href, side })}
          />
        </>
      )}
    </section>
  )
}
