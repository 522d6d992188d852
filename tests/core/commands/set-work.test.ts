import { expect, test } from 'vitest'
import { setDates } from '../../../src/core/commands/set-dates'
import { setTask } from '../../../src/core/commands/set-task'
import { setWork } from '../../../src/core/commands/set-work'
import type { TaskState } from '../../../src/core/records/dates'
import { progressBelow } from '../../../src/core/tree/progress'
import { Garden } from '../gardens'

function season() {
  const garden = new Garden()
  garden.grow('Season\n  Ditches\n    Dam\n    Weir\n    Talk\n  Counts')
  const topic = (text: string) => garden.records.need('topic', garden.topic(text))
  const task = (text: string, state: TaskState | null, today = '2026-05-04') =>
    garden.do((r, m) => setTask(r, { topics: [garden.topic(text)], task: state, today }, m))
  const work = (text: string, said: Parameters<typeof setWork>[1]['work']) =>
    garden.do((r, m) => setWork(r, { topics: [garden.topic(text)], work: said }, m))
  return { garden, topic, task, work }
}

test('who does something, how much it is and how far, is said piece by piece, and taken away again', () => {
  const { topic, work } = season()
  const ada = { person: null, name: 'Ada' }
  expect(work('Dam', { who: [ada] }).change.label).toBe('Set who does Dam')
  work('Dam', { effort: 90, progress: 30 })
  expect(topic('Dam').work).toEqual({ who: [ada], effort: 90, progress: 30 })
  work('Dam', { who: [], effort: null })
  expect(topic('Dam').work).toEqual({ progress: 30 })
  work('Dam', { progress: null })
  expect(topic('Dam').work).toBeNull()
  expect(() => work('Dam', { who: Array.from({ length: 21 }, () => ada) })).toThrow('At most 20')
})

test('the day on which something was ticked off is kept, and what repeats is to do again', () => {
  const { garden, topic, task, work } = season()
  task('Dam', 'done')
  expect(topic('Dam')).toMatchObject({ task: 'done', work: { doneOn: '2026-05-04' } })
  task('Dam', 'done', '2026-06-01')
  expect(topic('Dam').work).toEqual({ doneOn: '2026-05-04' })
  task('Dam', 'begun')
  expect(topic('Dam').work).toBeNull()
  const dates = { start: '2026-05-04', end: null, repeats: { every: 2, unit: 'week' as const, until: '2026-05-20' } }
  garden.do((r, m) => setDates(r, { topics: [garden.topic('Weir')], dates }, m))
  work('Weir', { progress: 50, effort: 30 })
  expect(task('Weir', 'done').change.label).toBe('Tick off Weir: again on 18 May 2026')
  expect(topic('Weir')).toMatchObject({ task: 'open', dates: { start: '2026-05-18' }, work: { effort: 30 } })
  task('Weir', 'done', '2026-05-19')
  expect(topic('Weir')).toMatchObject({ task: 'done', dates: { start: '2026-05-18' } })
})

test('how far tasks are is summed up above them, by how much work they are', () => {
  const { garden, topic, task, work } = season()
  const far = (text: string) => progressBelow(garden.records, topic(text))
  expect(far('Season')).toBeNull()
  task('Dam', 'done')
  task('Weir', 'open')
  expect(far('Season')).toEqual({ tasks: 2, done: 1, percent: 50 })
  work('Dam', { effort: 180 })
  expect(far('Ditches')).toEqual({ tasks: 2, done: 1, percent: 75 })
  task('Weir', 'begun')
  work('Weir', { progress: 50 })
  expect(far('Ditches')!.percent).toBe(88)
  // A task made of others is as far as these, unless it says itself how far it is.
  task('Ditches', 'begun')
  expect(far('Season')).toEqual({ tasks: 2, done: 1, percent: 88 })
  work('Ditches', { progress: 10 })
  expect(far('Season')!.percent).toBe(10)
  task('Ditches', 'done')
  expect(far('Season')).toEqual({ tasks: 2, done: 2, percent: 100 })
})
