import { expect, test } from 'vitest'
import { setTask } from '../../../src/core/commands/set-task'
import { drawnPlot } from '../drawn-plot'

test('a task shows its state as a sign', () => {
  const { garden, markup } = drawnPlot()
  const topics = [garden.topic('Prune')]
  for (const [task, words] of [
    ['open', 'Task to do'],
    ['done', 'Task done'],
  ] as const) {
    garden.do((r, m) => setTask(r, { topics, task, today: '2026-05-04' }, m))
    expect(markup('Prune')).toContain(`<title>${words}</title>`)
  }
  garden.do((r, m) => setTask(r, { topics, task: null, today: '2026-05-04' }, m))
  expect(markup('Prune')).not.toContain('Task')
})
