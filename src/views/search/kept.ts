import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { SearchRecord } from '../../core/records/search'
import { ask } from '../app/api'

export const searchesKey = (collection: string) => ['searches', collection]

/** The searches that were kept in a collection, by name; none for whom it is open in parts only. */
export function useSearches(collection: string, isOpen: boolean): readonly SearchRecord[] {
  const { data } = useQuery({
    queryKey: searchesKey(collection),
    queryFn: () => ask(z.array(SearchRecord), `/api/collections/${collection}/searches`),
    enabled: isOpen,
    staleTime: 0,
  })
  return data ?? []
}
