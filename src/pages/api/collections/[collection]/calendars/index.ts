import { addCalendar, CalendarGiven, toldCalendars } from '../../../../../server/calendars/calendars'
import { endpoint } from '../../../../../server/http/endpoint'
import { json } from '../../../../../server/http/reply'

/** The calendars elsewhere with which a collection is kept in step. */
export const GET = endpoint({ access: 'editor', handle: ({ who }) => toldCalendars(who) })

export const POST = endpoint({
  access: 'editor',
  body: CalendarGiven,
  cost: 50,
  handle: async ({ who, body, url }) => json(201, await addCalendar(who, body, url.origin)),
})
