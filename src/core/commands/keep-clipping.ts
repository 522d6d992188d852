import { refuse } from '../changes/problem'
import { outlineItem } from '../formats/outline'
import type { MapId, TopicId } from '../records/ids'
import { cutText } from '../records/text'
import { isFollowable, MAX_ADDRESS, nameFromAddress, readableAddress } from '../records/weblink'
import { joinTexts } from '../text/join-texts'
import { paragraphsOf, quotation } from '../text/quotation'
import { shortName } from '../text/short-name'
import { command, named } from './command'
import { unfold } from './hang'
import { plant } from './plant'
import { drawerOf } from './to-place'

/** Where something is kept: in the drawer of a map, or below a topic. */
export type KeptAt = { drawer: MapId } | { topic: TopicId }

/** What is kept before there is a place for it: an idea, or what was found on a page of the web. */
interface Clipping {
  at: KeptAt
  /** What it is called; where that is empty, after its address, else after its words. */
  text: string
  /** What else was written about it. CommonMark. */
  note: string
  /** Words of the page, as plain text. */
  quote: string
  /** Of the page; empty where there is none. */
  address: string
}

/** Most letters of a page that are kept. */
const MOST_QUOTED = 50_000

/**
 * Keeps an idea, or a clipping of a page with its words, its address as a web link, and where the words come from. Refused where the place is
 * gone, for nothing, and for an address that leads nowhere. Linear in the words.
 */
export const keepClipping = command((change, { at, text, note, quote, address }: Clipping) => {
  const url = address.trim()
  if (url !== '' && (!isFollowable(url) || url.length > MAX_ADDRESS))
    refuse('invalid', 'This is not a web address. It should look like https://example.org/page.')
  const words = paragraphsOf(cutText(quote, MOST_QUOTED))
  const called = text.trim() || (url === '' ? '' : nameFromAddress(url) || readableAddress(url)) || words.join(' ')
  if (called === '') refuse('invalid', 'There is nothing to be kept yet.')
  const origin = url === '' || words.length === 0 ? null : { address: url, name: readableAddress(url) }
  const short = shortName(called)
  const own = short === null ? note : joinTexts(called, note)
  const item = {
    ...outlineItem(short ?? called),
    note: joinTexts(own, quotation(words, origin)),
    links: url === '' ? [] : [{ address: url, title: '' }],
  }
  const parent = 'drawer' in at ? drawerOf(change, at.drawer) : change.topic(at.topic)
  if ('topic' in at) unfold(change, parent)
  const [made] = plant(change, parent, [item])
  const label =
    'drawer' in at ? `Keep ${named(item.text)} to be placed` : `Keep ${named(item.text)} below ${named(parent.text)}`
  return { label, select: [made!.topic.id] }
})
