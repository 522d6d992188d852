import { measureLine } from '../text/measure'

/** Height of an enclosure's title, and the size in which it is set. */
export const ENCLOSURE_TITLE = { height: 20, size: 13 }

export const enclosureTitleWidth = (title: string): number =>
  measureLine(title, ENCLOSURE_TITLE.size, 'plain-bold').width

/** Room for the sign of a note behind the title. */
const NOTE_ROOM = 20

/** What the title of an enclosure takes, in px: nothing where there is neither title nor note. */
export const titleSize = ({ title, note }: { title: string; note: string }) =>
  title === '' && note.trim() === ''
    ? { title: 0, titleWidth: 0 }
    : { title: ENCLOSURE_TITLE.height, titleWidth: enclosureTitleWidth(title) + 16 + (note === '' ? 0 : NOTE_ROOM) }
