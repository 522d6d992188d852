import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { ask } from '../app/api'
import { today } from '../app/when'

const Gathered = z.object({
  topics: z.array(z.object({ id: z.string(), text: z.string(), map: z.string() })),
  count: z.number(),
  isMore: z.boolean(),
})
type Gathered = z.infer<typeof Gathered>

/** What a search, as it stands in an address, finds now; nothing is asked where it is empty. */
export function useGatheredBy(collection: string, parameters: string) {
  return useQuery({
    queryKey: ['gathered by', collection, parameters],
    queryFn: () => ask(Gathered, `/api/collections/${collection}/gathered?${parameters}&today=${today()}`),
    enabled: parameters !== '',
    placeholderData: keepPreviousData,
    staleTime: 0,
  })
}

/** How much is found, in words. */
export const foundWords = ({ count, isMore }: Gathered): string =>
  isMore ? `more than ${count}, of which these many are shown` : count === 1 ? '1 topic' : `${count} topics`
