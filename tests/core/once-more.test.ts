import { expect, test } from 'vitest'
import { OnceMore } from '../../src/core/once-more'

test('what is asked for while the work runs is done after it, once for all', async () => {
  const steps: string[] = []
  let go = () => {}
  const work = new OnceMore(async () => {
    steps.push('begin')
    await new Promise<void>((resolve) => {
      go = resolve
    })
    steps.push('end')
  })
  const first = work.ask()
  const others = [work.ask(), work.ask()]
  go()
  await Promise.resolve()
  await expect.poll(() => steps).toEqual(['begin', 'end', 'begin'])
  go()
  await Promise.all([first, ...others])
  expect(steps).toEqual(['begin', 'end', 'begin', 'end'])
})

test('nothing is left that is asked for in the moments after the last step of a run', async () => {
  for (let moments = 0; moments < 12; moments++) {
    let waiting = 1
    let done = 0
    const work = new OnceMore(async () => {
      await Promise.resolve()
      done += waiting
      waiting = 0
    })
    const first = work.ask()
    for (let moment = 0; moment < moments; moment++) await Promise.resolve()
    waiting++
    const second = work.ask()
    await Promise.all([first, second])
    expect([moments, done, waiting]).toEqual([moments, 2, 0])
  }
})

test('a run that fails says so, and does not stand in the way of the next', async () => {
  let fails = true
  const work = new OnceMore(async () => {
    if (fails) throw new Error('No.')
  })
  await expect(work.ask()).rejects.toThrow('No.')
  fails = false
  await work.ask()
})
