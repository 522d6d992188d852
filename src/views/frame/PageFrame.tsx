import { Container, Group } from '@mantine/core'
import type { ReactNode } from 'react'
import { PersonMenu } from '../app/PersonMenu'
import styles from './frame.module.css'

interface Trail {
  trail: { name: string; address: string }[]
}

/** The bar above: the way up, what belongs to the screen, and who is here. */
export function TopBar({ trail, before, children }: Trail & { before?: ReactNode; children?: ReactNode }) {
  return (
    <header className={styles.bar}>
      {before}
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
      <div className={styles.barEnd}>
        {children}
        <PersonMenu />
      </div>
    </header>
  )
}

/** The frame of the screens outside of a collection: a bar with the way up, and the matter beneath. */
export function PageFrame({ trail, children }: Trail & { children: ReactNode }) {
  return (
    <>
      <TopBar trail={trail} />
      <Container size="md" py="xl" component="main">
        {children}
      </Container>
    </>
  )
}
