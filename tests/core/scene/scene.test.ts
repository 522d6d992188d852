import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { changeEnclosure, encloseTopics } from '../../../src/core/commands/enclosures'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { setMapLayout } from '../../../src/core/commands/layouts'
import { setDates } from '../../../src/core/commands/set-dates'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import type { EnclosureLook } from '../../../src/core/records/enclosure'
import type { MapId } from '../../../src/core/records/ids'
import { LayoutKind } from '../../../src/core/records/layout'
import { type Drawing, drawing, px, toMarkup } from '../../../src/core/scene/drawing'
import { placedPath } from '../../../src/core/scene/path'
import { buildScene, type Scene, SceneMaker } from '../../../src/core/scene/scene'
import { signName } from '../../../src/core/scene/signs'
import { drawTopic } from '../../../src/core/scene/topic-drawing'
import { type Calendar, ENGLISH } from '../../../src/core/text/days'
import { CONTEXT, Garden } from '../gardens'

function planted(): { garden: Garden; map: MapId } {
  const garden = new Garden()
  return { garden, map: garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\nAutumn') }
}
const sceneOf = ({ garden, map }: { garden: Garden; map: MapId }): Scene =>
  buildScene(garden.records, map, { ...CONTEXT, countTopics: () => 7 })
const boxOf = (scene: Scene, garden: Garden, text: string) => scene.layout.byKey.get(garden.topic(text))!
const markupOf = (scene: Scene, garden: Garden, text: string) =>
  drawTopic(boxOf(scene, garden, text), CONTEXT)
    .map(toMarkup)
    .join('')

/** All drawings in a drawing, itself included. */
function parts(node: Drawing): Drawing[] {
  return [node, ...node.children.flatMap((child) => (typeof child === 'string' ? [] : parts(child)))]
}

describe('a drawing', () => {
  test('becomes markup in which every text and attribute is escaped', () => {
    const hostile = '</text><script>"\'&'
    expect(toMarkup(drawing('text', { x: 1, class: hostile }, [hostile]))).toBe(
      '<text x="1" class="&lt;/text&gt;&lt;script&gt;&quot;&#39;&amp;">&lt;/text&gt;&lt;script&gt;&quot;&#39;&amp;</text>',
    )
    expect(toMarkup(drawing('rect', { width: 3 }))).toBe('<rect width="3"/>')
    expect(px(1.23456)).toBe(1.23)
  })
})

describe('an outline', () => {
  test('is scaled and moved, whatever commands it has and however its numbers are written', () => {
    expect(placedPath('M1 2l3 4H10V-2z', 2, 100, 200)).toBe('M102 204l6 8H120V196z')
    expect(placedPath('M0 0a5 5 0 01-5 5A1 2 30 1 0 3 4', 2, 10, 20)).toBe('M10 20a10 10 0 0 1 -10 10A2 4 30 1 0 16 28')
    expect(placedPath('m.5-.5c1,1 2,2 3-3S1 1 2 2', 2, 1, 1)).toBe('m1 -1c2 2 4 4 6 -6S3 3 5 5')
  })
})

describe('a topic as it is drawn', () => {
  test('the root is a block, others have a bar in their hue at the side from which they grow', () => {
    const made = planted()
    const scene = sceneOf(made)
    expect(markupOf(scene, made.garden, 'Garden')).toContain('class="ground ground-slab root-tone"')
    const right = boxOf(scene, made.garden, 'Spring')
    expect(markupOf(scene, made.garden, 'Spring')).toContain(`x="${px(right.x)}" class="bar spruce-0"/>`)
    const left = scene.layout.boxes.find((box) => box.growsLeft)!
    const bar = drawTopic(left, CONTEXT)
      .flatMap(parts)
      .find(({ attributes }) => String(attributes.class).startsWith('bar'))
    expect(Number(bar!.attributes.x)).toBeCloseTo(left.x + left.width - 3, 1)
  })

  test('top down the bar lies on the upper edge', () => {
    const made = planted()
    made.garden.do((r, m) => setMapLayout(r, { map: made.map, layout: 'down' }, m))
    const scene = sceneOf(made)
    const { y } = boxOf(scene, made.garden, 'Spring')
    expect(markupOf(scene, made.garden, 'Spring')).toContain(`height="3" y="${px(y)}" class="bar`)
  })

  test('signs tell what it carries, with a count where there is more than one', () => {
    const made = planted()
    const { garden } = made
    const peas = garden.topic('Sow peas')
    garden.do((r, m) => writeNote(r, { topic: peas, base: '', text: 'Early.' }, m))
    for (const url of ['example.org/a', 'example.org/b'])
      garden.do((r, m) => addWeblink(r, { topic: peas, url, title: '' }, m))
    garden.do((r, m) =>
      addCrosslink(r, { from: peas, to: { kind: 'topic', id: garden.topic('Autumn') }, drawn: 'quiet' }, m),
    )
    const markup = markupOf(sceneOf(made), garden, 'Sow peas')
    expect([...markup.matchAll(/data-sign="(\w+)"/g)].map(([, sign]) => sign)).toEqual(['note', 'web', 'link'])
    expect(markup).toContain('<title>2 web links</title>')
    expect([signName('note', 1), signName('file', 1), signName('link', 3)]).toEqual(['Note', '1 file', '3 cross-links'])
  })

  test('a doorway has its turned-down corner with the number of topics behind it; a folded topic tells how many it hides', () => {
    const made = planted()
    const { garden } = made
    garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
    garden.do((r, m) =>
      foldTopics(
        r,
        {
          topics: [garden.topic('Summer')],
          folded: true,
        },
        m,
      ),
    )
    const scene = buildScene(garden.records, made.map, { ...CONTEXT, countTopics: () => 7 })
    const door = scene.layout.boxes.find(({ topic }) => topic.opensMap)!
    const markup = drawTopic(door, CONTEXT).map(toMarkup).join('')
    expect(markup).toContain('class="leaf spruce-')
    expect(markup).toMatch(/class="behind spruce-\d" text-anchor="middle">7</)
    expect(markupOf(scene, garden, 'Summer')).toContain('<title>1 folded</title>')
  })
})

describe('connectors', () => {
  test.each(LayoutKind.options)('set as %s join every topic to its parent, each once', (layout) => {
    const made = planted()
    made.garden.do((r, m) => setMapLayout(r, { map: made.map, layout }, m))
    const scene = sceneOf(made)
    const { connectors } = scene
    expect(new Set(connectors.map(({ key }) => key)).size).toBe(connectors.length)
    const paths = connectors.flatMap((one) => parts(one.drawing)).filter(({ tag }) => tag === 'path')
    for (const { attributes } of paths)
      expect(String(attributes.d)).toMatch(/^(M-?[\d.]+ -?[\d.]+|[HVLChvlc ,\d.-]|M)+$/)
    for (const box of scene.layout.boxes) {
      if (!box.parent) continue
      const near = connectors.filter(
        ({ bounds }) =>
          bounds.x <= box.x + 0.01 &&
          bounds.y <= box.y + 0.01 &&
          bounds.x + bounds.width >= box.x + box.width - 0.01 &&
          bounds.y + bounds.height >= box.y + box.height - 0.01,
      )
      expect(near.length).toBeGreaterThan(0)
    }
  })

  test('along time the scale carries its marks, today, and the dates of topics, the year where it begins or changes', () => {
    const made = planted()
    const { garden, map } = made
    const date = (text: string, start: string) =>
      garden.do((r, m) => setDates(r, { topics: [garden.topic(text)], dates: { start, end: null } }, m))
    date('Spring', '2026-03-01')
    date('Summer', '2026-06-05')
    date('Autumn', '2027-01-10')
    garden.do((r, m) => setMapLayout(r, { map, layout: 'time' }, m))
    const written = (name: string, today: string | null = null, words: Partial<Calendar> = {}) =>
      new SceneMaker(garden.records, CONTEXT, new MapLayouter(garden.records, map, CONTEXT))
        .make(null, { ...ENGLISH, today, ...words })
        .connectors.flatMap((one) => parts(one.drawing))
        .filter(({ attributes }) => attributes.class === name)
    const inGerman = written('axis-date', null, {
      dayAndMonth: (day) => `${Number(day.slice(-2))}. Mai`,
      wholeDay: (day) => `${Number(day.slice(-2))}. Mai ${day.slice(0, 4)}`,
    })
    expect(inGerman.map(({ children }) => children[0])).toEqual(['1. Mai 2026', '5. Mai', '10. Mai 2027'])
    const words = written('axis-date').map(({ children }) => children[0])
    expect(words).toEqual(['1 Mar 2026', '5 Jun', '10 Jan 2027'])
    expect(written('axis-scale').map(({ children }) => children[0])).toEqual(['Apr', 'Jul', 'Oct', '2027'])
    expect(written('axis-today-word', '2026-09-01')).toHaveLength(1)
    expect(written('axis-today-word', '2026-02-01')).toHaveLength(0)
    const [june, today] = [written('axis-date')[1]!, written('axis-today-word', '2026-06-05')[0]!]
    expect(today.attributes.x).toBeCloseTo(Number(june.attributes.x) - 4, 1)
  })
})

test('connectors that join the same boxes as before are the same objects, whatever changes elsewhere', () => {
  const { garden, map } = planted()
  garden.do((r, m) => setMapLayout(r, { map, layout: 'right' }, m))
  const maker = new SceneMaker(garden.records, CONTEXT, new MapLayouter(garden.records, map, CONTEXT))
  const connectors = () => {
    const { connectors } = maker.make(null)
    return new Map(connectors.map((one) => [one.parent.topic.text, one]))
  }
  const before = connectors()
  garden.do((r, m) => setText(r, { topic: garden.topic('Prune'), text: 'Prune the apple trees' }, m))
  const after = connectors()
  expect([...after.keys()]).toEqual([...before.keys()])
  expect(after.get('Spring')).not.toBe(before.get('Spring'))
  expect(after.get('Garden')).toBe(before.get('Garden'))
  garden.do((r, m) => setText(r, { topic: garden.topic('Prune the apple trees'), text: 'Prune\nin\nfour\nlines' }, m))
  expect(connectors().get('Garden')).not.toBe(before.get('Garden'))
})

describe('cross-links and enclosures', () => {
  test('a drawn link is a line between the nearest edges; a quiet one is none', () => {
    const made = planted()
    const { garden } = made
    const link = (from: string, to: string, drawn: 'line' | 'quiet') =>
      garden.do((r, m) =>
        addCrosslink(r, { from: garden.topic(from), to: { kind: 'topic', id: garden.topic(to) }, drawn }, m),
      )
    link('Sow peas', 'Prune', 'line')
    link('Sow peas', 'Autumn', 'quiet')
    const { crosslinks } = sceneOf(made)
    expect(crosslinks).toHaveLength(1)
    expect(toMarkup(crosslinks[0]!.drawing)).toContain('class="crosslink-line"')
  })

  test('frames are drawn from the outside in, with their titles escaped', () => {
    const made = planted()
    const { garden } = made
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Sow peas')], title: '<b>' }, m))
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Spring')], title: 'Early' }, m))
    const { enclosures, bounds } = sceneOf(made)
    expect(enclosures.map(({ drawing }) => /class="enclosure-title">([^<]*)</.exec(toMarkup(drawing))?.[1])).toEqual([
      'Early',
      '&lt;b&gt;',
    ])
    for (const { box } of enclosures) expect(box.x).toBeGreaterThan(bounds.x)
  })

  test('a frame shows the look that was picked for it', () => {
    const made = planted()
    const { garden } = made
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Spring')], title: 'Early' }, m))
    const { id } = garden.records.enclosuresOf(garden.topic('Spring'))[0]!
    const drawn = (look: EnclosureLook | null) => {
      garden.do((r, m) => changeEnclosure(r, { enclosure: id, title: 'Early', note: '', tone: null, look }, m))
      return toMarkup(sceneOf(made).enclosures[0]!.drawing)
    }
    expect(drawn(null)).toMatch(/<rect [^>]*rx="6" class="enclosure-frame frame-thin"\/>/)
    expect(drawn({ fill: '#112233', line: 'dashed', corners: 'square' })).toMatch(
      /<rect [^>]*rx="0" class="enclosure-frame frame-dashed picked" fill="#112233"\/>/,
    )
    expect(drawn({ corners: 'sketch' })).toContain('<path d="M')
  })
})
