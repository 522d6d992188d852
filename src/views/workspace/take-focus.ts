import { activeFace } from './active-face'
import { awaited } from './awaited-field'
import { isGoneRound } from './regions'

/** Whether the keyboard is on its way to something else than a map. */
const isMeantElsewhere = (): boolean => awaited() !== null && awaited() !== 'map'

/** Gives the keyboard back to a face of a map, by default the active one, unless it is on its way to something else. */
export function backToFace(face: HTMLElement | null = activeFace()): void {
  if (!isMeantElsewhere()) face?.focus({ preventScroll: true })
}

/** Brings the keyboard to a face of a map that was just opened, unless somebody is writing or a dialog is open. */
export function takeFocus(face: HTMLElement | null): void {
  const isWriting = document.activeElement?.closest('input, textarea, [contenteditable="true"], [role="dialog"]')
  if (awaited() === 'map' || (!isWriting && !isGoneRound())) backToFace(face)
}
