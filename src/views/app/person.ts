import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { ApiError, ask } from './api'

const Person = z.object({ id: z.string(), name: z.string(), address: z.string().nullable() })
export type Person = z.infer<typeof Person>

/** Who is using this browser; null where nobody is signed in, undefined while it is asked. */
export function usePerson(): Person | null | undefined {
  const { data } = useQuery({
    queryKey: ['me'],
    queryFn: () =>
      ask(Person, '/api/me').catch((error: unknown) => {
        if (error instanceof ApiError && error.status === 401) return null
        throw error
      }),
  })
  return data
}
