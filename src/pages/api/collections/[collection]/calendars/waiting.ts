import { waitingEntries } from '../../../../../server/calendars/calendars'
import { endpoint } from '../../../../../server/http/endpoint'

/** Entries of calendars that go with no topic yet. */
export const GET = endpoint({ access: 'editor', cost: 2, handle: ({ who }) => waitingEntries(who) })
