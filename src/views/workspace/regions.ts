import { isSomewhere } from '../app/keep-focus'
import { activeFace } from './active-face'
import { awaited, awaitNothing } from './awaited-field'

/** The parts of the workspace in the order in which they are gone round, from the top down and from left to right. */
const REGIONS = [
  'header',
  '[aria-label="Surroundings"]',
  'main',
  '[data-reading-pane]',
  '[data-drawer]',
  '[data-strip]',
  '[aria-label="Topic sheet"]',
  'footer',
]

const CAN_HAVE_KEYBOARD =
  'a[href], button:not([disabled]), input:not([disabled]), textarea, select, [contenteditable="true"], [tabindex="0"]'

/** What gets the keyboard in a part: the face of the map, or the first thing that can have it and is seen. */
function entryOf(region: Element): HTMLElement | null {
  if (region.matches('main') && activeFace()) return activeFace()
  const found = region.querySelectorAll<HTMLElement>(CAN_HAVE_KEYBOARD)
  return [...found].find((element) => element.offsetParent !== null || element.getClientRects().length > 0) ?? null
}

/** Where the keyboard was just brought by going round; null as soon as something else is pressed. */
let wentTo: Element | null = null

/** Whether the person has just gone to what has the keyboard: then a map that opens meanwhile does not take it. */
export const isGoneRound = (): boolean => wentTo !== null && wentTo === document.activeElement

function remember(entry: Element): void {
  wentTo = entry
  const forget = () => {
    wentTo = null
    for (const event of ['keydown', 'pointerdown']) window.removeEventListener(event, forget, true)
  }
  for (const event of ['keydown', 'pointerdown']) window.addEventListener(event, forget, true)
}

/**
 * Brings the keyboard to the next part of the workspace, or to the one before, round and round. Who is on the way to a map goes on
 * from there.
 */
export function goToRegion(by: 1 | -1): void {
  if (awaited() === 'map') awaitNothing()
  const here = isSomewhere() ? document.activeElement : activeFace()
  const regions = REGIONS.flatMap((selector) => {
    const region = document.querySelector(selector)
    const entry = region && entryOf(region)
    return region && entry ? { region, entry } : []
  })
  // The innermost: what is read stands within the middle.
  const at = regions.findLastIndex(({ region }) => here !== null && region.contains(here))
  const next = regions[at < 0 ? 0 : (at + by + regions.length) % regions.length]
  if (!next) return
  next.entry.focus()
  remember(next.entry)
}
