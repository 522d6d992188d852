import {
  Box,
  Button,
  Group,
  Menu,
  Modal,
  PasswordInput,
  Stack,
  Text,
  TextInput,
  useMantineColorScheme,
} from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { IconDoorExit, IconMoon, IconSun, IconSunMoon, IconTrashX, IconUser, IconUserPlus } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { z } from 'zod'
import { ask, tell, tellTrouble, wordsFor } from './api'
import { type Person, usePerson } from './person'

const SCHEMES = [
  { value: 'light', label: 'Light', icon: IconSun },
  { value: 'dark', label: 'Dark', icon: IconMoon },
  { value: 'auto', label: 'As the system', icon: IconSunMoon },
] as const

/** Who is here, how it looks, and the way out. */
export function PersonMenu() {
  const person = usePerson()
  const { colorScheme, setColorScheme } = useMantineColorScheme()
  const [claiming, claim] = useDisclosure(false)
  const [ending, end] = useDisclosure(false)
  if (!person) return null
  const signOut = () =>
    ask(z.unknown(), '/api/sessions', { method: 'DELETE' }).then(() => window.location.assign('/'), tellTrouble)
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
          {person.address ? (
            <Menu.Item leftSection={<IconDoorExit size={16} />} onClick={signOut}>
              Sign out
            </Menu.Item>
          ) : (
            <>
              <Menu.Item leftSection={<IconUserPlus size={16} />} onClick={claim.open}>
                Keep this as my account
              </Menu.Item>
              <Menu.Item leftSection={<IconTrashX size={16} />} color="ember" onClick={end.open}>
                End and leave nothing here
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      <ClaimDialog opened={claiming} onClose={claim.close} />
      <EndDialog opened={ending} onClose={end.close} person={person} />
    </>
  )
}

function ClaimDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const queries = useQueryClient()
  const [problem, setProblem] = useState<string | null>(null)
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const body = Object.fromEntries(new FormData(event.currentTarget))
    try {
      await ask(z.unknown(), '/api/me', { method: 'POST', body })
      await queries.invalidateQueries({ queryKey: ['me'] })
      tell('This is your account now. Everything you made is in it.')
      onClose()
    } catch (error) {
      setProblem(wordsFor(error))
    }
  }
  return (
    <Modal opened={opened} onClose={onClose} title="Keep this as my account">
      <form onSubmit={submit}>
        <Stack>
          <Text size="sm">Give a name, a mail address and a password. Everything you made so far stays.</Text>
          <TextInput name="name" label="Name" required autoComplete="name" data-autofocus />
          <TextInput name="address" label="Mail address" type="email" required autoComplete="email" />
          <PasswordInput
            name="password"
            label="Password"
            description="At least 10 characters"
            required
            minLength={10}
            autoComplete="new-password"
          />
          {problem && (
            <Text c="var(--ember-text)" role="alert" size="sm">
              {problem}
            </Text>
          )}
          <Button type="submit">Keep it</Button>
        </Stack>
      </form>
    </Modal>
  )
}

function EndDialog({ opened, onClose, person }: { opened: boolean; onClose(): void; person: Person }) {
  const end = async () => {
    try {
      await ask(z.unknown(), '/api/me', { method: 'DELETE' })
      for (const { name } of await indexedDB.databases()) if (name) indexedDB.deleteDatabase(name)
      localStorage.clear()
      window.location.assign('/')
    } catch (error) {
      tellTrouble(error)
    }
  }
  return (
    <Modal opened={opened} onClose={onClose} title="End and leave nothing here">
      <Stack>
        <Text>
          All collections of {person.name} on this computer are removed for good: maps, notes and files. This cannot be
          undone.
        </Text>
        <Group justify="end">
          <Button variant="default" onClick={onClose}>
            Go on working
          </Button>
          <Button color="ember" onClick={end}>
            Remove everything
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
