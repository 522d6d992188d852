import { useEffect } from 'react'

/** Leaves the field in which somebody writes when the page goes: every field keeps what stands in it when it is left. */
export function LeaveField() {
  useEffect(() => {
    const leave = () => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    }
    window.addEventListener('pagehide', leave)
    return () => window.removeEventListener('pagehide', leave)
  }, [])
  return null
}
