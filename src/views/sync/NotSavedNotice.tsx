import { UnstyledButton } from '@mantine/core'
import { Suspense, useEffect, useState } from 'react'
import { counted } from '../../core/text/counted'
import { late } from '../app/late'
import type { CollectionSession } from './collection-session'
import { useCalmPart } from './use-session'

const NotSaved = late(() => import('./NotSaved'), 'soon')

const notSavedIn = ({ notSaved }: CollectionSession) => [...notSaved]

/** Tells how many changes could not be saved, and leads to them; nothing where all could. */
export function NotSavedNotice() {
  const [isOpen, setOpen] = useState(false)
  const notSaved = useCalmPart(notSavedIn)
  const isNone = notSaved.length === 0
  useEffect(() => {
    if (isNone) setOpen(false)
  }, [isNone])
  if (isNone) return null
  return (
    <>
      <UnstyledButton c="var(--ember-text)" fw={600} fz="sm" onClick={() => setOpen(true)}>
        {counted(notSaved.length, 'change was', 'changes were')} not saved: look
      </UnstyledButton>
      {isOpen && (
        <Suspense>
          <NotSaved changes={notSaved} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
