import { Suspense, useEffect } from 'react'
import { late } from '../app/late'
import { awaitField } from '../workspace/awaited-field'

const load = () => import('./QuickCapture')
const QuickCapture = late(() => load().then((module) => ({ default: module.QuickCapture })))

/** Opens the field for an idea. */
export const capture = (): void =>
  void load().then(
    ({ useCapture }) => useCapture.setState({ isOpen: true }),
    () => {},
  )

/** The key for writing down an idea, on every screen of a collection. */
export function CaptureKey() {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey || event.shiftKey || event.code !== 'KeyJ') return
      event.preventDefault()
      event.stopImmediatePropagation()
      if (document.querySelector('[data-capture]')) return
      awaitField('field')
      capture()
    }
    // Before who writes somewhere: an idea comes whatever one is at.
    window.addEventListener('keydown', press, { capture: true })
    return () => window.removeEventListener('keydown', press, { capture: true })
  }, [])
  return (
    <Suspense>
      <QuickCapture />
    </Suspense>
  )
}
