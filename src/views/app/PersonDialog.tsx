import { Button, Group, PasswordInput, Stack, Text, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { z } from 'zod'
import { forgetUnsentOf } from '../sync/unsent'
import { ask, tell, tellTrouble, wordsFor } from './api'
import { forgetPerson } from './forget'
import { Modal } from './Modal'
import type { Person } from './person'

/** What somebody without an account is asked before they keep what they made as one, or leave nothing behind. */
export default function PersonDialog({
  asked,
  person,
  onClose,
}: {
  asked: 'claim' | 'end'
  person: Person
  onClose(): void
}) {
  return asked === 'claim' ? <ClaimDialog onClose={onClose} /> : <EndDialog onClose={onClose} person={person} />
}

function ClaimDialog({ onClose }: { onClose(): void }) {
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
    <Modal opened onClose={onClose} title="Keep this as my account">
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

function EndDialog({ onClose, person }: { onClose(): void; person: Person }) {
  const end = async () => {
    try {
      await ask(z.unknown(), '/api/me', { method: 'DELETE' })
      await forgetUnsentOf(person.id)
      await forgetPerson(person.id)
      window.location.assign('/')
    } catch (error) {
      tellTrouble(error)
    }
  }
  return (
    <Modal opened onClose={onClose} title="End and leave nothing here">
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
