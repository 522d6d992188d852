import { Anchor } from '@mantine/core'
import { tell } from '../app/api'
import styles from './workspace.module.css'

interface Way {
  name: string
  go(): void
}

/** Long enough to be read, and to be acted on. */
const SHOWN_MS = 9_000

/** Tells what has happened out of view, with ways to see it or to take it back; with one of them taken, all is said. */
export function tellHappened(words: string, ways: readonly Way[]): void {
  const unsay = tell(
    <span className={styles.happened}>
      <span>{words}</span>
      {ways.map(({ name, go }) => (
        <Anchor
          key={name}
          component="button"
          type="button"
          size="sm"
          fw={600}
          onClick={() => {
            unsay()
            go()
          }}
        >
          {name}
        </Anchor>
      ))}
    </span>,
    SHOWN_MS,
  )
}
