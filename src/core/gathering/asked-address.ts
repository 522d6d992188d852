import { AskedPeriod, NOTHING_ASKED, SearchAsked } from '../records/search'

/** A search as the parameters of an address, what it does not ask for left out: `words=pond&task=left&due=0..60`. */
export function writeAsked({ words, tag, map, task, due, who }: SearchAsked): URLSearchParams {
  return new URLSearchParams({
    ...(words.trim() === '' ? {} : { words: words.trim() }),
    ...(map ? { map } : {}),
    ...(tag ? { tag } : {}),
    ...(task ? { task } : {}),
    ...(due ? { due: 'period' in due ? due.period : `${due.from ?? ''}..${due.to ?? ''}` } : {}),
    ...(who ? { who: who.name, ...(who.person ? { person: who.person } : {}) } : {}),
  })
}

/** Reads what `writeAsked` wrote, also where it was altered since; null where nobody can ask this. */
export function readAsked(parameters: URLSearchParams): SearchAsked | null {
  const given = (name: string) => parameters.get(name) || null
  const due = given('due')
  const days = /^(-?\d{1,7})?\.\.(-?\d{1,7})?$/.exec(due ?? '')
  const period = AskedPeriod.safeParse(due).data
  if (due !== null && !days && !period) return null
  const number = (text: string | undefined) => (text ? Number(text) : null)
  const who = given('who')
  const asked = SearchAsked.safeParse({
    ...NOTHING_ASKED,
    words: (given('words') ?? '').replaceAll('\u0000', ''),
    map: given('map'),
    tag: given('tag'),
    task: given('task'),
    due: due === null ? null : period ? { period } : { from: number(days?.[1]), to: number(days?.[2]) },
    who: who && { name: who, person: given('person') },
  })
  return asked.data ?? null
}
