/** The places of a collection: how they are called in its frame, and as something to do. */
export const PLACES = [
  { place: 'maps', name: 'Maps', act: 'See all maps in a table' },
  { place: 'atlas', name: 'Atlas', act: 'See all maps in the atlas' },
  { place: 'search', name: 'Search', act: 'Search the whole collection' },
  { place: 'links', name: 'Links', act: 'See all links of the collection' },
  { place: 'files', name: 'Files', act: 'See all files of the collection' },
  { place: 'dates', name: 'Dates', act: 'See all dates of the collection' },
  { place: 'comments', name: 'Comments', act: 'See all comments of the collection' },
  { place: 'crowding', name: 'Crowding', act: 'See what is crowded in the collection' },
  { place: 'publish', name: 'Publish', act: 'Publish the collection' },
] as const

export type Place = (typeof PLACES)[number]['place']

export const placeAddress = (collection: string, place: Place): string =>
  place === 'maps' ? `/c/${collection}` : `/c/${collection}/${place}`
