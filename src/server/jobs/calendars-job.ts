import { Refusal } from '../../core/changes/problem'
import { bringCalendarInStep, MostIsGone } from '../calendars/bring-in-step'
import { CalendarTrouble } from '../calendars/caldav'
import { beginLooking, calendarsOf, noteTrouble } from '../calendars/calendar-rows'
import { isAway, transaction } from '../database'
import type { JobKind } from './job-kind'
import { finishJob } from './job-rows'

/** After so long the rest is left for the next time, in ms: others of the collection wait meanwhile. */
const TURN_MS = 60_000
const OURS = 'It could not be kept in step, for a reason that is ours. It is tried again.'

/** Brings the calendars of a collection in step with it at which it is time to look. */
export const calendarsKind: JobKind<null> = {
  async run(job, _, report) {
    const end = Date.now() + TURN_MS
    const calendars = await calendarsOf(job.collection)
    for (const [done, calendar] of calendars.entries()) {
      report(done, calendars.length)
      if (Date.now() > end) break
      const began = await beginLooking(calendar.id)
      if (began === null) continue
      try {
        await bringCalendarInStep(calendar, began, end)
      } catch (error) {
        const isTheirs = error instanceof CalendarTrouble || error instanceof Refusal
        if (!isAway(error)) {
          const trouble = isTheirs ? error.message : OURS
          await noteTrouble(calendar, { trouble, asksToLose: error instanceof MostIsGone, began })
        }
        if (!isTheirs) throw error
      }
    }
    await transaction((client) => finishJob(client, job, null))
  },
  // What was done on either side stays done; the rest is done the next time.
  takeBack: async () => {},
  failed: 'The calendars could not be kept in step. Nothing is lost; it is tried again.',
  isOurs: true,
}
