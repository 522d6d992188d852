/** The screens that show all of a collection in one respect: how they are called where they stand side by side, and as something to do. */
export const COLLECTION_SCREENS = [
  { page: 'search', name: 'Search', act: 'Search the whole collection' },
  { page: 'atlas', name: 'Atlas', act: 'See all maps in the atlas' },
  { page: 'links', name: 'Links', act: 'See all links of the collection' },
  { page: 'files', name: 'Files', act: 'See all files of the collection' },
  { page: 'dates', name: 'Dates', act: 'See all dates of the collection' },
  { page: 'comments', name: 'Comments', act: 'See all comments of the collection' },
  { page: 'crowding', name: 'Crowding', act: 'See what is crowded in the collection' },
] as const

/** All screens of a collection that are gone to by their name: these, and the publish desk. */
export const SCREENS_TO_GO_TO = [
  ...COLLECTION_SCREENS,
  { page: 'publish', name: 'Publish', act: 'Publish the collection' },
] as const

export const screenAddress = (collection: string, page: (typeof SCREENS_TO_GO_TO)[number]['page']): string =>
  `/c/${collection}/${page}`
