import { CalendarSought, seekCalendars } from '../../../../../server/calendars/calendars'
import { endpoint } from '../../../../../server/http/endpoint'

/** The calendars that are at an address. */
export const POST = endpoint({
  access: 'editor',
  body: CalendarSought,
  cost: 50,
  handle: ({ body }) => seekCalendars(body),
})
