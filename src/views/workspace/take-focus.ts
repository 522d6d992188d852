/** Gives the keyboard back to the face of a map that had it last. */
export const backToFace = (): void =>
  document.querySelector<HTMLElement>('[data-active="true"] [role="tree"], [role="tree"]')?.focus()

/** Brings the keyboard to a face of a map that was just opened, unless somebody is writing or a dialog is open. */
export function takeFocus(face: HTMLElement | null): void {
  const at = document.activeElement
  if (at?.closest('input, textarea, [contenteditable="true"], [role="dialog"]')) return
  face?.focus({ preventScroll: true })
}
