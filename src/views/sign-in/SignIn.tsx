import { Button, Divider, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core'
import { type FormEvent, useState } from 'react'
import { z } from 'zod'
import { ask, tellTrouble, wordsFor } from '../app/api'
import styles from './sign-in.module.css'

/** The first thing a newcomer sees: begin at once, look at the demo, or sign in. */
export function SignIn({ demo }: { demo: boolean }) {
  const [problem, setProblem] = useState<string | null>(null)
  const [begins, setBegins] = useState(false)
  const begin = async () => {
    setBegins(true)
    try {
      const { collection } = await ask(z.object({ collection: z.string() }), '/api/guests', { method: 'POST' })
      const { firstMap } = await import('./first-map')
      window.location.assign(await firstMap(collection))
    } catch (error) {
      tellTrouble(error)
      setBegins(false)
    }
  }
  const enterDemo = () =>
    ask(z.unknown(), '/api/demo-session', { method: 'POST' }).then(() => window.location.assign('/'), tellTrouble)
  const signIn = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    try {
      await ask(z.unknown(), '/api/sessions', {
        method: 'POST',
        body: Object.fromEntries(new FormData(event.currentTarget)),
      })
      window.location.assign('/')
    } catch (error) {
      setProblem(wordsFor(error))
    }
  }
  return (
    <main className={styles.page}>
      <section className={styles.words}>
        <p className={styles.name}>Folvet</p>
        <Title order={1}>Keep a network of maps and notes readable, and publish it as a site</Title>
        <Text size="lg">
          Pour out words, shape them into maps, split dense branches into child maps, merge what overlaps, link across
          maps. Nothing ever lands on top of anything else.
        </Text>
        <Stack gap="sm" mt="md" align="flex-start">
          <Button size="md" onClick={begin} loading={begins}>
            Start without an account
          </Button>
          {demo && (
            <Button size="md" variant="light" onClick={enterDemo}>
              Look at the demo: the Vennmoor handbook
            </Button>
          )}
          <Text size="sm" c="dimmed">
            What you make is kept in this browser's session. Make it an account later, or end it and leave nothing
            behind.
          </Text>
        </Stack>
      </section>
      <section className={styles.form} aria-label="Sign in">
        <form onSubmit={signIn}>
          <Stack>
            <Title order={2} size="h3">
              Sign in
            </Title>
            <TextInput name="address" type="email" label="Mail address" required autoComplete="username" />
            <PasswordInput name="password" label="Password" required autoComplete="current-password" />
            {problem && (
              <Text c="var(--ember-text)" role="alert" size="sm">
                {problem}
              </Text>
            )}
            <Divider />
            <Button type="submit" variant="default">
              Sign in
            </Button>
          </Stack>
        </form>
      </section>
    </main>
  )
}
