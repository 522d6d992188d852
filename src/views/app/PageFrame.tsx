import { Container, Group } from '@mantine/core'
import type { ReactNode } from 'react'
import { PersonMenu } from './PersonMenu'
import styles from './page-frame.module.css'

/** The frame of the screens around the workspace: a bar with the way up, and the matter beneath. */
export function PageFrame({
  trail,
  isWide = false,
  children,
}: {
  trail: { name: string; address: string }[]
  /** Whether the matter fills the window. */
  isWide?: boolean
  children: ReactNode
}) {
  return (
    <>
      <header className={styles.bar}>
        <Group gap="xs" wrap="nowrap" className={styles.trail}>
          <a href="/" className={styles.name}>
            Folvet
          </a>
          {trail.map(({ name, address }) => (
            <a key={address} href={address}>
              {name}
            </a>
          ))}
        </Group>
        <PersonMenu />
      </header>
      {isWide ? (
        <main>{children}</main>
      ) : (
        <Container size="md" py="xl" component="main">
          {children}
        </Container>
      )}
    </>
  )
}
