import { Box, Button, Menu, useMantineColorScheme } from '@mantine/core'
import {
  IconBookmark,
  IconDoorExit,
  IconMoon,
  IconSun,
  IconSunMoon,
  IconTrashX,
  IconUser,
  IconUserPlus,
} from '@tabler/icons-react'
import { lazy, Suspense, useState } from 'react'
import { z } from 'zod'
import { ask, tellTrouble } from './api'
import { forgetHalfWritten } from './half-written'
import { usePerson } from './person'

const PersonDialog = lazy(() => import('./PersonDialog'))

const SCHEMES = [
  { value: 'light', label: 'Light', icon: IconSun },
  { value: 'dark', label: 'Dark', icon: IconMoon },
  { value: 'auto', label: 'As the system', icon: IconSunMoon },
] as const

/** Who is here, how it looks, and the way out. */
export function PersonMenu() {
  const person = usePerson()
  const { colorScheme, setColorScheme } = useMantineColorScheme()
  const [asked, setAsked] = useState<'claim' | 'end' | null>(null)
  if (!person) return null
  const signOut = () =>
    ask(z.unknown(), '/api/sessions', { method: 'DELETE' }).then(() => {
      forgetHalfWritten()
      window.location.assign('/')
    }, tellTrouble)
  return (
    <>
      <Menu position="bottom-end" width={240}>
        <Menu.Target>
          <Button
            variant="subtle"
            color="gray"
            c="var(--ink)"
            leftSection={<IconUser size={18} />}
            size="compact-md"
            aria-label={person.name}
          >
            <Box component="span" visibleFrom="xs">
              {person.name}
            </Box>
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {SCHEMES.map(({ value, label, icon: Icon }) => (
            <Menu.Item
              key={value}
              leftSection={<Icon size={16} />}
              onClick={() => setColorScheme(value)}
              aria-current={colorScheme === value || undefined}
              fw={colorScheme === value ? 600 : 400}
            >
              {label}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item component="a" href="/capture" leftSection={<IconBookmark size={16} />}>
            Keep pages from the web
          </Menu.Item>
          {person.address ? (
            <Menu.Item leftSection={<IconDoorExit size={16} />} onClick={signOut}>
              Sign out
            </Menu.Item>
          ) : (
            <>
              <Menu.Item leftSection={<IconUserPlus size={16} />} onClick={() => setAsked('claim')}>
                Keep this as my account
              </Menu.Item>
              <Menu.Item leftSection={<IconTrashX size={16} />} color="ember" onClick={() => setAsked('end')}>
                End and leave nothing here
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      {asked && (
        <Suspense>
          <PersonDialog asked={asked} person={person} onClose={() => setAsked(null)} />
        </Suspense>
      )}
    </>
  )
}
