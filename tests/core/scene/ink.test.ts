import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { changeLook, chooseWholeLook } from '../../../src/core/commands/looks'
import { setTask } from '../../../src/core/commands/set-task'
import { splitOff } from '../../../src/core/commands/split-off'
import { tagTopics } from '../../../src/core/commands/tags'
import { writeNote } from '../../../src/core/commands/write-note'
import { WholeLook } from '../../../src/core/records/look'
import { type Drawing, drawing, toMarkup } from '../../../src/core/scene/drawing'
import { Inks } from '../../../src/core/scene/ink'
import { inkStyles } from '../../../src/core/scene/ink-rules'
import { buildScene } from '../../../src/core/scene/scene'
import { drawTopic } from '../../../src/core/scene/topic-drawing'
import { CONTEXT, Garden } from '../gardens'

/** Everything that a map can show, in one of the whole looks. */
function everything(whole: WholeLook): Drawing[] {
  const garden = new Garden()
  const map = garden.grow('Garden\n\tBeds\n\t\tPeas\n\t\t\tSow\n\t\tBeans\n\tShed\n\t\tSpade\n\tWater\n\t\tPond')
  const topic = (text: string) => garden.topic(text)
  garden.do((r, n) => chooseWholeLook(r, { at: { map }, whole }, n))
  garden.do((r, n) => tagTopics(r, { topics: [topic('Garden'), topic('Beans')], name: 'early' }, n))
  garden.do((r, n) => writeNote(r, { topic: topic('Garden'), base: '', text: 'All of it.' }, n))
  garden.do((r, n) => setTask(r, { topics: [topic('Beans')], task: 'open', today: '2026-05-04' }, n))
  garden.do((r, n) => foldTopics(r, { topics: [topic('Peas')], folded: true }, n))
  garden.do((r, n) =>
    addCrosslink(r, { from: topic('Beans'), to: { kind: 'topic', id: topic('Pond') }, drawn: 'line' }, n),
  )
  garden.do((r, n) => splitOff(r, { topic: topic('Shed') }, n))
  garden.do((r, n) => encloseTopics(r, { topics: [topic('Peas')], title: 'Climbing' }, n))
  const target = { kind: 'topics', topics: [topic('Pond')] } as const
  garden.do((r, n) => changeLook(r, { target, set: { fill: '#123456', fillEnd: '#345678' }, clear: [] }, n))
  const { layout, connectors, crosslinks, enclosures } = buildScene(garden.records, map, CONTEXT)
  return [
    ...enclosures.map(({ drawing }) => drawing),
    ...connectors.map(({ drawing }) => drawing),
    ...layout.boxes.flatMap((box) => drawTopic(box, CONTEXT)),
    ...crosslinks.map(({ drawing }) => drawing),
  ]
}

const elements = (node: Drawing): Drawing[] => [
  node,
  ...node.children.flatMap((child) => (typeof child === 'string' ? [] : elements(child))),
]

describe('tones as values', () => {
  test.each(WholeLook.options)('make a picture in the look %s that needs no style sheet', (whole) => {
    for (const scheme of ['light', 'dark'] as const) {
      const inks = new Inks(scheme)
      const drawn = everything(whole).map((part) => inks.resolve(part))
      expect(drawn.map(toMarkup).join('')).not.toMatch(/class=|var\(|light-dark|undefined/)
      for (const { tag, attributes } of drawn.flatMap(elements)) {
        // Without a style sheet what has no fill would be black.
        if (tag === 'rect' || tag === 'path') expect(attributes, JSON.stringify(attributes)).toHaveProperty('fill')
        if (tag === 'text') {
          expect(attributes).toMatchObject({ 'font-family': expect.stringContaining('Noto Emoji') })
          expect(attributes.fill).toMatch(/^#[0-9a-f]{6}$/)
          expect(attributes['font-size']).toBeGreaterThanOrEqual(11)
        }
      }
    }
  })

  test('leave what a person picked, and follow what is around', () => {
    const inks = new Inks('dark')
    const written = drawing('text', { class: 'tag-text' }, ['early'])
    const tagged = (name: string) => inks.resolve(drawing('g', { class: name }, [written])).children[0] as Drawing
    expect(tagged('tag spruce-1').attributes.fill).toBe('#e8b394')
    expect(tagged('tag ').attributes.fill).toBe('#a3afb5')
    expect(tagged('').attributes.fill).toBe('#e8e6de')
    const picked = inks.resolve(drawing('rect', { class: 'ground ground-card spruce-0', fill: '#abcdef', x: 3 }))
    expect(picked.attributes).toMatchObject({ fill: '#abcdef', stroke: '#62aad0', 'stroke-width': 1.3, x: 3 })
    expect(inks.resolve(written)).toBe(inks.resolve(written))
  })
})

test('the style sheet says the same: every tone gives way to one that was picked', () => {
  const css = inkStyles()
  expect(css).toContain('.scene :where(.tag rect:not([fill])) {\n  fill: var(--hue-wash, var(--panel));\n}')
  expect(css).toContain('.scene :where(.sign-outline:not([stroke-width])) {\n  stroke-width: 1.16;\n}')
  for (const [, selector, body] of css.matchAll(/\.scene :where\((.*)\) \{\n([^}]*)\}/g)) {
    if (/ (?:fill|stroke): /.test(` ${body}`)) expect(selector).toMatch(/:not\(\[(?:fill|stroke)\]\)$/)
  }
})
