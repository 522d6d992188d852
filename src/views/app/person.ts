import { useQuery } from '@tanstack/react-query'
import { z } from 'zod'
import { ask } from './api'

const Person = z.object({ id: z.string(), name: z.string(), address: z.string().nullable() })
export type Person = z.infer<typeof Person>

/** Who is using this browser; null where nobody is signed in, undefined while it is asked. */
export function usePerson(): Person | null | undefined {
  const { data } = useQuery({
    queryKey: ['me'],
    queryFn: () => ask(Person.nullable(), '/api/me'),
  })
  return data
}
