import { Button } from '@mantine/core'
import { IconArrowsLeftRight } from '@tabler/icons-react'
import { Suspense, useEffect, useEffectEvent, useState } from 'react'
import { late } from '../app/late'
import { useSession } from '../sync/use-session'
import { useCalendars } from './calendars'

const CalendarsDialog = late(() => import('./CalendarsDialog'))

/** Opens the calendars elsewhere, and tells where somebody has to look after them. `onInStep` is called when one was brought in step. */
export function CalendarsButton({ onInStep }: { onInStep(): void }) {
  const session = useSession()
  const { calendars } = useCalendars(session.id, session.mayEditAll)
  const inStepAt = calendars.map((calendar) => calendar.inStepAt).join()
  const inStep = useEffectEvent(onInStep)
  useEffect(() => {
    if (inStepAt !== '') inStep()
  }, [inStepAt])
  const [isOpen, setOpen] = useState(() => new URLSearchParams(window.location.search).has('calendars'))
  const open = calendars.reduce((sum, { conflicts, trouble }) => sum + conflicts.length + (trouble ? 1 : 0), 0)
  return (
    <>
      <Button
        variant="default"
        leftSection={<IconArrowsLeftRight size={18} aria-hidden />}
        c={open > 0 ? 'var(--ember-text)' : undefined}
        onClick={() => setOpen(true)}
      >
        {open > 0 ? `In step with calendars: ${open} to look at` : 'In step with calendars'}
      </Button>
      {isOpen && (
        <Suspense>
          <CalendarsDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}
