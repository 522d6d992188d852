import { type Fonts, measureLine } from '../text/measure'

/** Height of an enclosure's title, and the size in which it is set. */
export const ENCLOSURE_TITLE = { height: 20, size: 13 }

export const enclosureTitleWidth = (fonts: Fonts, title: string): number =>
  measureLine(fonts, title, ENCLOSURE_TITLE.size, 'plain-bold').width

/** Room for the sign of a note behind the title. */
const NOTE_ROOM = 20

/** What the title of an enclosure takes, in px: nothing where there is neither title nor note. */
export const titleHeight = ({ title, note }: { title: string; note: string }): number =>
  title === '' && note.trim() === '' ? 0 : ENCLOSURE_TITLE.height
export const titleSize = (fonts: Fonts, enclosure: { title: string; note: string }) => {
  const title = titleHeight(enclosure)
  const width = () => enclosureTitleWidth(fonts, enclosure.title) + 16 + (enclosure.note === '' ? 0 : NOTE_ROOM)
  return { title, titleWidth: title === 0 ? 0 : width() }
}
