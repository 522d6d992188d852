import { Modal as MantineModal, type ModalProps } from '@mantine/core'
import { useLayoutEffect, useState } from 'react'
import { goBackTo } from './keep-focus'

/** A dialog that is there as long as it is rendered: when it goes, the keyboard is again where it was before. */
export function Modal(props: ModalProps) {
  const [before] = useState(() => document.activeElement)
  // As it is taken away, not a moment later: else what looks after the keyboard could bring it elsewhere.
  useLayoutEffect(() => () => goBackTo(before), [before])
  return <MantineModal transitionProps={{ duration: 0 }} {...props} />
}
