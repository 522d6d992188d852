/** The face of a map in the pane that had the keyboard last, else in any. */
export const activeFace = (): HTMLElement | null =>
  document.querySelector<HTMLElement>('[data-active="true"] [role="tree"]') ??
  document.querySelector<HTMLElement>('main [role="tree"]')

/** Gives the keyboard back to it. */
export const backToFace = (): void => activeFace()?.focus()

/** Brings the keyboard to a face of a map that was just opened, unless somebody is writing or a dialog is open. */
export function takeFocus(face: HTMLElement | null): void {
  const at = document.activeElement
  if (at?.closest('input, textarea, [contenteditable="true"], [role="dialog"]')) return
  face?.focus({ preventScroll: true })
}
