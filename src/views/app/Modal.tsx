import { Modal as MantineModal, type ModalProps } from '@mantine/core'
import { useEffect, useState } from 'react'
import { activeFace } from '../workspace/active-face'

/**
 * A dialog that is there as long as it is rendered: when it goes, the keyboard is again where it was before, or on the map where that is
 * gone, unless what was done in it has taken the keyboard elsewhere.
 */
export function Modal(props: ModalProps) {
  const [before] = useState(() => document.activeElement)
  useEffect(
    () => () => {
      setTimeout(() => {
        const now = document.activeElement
        if (now !== null && now !== document.body) return
        const isThere = before?.isConnected && before !== document.body
        const to = isThere ? before : activeFace()
        if (to instanceof HTMLElement || to instanceof SVGElement) to.focus({ preventScroll: true })
      })
    },
    [before],
  )
  return <MantineModal transitionProps={{ duration: 0 }} {...props} />
}
