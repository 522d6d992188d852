import { CalendarAsked, calendarFor } from '../../../../server/dates'
import { endpoint } from '../../../../server/http/endpoint'
import { Failure } from '../../../../server/http/failure'

/** The days of a collection, or of one map, as iCalendar (RFC 5545). */
export const GET = endpoint({
  access: 'reader of a map',
  cost: 20,
  handle({ who, url }) {
    const asked = CalendarAsked.safeParse({ map: url.searchParams.get('map') })
    if (!asked.success) throw new Failure(400, 'There is no such map.')
    return calendarFor(who, asked.data.map, url.origin)
  },
})
