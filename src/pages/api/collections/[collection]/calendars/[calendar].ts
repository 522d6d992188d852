import {
  actOnCalendar,
  CalendarAct,
  changeTerms,
  endCalendar,
  TermsAsked,
} from '../../../../../server/calendars/calendars'
import { endpoint, pathId } from '../../../../../server/http/endpoint'
import { CalendarIdInPath } from '../../../../../server/http/path-ids'

const idIn = (params: Record<string, string>) => pathId(CalendarIdInPath, params.calendar, 'calendar')

/** Changes what goes into a calendar, and what comes from it. */
export const PUT = endpoint({
  access: 'editor',
  body: TermsAsked,
  handle: ({ who, params, body }) => changeTerms(who, idIn(params), body),
})

export const POST = endpoint({
  access: 'editor',
  body: CalendarAct,
  cost: 5,
  handle: ({ who, params, body }) => actOnCalendar(who, idIn(params), body),
})

/** The collection is kept in step with it no more. */
export const DELETE = endpoint({ access: 'editor', handle: ({ who, params }) => endCalendar(who, idIn(params)) })
