import { Anchor } from '@mantine/core'
import { useEffect, useSyncExternalStore } from 'react'
import { counted } from '../../core/text/counted'
import { sayWhen } from '../app/when'
import type { CollectionSession } from '../sync/collection-session'
import { NotSavedNotice } from '../sync/NotSavedNotice'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import styles from './workspace.module.css'

const savedIn = ({ saved, notSaved, shownAsAt }: CollectionSession) => {
  return { ...saved, isAside: notSaved.length > 0, shownAsAt }
}

/** Words with others in their place where the window is narrow, for the eye; what is read aloud is the same everywhere. */
function Narrow({ short, children }: { short: string; children: string }) {
  return (
    <>
      <span className={styles.moreWords}>{children}</span>
      <span className={styles.fewWords} aria-hidden>
        {short}
      </span>
    </>
  )
}

/** How far what was done here is saved, and what could not be saved. */
export function SaveState() {
  const { state, changes: count, isAside, shownAsAt } = useCalmPart(savedIn)
  const { drafts } = useSessionHandle()
  const isWriting = useSyncExternalStore(drafts.subscribe, drafts.isWriting)
  const isNotKept = state === 'not kept'
  useEffect(() => {
    if (!isNotKept) return undefined
    const ask = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [isNotKept])
  const kept = counted(count, 'change is', 'changes are')
  return (
    <>
      <NotSavedNotice />
      <span
        role="status"
        className={/^(waiting|signed out|not kept)$/.test(state) || shownAsAt ? styles.warn : undefined}
      >
        {state === 'saved' && shownAsAt && (
          <>
            <Narrow short="as of ">The server was not reached: shown as this browser had it </Narrow>
            {sayWhen(shownAsAt)}
          </>
        )}
        {state === 'saved' && !shownAsAt && !isWriting && (
          <>
            <span className={styles.moreWords}>{isAside ? 'Everything else is ' : 'Everything is '}</span>saved
          </>
        )}
        {state === 'saved' && !shownAsAt && isWriting && (
          <>
            <span className={styles.moreWords}>You are </span>writing …
          </>
        )}
        {state === 'saving' && 'Saving …'}
        {state === 'slow' && <Narrow short="slow line …">Saving, the line is slow …</Narrow>}
        {state === 'waiting' && (
          <Narrow short={`${count} kept here`}>{`No connection: ${kept} kept here and will be sent`}</Narrow>
        )}
        {isNotKept && (
          <Narrow short={`${count} not saved`}>
            {`Not saved, and this browser keeps nothing: leave this window open (${counted(count, 'change', 'changes')})`}
          </Narrow>
        )}
        {state === 'signed out' && (
          <>
            <Narrow short={`${count} kept: `}>{`You are signed out: ${kept} kept here. `}</Narrow>
            <Anchor href="/" inherit>
              Sign in again
            </Anchor>
          </>
        )}
      </span>
    </>
  )
}
