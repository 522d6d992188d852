import { activeFace } from '../workspace/active-face'
import { awaited } from '../workspace/awaited-field'

const CAN_HAVE_KEYBOARD =
  '[data-leads], input:not(:disabled), textarea:not(:disabled), button:not(:disabled), a[href], [contenteditable="true"], [tabindex="0"]'

/** When it is looked whether the keyboard is still somewhere, after something was pressed, in ms: what goes may go a moment later. */
const LOOKS = [60, 400, 1_500]

/** A button that does something just now, and how soon it is looked at again, in ms. */
const BUSY = '[data-loading]:disabled'
const BUSY_LOOK = 200

/** What had the keyboard last, and all around it, from the inside. */
let path: Element[] = []

function remember({ target }: FocusEvent): void {
  path = []
  for (let at = target instanceof Element ? target : null; at; at = at.parentElement) path.push(at)
}

/** To what the keyboard goes back from dialogs that are just going. */
let waysBack: Element[] = []
let isGoing = false

/** Whether something has the keyboard. */
export const isSomewhere = (): boolean => document.activeElement !== null && document.activeElement !== document.body

function comeBack(): void {
  const to = waysBack.find((element) => element.isConnected) ?? activeFace()
  waysBack = []
  isGoing = false
  if (isSomewhere()) return
  if (to instanceof HTMLElement || to instanceof SVGElement) to.focus({ preventScroll: true })
}

/**
 * Tells, before what has the keyboard is taken away, to what it goes back: in a moment, or to the map where that is gone too, unless
 * what was done has taken the keyboard elsewhere.
 */
export function goBackTo(element: Element | null): void {
  if (element && element !== document.body) waysBack.push(element)
  if (!isGoing) setTimeout(comeBack)
  isGoing = true
}

function takeAgain(element: Element): void {
  if (!isSomewhere() && awaited() === null && element instanceof HTMLElement) element.focus({ preventScroll: true })
}

/** Brings the keyboard back where what had it is gone: to the nearest place around it that is left, else to the map. */
function look(): void {
  const [lost] = path
  if (isSomewhere() || isGoing || !lost || awaited() !== null) return
  // Who has pressed on an empty place has taken the keyboard away themselves.
  if (lost.isConnected && !lost.matches(':disabled')) return
  // What is only busy has it again when it is done: its neighbour would take the next key for a press.
  if (lost.isConnected && lost.matches(BUSY)) {
    setTimeout(() => (lost.isConnected && !lost.matches(':disabled') ? takeAgain(lost) : look()), BUSY_LOOK)
    return
  }
  const around = path.slice(1).find((element) => element.isConnected && element.querySelector(CAN_HAVE_KEYBOARD))
  const isAnywhere = !around || around.contains(document.querySelector('main'))
  const next = isAnywhere
    ? (activeFace() ?? document.querySelector<HTMLElement>(`main :is(${CAN_HAVE_KEYBOARD})`))
    : around.querySelector<HTMLElement>(CAN_HAVE_KEYBOARD)
  next?.focus({ preventScroll: true })
}

const lookSoon = () => {
  for (const after of LOOKS) setTimeout(look, after)
}

/** Has the keyboard never be nowhere: whatever was pressed, something that makes sense has it a moment later. */
export function keepFocus(): () => void {
  document.addEventListener('focusin', remember)
  document.addEventListener('click', lookSoon, true)
  document.addEventListener('keyup', lookSoon, true)
  return () => {
    document.removeEventListener('focusin', remember)
    document.removeEventListener('click', lookSoon, true)
    document.removeEventListener('keyup', lookSoon, true)
  }
}
