import { Button, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core'
import { type FormEvent, useEffect, useState } from 'react'
import { z } from 'zod'
import { ask, tellTrouble, wordsFor } from '../app/api'
import { Collections } from '../app/collections'
import { fetchAhead, openInPlace } from '../app/in-place'
import { awaitField, awaitNothing } from '../workspace/awaited-field'
import { offerWalk } from '../workspace/walk-offer'
import styles from './sign-in.module.css'

/** The first thing a newcomer sees: begin at once, look at the demo, or sign in. */
export function SignIn({ demo, picture }: { demo: boolean; picture: string | null }) {
  const [problem, setProblem] = useState<string | null>(null)
  const [begins, setBegins] = useState(false)
  useEffect(fetchAhead, [])
  const begin = async () => {
    setBegins(true)
    // What is typed from now on are the words of the first topic.
    awaitField('field')
    try {
      const { collection } = await ask(z.object({ collection: z.string() }), '/api/guests', { method: 'POST' })
      const { firstMap } = await import('./first-map')
      const first = await firstMap(collection)
      if (first) await openInPlace(first.session, first.map)
      else window.location.assign(`/c/${collection}`)
    } catch (error) {
      awaitNothing()
      tellTrouble(error)
      setBegins(false)
    }
  }
  const enterDemo = async () => {
    try {
      await ask(z.unknown(), '/api/demo-session', { method: 'POST' })
      const [demo] = await ask(Collections, '/api/collections')
      offerWalk()
      if (!demo?.homeMap) return window.location.assign('/')
      const { CollectionSession } = await import('../sync/collection-session')
      await openInPlace(await CollectionSession.start(demo.id), demo.homeMap)
    } catch (error) {
      tellTrouble(error)
    }
  }
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
      <section className={styles.product} aria-label="What it is">
        {picture && (
          // biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by our own server, with every text escaped.
          <div className={`${styles.picture} backdrop`} dangerouslySetInnerHTML={{ __html: picture }} />
        )}
        <ul className={styles.points}>
          <li>
            <strong>Split.</strong> A branch that grows too dense becomes a map of its own, and its topic the door to
            it.
          </li>
          <li>
            <strong>Merge.</strong> Maps that say the same become one, with a plan before and one undo after.
          </li>
          <li>
            <strong>Publish.</strong> All maps, notes and files as a site in which every link works, even from a disk.
          </li>
        </ul>
      </section>
      <section className={styles.words}>
        <p className={styles.name}>Folvet</p>
        <Title order={1} size="h2">
          Keep a network of maps and notes readable, and publish it as a site
        </Title>
        <Stack gap="sm" align="stretch">
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
        <form onSubmit={signIn} className={styles.form} aria-label="Sign in">
          <Stack gap="xs">
            <Title order={2} size="h5">
              You have an account
            </Title>
            <TextInput name="address" type="email" label="Mail address" size="sm" required autoComplete="username" />
            <PasswordInput
              name="password"
              label="Password"
              size="sm"
              required
              autoComplete="current-password"
              visibilityToggleButtonProps={{ 'aria-label': 'Show the password' }}
            />
            {problem && (
              <Text c="var(--ember-text)" role="alert" size="sm">
                {problem}
              </Text>
            )}
            <Button type="submit" variant="default" size="sm">
              Sign in
            </Button>
          </Stack>
        </form>
      </section>
    </main>
  )
}
