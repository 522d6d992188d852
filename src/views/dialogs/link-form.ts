import { Drawn } from '../../core/records/crosslink'

const KEY = 'folvet-link-form'

/** How the next cross-link is drawn: as the last one was that a person made. */
export const linkForm = (): Drawn => Drawn.safeParse(localStorage.getItem(KEY)).data ?? 'line'

export const keepLinkForm = (drawn: Drawn): void => localStorage.setItem(KEY, drawn)
