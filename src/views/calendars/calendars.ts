import { useQuery, useQueryClient } from '@tanstack/react-query'
import { z } from 'zod'
import { Dates, TaskState } from '../../core/records/dates'
import { MapId } from '../../core/records/ids'
import { ask, tellTrouble } from '../app/api'

const Terms = z.object({
  gives: z.union([z.enum(['all', 'none']), z.object({ map: MapId })]),
  takes: z.enum(['all', 'chosen']),
  intoMap: MapId,
})
/** What goes into a calendar, and what comes from it. */
export type Terms = z.infer<typeof Terms>

const Planned = z.object({
  text: z.string(),
  note: z.string(),
  dates: Dates.nullable(),
  task: TaskState.nullable(),
})
export type Planned = z.infer<typeof Planned>

const Side = z.enum(['here', 'there'])
export type Side = z.infer<typeof Side>

const Difference = z.object({
  href: z.string(),
  topic: z.string().nullable(),
  map: z.string().nullable(),
  conflict: z.union([
    z.object({ fields: z.array(z.enum(['text', 'note', 'dates', 'task'])) }),
    z.object({ gone: Side }),
  ]),
  here: Planned.nullable(),
  there: Planned.nullable(),
})
/** What both sides changed, each in its own way. */
export type Difference = z.infer<typeof Difference>

const KeptCalendar = z.object({
  id: z.string(),
  name: z.string(),
  address: z.string(),
  user: z.string(),
  person: z.string(),
  terms: Terms,
  inStepAt: z.string().nullable(),
  trouble: z.string().nullable(),
  asksToLose: z.boolean(),
  entries: z.number(),
  paired: z.number(),
  conflicts: z.array(Difference),
})
/** A calendar elsewhere with which the collection is kept in step; see server/calendars. */
export type KeptCalendar = z.infer<typeof KeptCalendar>

const Calendars = z.object({
  calendars: z.array(KeptCalendar),
  isBusy: z.boolean(),
  standIn: z.string().nullable(),
})

export const FoundCalendars = z.array(z.object({ address: z.string(), name: z.string() }))
export type FoundCalendar = z.infer<typeof FoundCalendars>[number]

export const WaitingEntries = z.array(
  z.object({
    calendar: z.string(),
    name: z.string(),
    href: z.string(),
    text: z.string(),
    dates: Dates.nullable(),
    task: TaskState.nullable(),
  }),
)
export type WaitingEntry = z.infer<typeof WaitingEntries>[number]

export const calendarsPath = (collection: string) => `/api/collections/${collection}/calendars`
const keyOf = (collection: string) => ['calendars', collection]

/** While something is done about them they are asked for each so often, and else, in ms. */
const [BUSY_MS, CALM_MS] = [700, 20_000]

/** The calendars of a collection, asked for anew as long as they are shown; none for whoever may not change all of it. */
export function useCalendars(collection: string, mayEditAll: boolean) {
  const { data, error } = useQuery({
    queryKey: keyOf(collection),
    queryFn: () => ask(Calendars, calendarsPath(collection)),
    enabled: mayEditAll,
    refetchInterval: ({ state }) => (state.data?.isBusy ? BUSY_MS : CALM_MS),
    staleTime: 2_000,
  })
  return {
    calendars: data?.calendars ?? [],
    isBusy: data?.isBusy ?? false,
    standIn: data?.standIn ?? null,
    data,
    error,
  }
}

/** Asks something of a calendar, and shows what came of it. */
export function useAskCalendar(collection: string) {
  const queries = useQueryClient()
  return async (path: string, init: { method: string; body?: unknown }): Promise<boolean> => {
    try {
      await ask(z.unknown(), calendarsPath(collection) + path, { ...init, limit: 60_000 })
      return true
    } catch (error) {
      tellTrouble(error)
      return false
    } finally {
      await queries.invalidateQueries({ queryKey: keyOf(collection) })
    }
  }
}
