import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { writeNote } from '../../../src/core/commands/write-note'
import { FONT_FAMILIES } from '../../../src/core/look/palette'
import { type Drawing, drawing } from '../../../src/core/scene/drawing'
import { Inks } from '../../../src/core/scene/ink'
import { buildScene } from '../../../src/core/scene/scene'
import { drawTopic } from '../../../src/core/scene/topic-drawing'
import { drawOnCanvas } from '../../../src/views/stage/canvas-drawing'
import { drawFar, isSeenFromFar } from '../../../src/views/stage/far-view'
import { CONTEXT, Garden } from '../../core/gardens'

/** A path that remembers what it is made of. */
class FakePath {
  readonly parts: string[]
  constructor(d?: string) {
    this.parts = d ? [d] : []
  }
  rect(...sides: number[]): void {
    this.parts.push(`rect ${sides.join(' ')}`)
  }
  roundRect(...sides: number[]): void {
    this.parts.push(`round ${sides.join(' ')}`)
  }
}

beforeEach(() => void vi.stubGlobal('Path2D', FakePath))
afterEach(() => void vi.unstubAllGlobals())

/** A canvas that tells what was done to it, with the tones at that time. */
function fakeCanvas() {
  const done: string[] = []
  const canvas = {
    fillStyle: '',
    strokeStyle: '',
    lineCap: '',
    lineJoin: '',
    lineWidth: 0,
    font: '',
    textAlign: '',
    globalAlpha: 1,
    setLineDash: () => {},
    fill: (path?: FakePath) => done.push(`fill ${canvas.fillStyle} ${path?.parts ?? canvas.globalAlpha}`),
    stroke: (path?: FakePath) => done.push(`stroke ${canvas.strokeStyle} ${canvas.lineWidth} ${path?.parts ?? ''}`),
    strokeText: (text: string) => done.push(`outline ${canvas.strokeStyle} ${canvas.lineWidth} ${text}`),
    fillText: (text: string, x: number, y: number) =>
      done.push(`text ${canvas.fillStyle} ${canvas.font} ${canvas.textAlign} ${text} ${x} ${y}`),
    beginPath: () => {},
    moveTo: () => {},
    lineTo: () => {},
    rect: (...sides: number[]) => done.push(`bar ${sides.map((side) => Math.round(side)).join(' ')}`),
  }
  return { canvas: canvas as unknown as CanvasRenderingContext2D, done }
}

const INKS = new Inks('light')

const draw = (...drawings: Drawing[]) => {
  const { canvas, done } = fakeCanvas()
  for (const each of drawings) drawOnCanvas(canvas, INKS.resolve(each))
  return done
}

describe('a drawing on a canvas', () => {
  test('has the tones that its classes say, and those that a person picked before them', () => {
    const size = { x: 1, y: 2, width: 30, height: 10 }
    expect(draw(drawing('rect', { ...size, rx: 6, class: 'bar spruce-0' }))).toEqual(['fill #2f7fa8 round 1 2 30 10 6'])
    expect(draw(drawing('rect', { ...size, fill: '#102030', stroke: '#405060', 'stroke-width': 2 }))).toEqual([
      'fill #102030 rect 1 2 30 10',
      'stroke #405060 2 rect 1 2 30 10',
    ])
    expect(draw(drawing('path', { d: 'M0 0H9', class: 'connector taper-0 root-tone' }))).toEqual([
      'stroke #1d2a33 4 M0 0H9',
    ])
    expect(draw(drawing('rect', { ...size, fill: 'url(#fill-1)' }))).toEqual([])
    expect(draw(drawing('rect', { ...size, class: 'sign-reach' }))).toEqual([])
  })

  test('writes text where and as large as it says, and leaves out what only the page shows', () => {
    const text = drawing('text', { x: 4, y: 9, 'font-size': 20, 'text-anchor': 'middle', class: 'topic-text bold' }, [
      'Peas',
    ])
    const plain = FONT_FAMILIES.interface
    expect(draw(text)).toEqual([`text #1d2a33 normal 600 20px ${plain} center Peas 4 9`])
    const group = drawing('g', { class: 'tag spruce-0' }, [
      drawing('title', {}, ['A note']),
      drawing('text', { x: 0, y: 5 }, ['Pea']),
    ])
    expect(draw(group)).toEqual([`text #1f5d7e normal 400 12px ${plain} left Pea 0 5`])
    const label = drawing('text', { x: 1, y: 2, class: 'crosslink-label' }, ['feeds'])
    expect(draw(label)).toEqual(['outline #fbfaf6 4 feeds', `text #5d6a70 normal 400 12px ${plain} left feeds 1 2`])
    expect(draw(drawing('image', { href: 'x.png' }))).toEqual([])
  })

  test('shows every line of every topic of a map, its signs, and its enclosures', () => {
    const garden = new Garden()
    const map = garden.grow('Garden\nSpring\n  Sow peas\nSummer')
    garden.do((r, m) => writeNote(r, { topic: garden.topic('Spring'), base: '', text: 'Early.' }, m))
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Spring')], title: 'First half' }, m))
    const { layout, enclosures } = buildScene(garden.records, map, CONTEXT)
    const done = draw(
      ...enclosures.map(({ drawing }) => drawing),
      ...layout.boxes.flatMap((box) => drawTopic(box, CONTEXT)),
    )
    const written = done.flatMap((one) => /^text .* (?:left|center) (.*) [\d.-]+ [\d.-]+$/.exec(one)?.[1] ?? [])
    expect(written).toEqual(['First half', 'Garden', 'Spring', 'Sow peas', 'Summer'])
    expect(done.some((one) => one.startsWith('stroke #5d6a70 1.16'))).toBe(true)
  })
})

describe('the far view', () => {
  const garden = new Garden()
  const map = garden.grow(`Garden\n${Array.from({ length: 400 }, (_, i) => `Topic ${i}`).join('\n')}`)
  const { layout } = buildScene(garden.records, map, CONTEXT)
  const all = { x: -9_999, y: -9_999, width: 19_998, height: 19_998 }

  test('begins where words cannot be read, and earlier where there are very many', () => {
    expect(isSeenFromFar(layout, { drawn: all, scale: 1 })).toBe(false)
    expect(isSeenFromFar(layout, { drawn: all, scale: 0.5 })).toBe(true)
    const { x, y, width, height } = layout.boxes[0]!
    expect(isSeenFromFar(layout, { drawn: { x, y, width, height }, scale: 0.5 })).toBe(false)
    expect(isSeenFromFar(layout, { drawn: { x, y, width, height }, scale: 0.1 })).toBe(false)
  })

  test('is a bar for each topic, faint for those that the filter leaves out', () => {
    const { canvas, done } = fakeCanvas()
    const few = layout.boxes.slice(0, 3)
    drawFar(canvas, few, INKS, 2, new Set([few[2]!.topic.id]))
    expect(done.filter((one) => one.startsWith('bar'))).toHaveLength(3)
    expect(done.filter((one) => one.startsWith('fill')).map((one) => one.split(' ').at(-1))).toContain('0.2')
    expect(canvas.globalAlpha).toBe(1)
  })
})
