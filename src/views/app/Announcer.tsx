import { VisuallyHidden } from '@mantine/core'
import { useEffect } from 'react'
import { useAnnounced } from './announce'
import { keepFocus } from './keep-focus'

/** The one place from which it is read out what has happened. The same words are said again where they happen again. */
export function Announcer() {
  const { words, count } = useAnnounced()
  useEffect(keepFocus, [])
  return (
    <VisuallyHidden role="log" aria-label="What happened" aria-live="polite">
      <span key={count}>{words}</span>
    </VisuallyHidden>
  )
}
