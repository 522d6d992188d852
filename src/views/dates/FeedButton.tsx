import { Anchor, Button, Code, CopyButton, Group, Popover, Stack, Text } from '@mantine/core'
import { IconCalendarShare } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { z } from 'zod'
import { ask, tellTrouble } from '../app/api'
import { sayWhen } from '../app/when'
import { useSessionHandle } from '../sync/use-session'
import styles from './dates.module.css'

const Feed = z.object({ made: z.boolean(), fetchedAt: z.string().nullable() })
const Made = z.object({ path: z.string() })

/** An address at which another calendar shows these days, and keeps them as they are. */
export function FeedButton() {
  const { id } = useSessionHandle()
  const queries = useQueryClient()
  const path = `/api/collections/${id}/dates-feed`
  const [opened, setOpened] = useState(false)
  const [address, setAddress] = useState<string | null>(null)
  const { data } = useQuery({ queryKey: ['feed', id], queryFn: () => ask(Feed, path), enabled: opened, staleTime: 0 })
  const refresh = () => queries.invalidateQueries({ queryKey: ['feed', id] })
  const make = () =>
    ask(Made, path, { method: 'POST' })
      .then(({ path: made }) => setAddress(window.location.origin + made))
      .then(refresh)
      .catch(tellTrouble)
  const end = () =>
    ask(z.unknown(), path, { method: 'DELETE' })
      .then(() => setAddress(null))
      .then(refresh)
      .catch(tellTrouble)
  return (
    <Popover
      opened={opened}
      onChange={setOpened}
      trapFocus
      position="bottom-end"
      width={380}
      transitionProps={{ duration: 0 }}
    >
      <Popover.Target>
        <Button
          variant="default"
          leftSection={<IconCalendarShare size={18} aria-hidden />}
          onClick={() => setOpened(!opened)}
        >
          In another calendar
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="sm">
          <Text size="sm">
            Another calendar can fetch these days from an address of your own, and show them as they are at that time.
            Whoever knows the address sees what you may see.
          </Text>
          {address && (
            <>
              <Code block className={styles.address}>
                {address}
              </Code>
              <Text size="sm" c="dimmed">
                It is told only now. Copy it into the other calendar.
              </Text>
            </>
          )}
          {data?.made && !address && (
            <Text size="sm" c="dimmed">
              You have an address.{' '}
              {data.fetchedAt ? `It was fetched ${sayWhen(new Date(data.fetchedAt))}.` : 'Nobody has fetched it yet.'}
            </Text>
          )}
          <Group gap="xs">
            {address && (
              <CopyButton value={address}>
                {({ copied, copy }) => (
                  <Button size="compact-sm" onClick={copy}>
                    {copied ? 'Copied' : 'Copy'}
                  </Button>
                )}
              </CopyButton>
            )}
            {!address && (
              <Button size="compact-sm" onClick={() => void make()}>
                {data?.made ? 'Make another one' : 'Make an address'}
              </Button>
            )}
            {data?.made && (
              <Anchor component="button" type="button" size="sm" c="var(--quiet-ink)" onClick={() => void end()}>
                Take it back
              </Anchor>
            )}
          </Group>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}
