import type { LedgerAnswer, Place } from './ledger-schema'

/** The kinds of rows between which a person chooses. */
export const FACETS = ['drawn', 'quiet', 'broken', 'named', 'close', 'overlaps', 'stale', 'web'] as const
export type Facet = (typeof FACETS)[number]

export const FACET_NAMES: Record<Facet, string> = {
  drawn: 'Drawn',
  quiet: 'Quiet',
  broken: 'Broken',
  named: 'Named but not linked',
  close: 'Close in meaning',
  overlaps: 'Overlapping',
  stale: 'Web links in doubt',
  web: 'Web links',
}

/** A row of the table: where it begins, what it leads to in words, and how. */
export interface Row {
  key: string
  from: Place
  /** Null where it leads nowhere that can be opened; then `toWords` says why. */
  to: Place | null
  toWords: string
  how: string
  /** An address outside. */
  url: string | null
}

/** The rows of one facet. */
export function rowsOf(ledger: LedgerAnswer, facet: Facet): Row[] {
  const { links, mentions, close, overlaps } = ledger
  switch (facet) {
    case 'named':
      return mentions.map(({ in: from, of, isInNote, said }) => ({
        key: `${from.topic} ${isInNote} ${of.topic}`,
        from,
        to: of,
        toWords: of.text,
        how: `${isInNote ? 'The note says' : 'It says'} “${said}”`,
        url: null,
      }))
    case 'close':
      return close.map(({ a, b, shared }) => ({
        key: `${a.topic} ${b.topic}`,
        from: a,
        to: b,
        toWords: b.text,
        how: `By ${shared.map((word) => `“${word}”`).join(', ')}`,
        url: null,
      }))
    case 'overlaps':
      return overlaps.map(({ a, b, said, of }) => ({
        key: `${a.topic} ${b.topic}`,
        from: a,
        to: b,
        toWords: b.text,
        how: `${said} of ${of} topics say much the same`,
        url: null,
      }))
    case 'web':
      return webRows(ledger)
    case 'stale':
      return webRows(ledger).filter(({ how }) => how !== '')
    default:
      return links.filter((link) => facetOf(link) === facet).map(rowOf)
  }
}

/** Web links, with what was wrong when they were last looked at. */
function webRows({ weblinks, checks }: LedgerAnswer): Row[] {
  const troubles = new Map(checks.map(({ url, trouble }) => [url, trouble]))
  return weblinks.map(({ id, at, url, title }) => ({
    key: id,
    from: at,
    to: null,
    toWords: title || url,
    how: troubles.get(url) ?? '',
    url,
  }))
}

const facetOf = ({ broken, drawn }: LedgerAnswer['links'][number]): Facet =>
  broken ? 'broken' : drawn === 'quiet' ? 'quiet' : 'drawn'

const ENDS = { topic: '', enclosure: 'to an enclosure', map: 'to a map', note: 'to a note' }

function rowOf({ id, from, to, end, label, drawn, broken }: LedgerAnswer['links'][number]): Row {
  const how = [label && `“${label}”`, ENDS[end], drawn === 'selected' && 'drawn while an end is selected']
  return {
    key: id,
    from,
    to,
    toWords: broken ?? to?.text ?? 'something that is not open to you',
    how: how.filter(Boolean).join(', '),
    url: null,
  }
}

/** How many there are of each facet, of which no more may be in the rows than the server tells. */
export function countsOf(ledger: LedgerAnswer): Record<Facet, number> {
  const counts = {
    drawn: 0,
    quiet: 0,
    broken: 0,
    named: ledger.counts.mentions,
    close: ledger.counts.close,
    overlaps: ledger.counts.overlaps,
    stale: webRows(ledger).filter(({ how }) => how !== '').length,
    web: ledger.counts.weblinks,
  }
  for (const link of ledger.links) counts[facetOf(link)]++
  return counts
}

/** Where two places are seen side by side; a single one where both stand on one map, or the other is none. */
export function addressOf(collection: string, from: Place, to: Place | null): string {
  const asked = new URLSearchParams()
  if (from.topic) asked.set('topic', from.topic)
  if (to && to.map !== from.map) {
    asked.set('beside', to.map)
    if (to.topic) asked.set('besideTopic', to.topic)
  }
  return `/c/${collection}/m/${from.map}?${asked}`
}
