import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { changeLook, chooseWholeLook, copyLook, setBackground } from '../../../src/core/commands/looks'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { contrast, LEAST_CONTRAST, readableFill } from '../../../src/core/look/contrast'
import { FAMILY_NAMES, tonesOf } from '../../../src/core/look/families'
import { lookValue } from '../../../src/core/look/look-source'
import { asLightDark, PALETTE } from '../../../src/core/look/palette'
import { backdropOf, inheritedOn } from '../../../src/core/look/styles'
import { WHOLE_LOOKS } from '../../../src/core/look/whole-looks'
import { HueFamily, TopicShape, WholeLook } from '../../../src/core/records/look'
import { toMarkup } from '../../../src/core/scene/drawing'
import { Inks } from '../../../src/core/scene/ink'
import { buildScene } from '../../../src/core/scene/scene'
import { sketched } from '../../../src/core/scene/sketch'
import { drawTopic } from '../../../src/core/scene/topic-drawing'
import { noteBeginning } from '../../../src/core/text/note-beginning'
import { COLLECTION, CONTEXT, Garden } from '../gardens'

const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n    In rows\n  Prune\nSummer\n  Pick beans')
  const box = (text: string) => layoutMap(garden.records, map, CONTEXT).byKey.get(garden.topic(text))!
  const markup = (text: string) => drawTopic(box(text), CONTEXT).map(toMarkup).join('')
  return { garden, map, box, markup }
}

describe('contrast', () => {
  test('is measured as the web guidelines say', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
  })

  test('any fill, of one tone or two, gets an ink that can be read on all of it', () => {
    fc.assert(
      fc.property(colour, fc.option(colour, { nil: null }), (fill, end) => {
        const readable = readableFill(fill, end)
        expect(readable.fill).toBe(fill)
        expect(contrast(readable.ink, fill)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
        if (readable.end) expect(contrast(readable.ink, readable.end)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
      }),
      { numRuns: 500 },
    )
  })

  test('letters of any colour can be read, on any ground, in light and dark, and are that colour where it can be read', () => {
    const { garden, box, markup } = planted()
    const target = { kind: 'topics', topics: [garden.topic('Spring')] } as const
    fc.assert(
      fc.property(
        colour,
        fc.constantFrom(...TopicShape.options),
        fc.option(colour, { nil: null }),
        (letters, shape, fill) => {
          garden.do((r, ids) => changeLook(r, { target, set: { letters, shape, fill }, clear: [] }, ids))
          const { style } = box('Spring')
          const [hues, pair] = [tonesOf(style.family), style.letters!.ground]
          for (const [i, scheme] of (['light', 'dark'] as const).entries()) {
            const ground = fill
              ? [fill]
              : shape === 'slab'
                ? [PALETTE['root-block'][i]!]
                : shape === 'block'
                  ? hues.map(({ text }) => text[i]!)
                  : [PALETTE.paper[i]!, ...hues.map(({ wash }) => wash[i]!)]
            for (const tone of ground) expect(contrast(pair[i]!, tone)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
            if (ground.every((tone) => contrast(letters, tone) >= 6)) expect(pair[i]).toBe(letters)
            const drawn = drawTopic(box('Spring'), CONTEXT).map((one) => toMarkup(new Inks(scheme).resolve(one)))
            expect(drawn.join('')).toContain(`fill="${pair[i]}"`)
          }
          expect(markup('Spring')).toContain(`fill="${asLightDark(pair)}"`)
        },
      ),
      { numRuns: 150 },
    )
  })

  test('ink can be read on the fill of an enclosure, whatever tone was picked', () => {
    const mixed = (over: string, under: string) => {
      const channel = (tone: string, at: number) => Number.parseInt(tone.slice(at, at + 2), 16)
      const parts = [1, 3, 5].map((at) => Math.round(channel(over, at) * 0.22 + channel(under, at) * 0.78))
      return `#${parts.map((part) => part.toString(16).padStart(2, '0')).join('')}`
    }
    fc.assert(
      fc.property(colour, (fill) => {
        for (const [ink, paper] of [
          ['#1d2a33', '#fbfaf6'],
          ['#e8e6de', '#161b1e'],
        ] as const)
          expect(contrast(ink, mixed(fill, paper))).toBeGreaterThanOrEqual(LEAST_CONTRAST)
      }),
      { numRuns: 300, examples: [['#000000'], ['#ffffff']] },
    )
  })

  test.each(HueFamily.options)(
    'the hues of %s can be read on their wash and seen on paper, in light and dark',
    (family) => {
      expect(FAMILY_NAMES[family]).not.toBe('')
      const tones = tonesOf(family)
      expect(tones).toHaveLength(8)
      for (const { line, text, wash } of tones)
        for (const [scheme, paper] of [
          [0, '#fbfaf6'],
          [1, '#161b1e'],
        ] as const) {
          expect(contrast(text[scheme], wash[scheme])).toBeGreaterThanOrEqual(LEAST_CONTRAST)
          expect(contrast(text[scheme], paper)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
          expect(contrast(line[scheme], paper)).toBeGreaterThan(2.5)
        }
    },
  )
})

describe('the look of a topic', () => {
  test('is what is set nearest: topic before branch, branch before level, map before collection, all before the whole look', () => {
    const { garden, map, box } = planted()
    const peas = garden.topic('Sow peas')
    const spring = garden.topic('Spring')
    const font = () => box('Sow peas').style.face
    const source = () => lookValue(garden.records, garden.records.need('topic', peas), 2, 'font')
    const set = (target: Parameters<typeof changeLook>[1]['target'], value: 'plain' | 'reading' | 'hand') =>
      garden.do((r, m) => changeLook(r, { target, set: { font: value }, clear: [] }, m))
    expect([font(), source()]).toEqual(['plain', { value: 'plain', source: { from: 'whole', name: 'Laid' } }])
    set({ kind: 'collection', collection: COLLECTION, level: null }, 'hand')
    expect([font(), source().source.from]).toEqual(['hand', 'collection'])
    set({ kind: 'map', map, level: null }, 'reading')
    expect([font(), source().source.from]).toEqual(['reading', 'map'])
    set({ kind: 'map', map, level: 2 }, 'plain')
    expect([font(), box('In rows').style.face, source().source.from]).toEqual(['plain', 'reading', 'map'])
    set({ kind: 'branches', topics: [spring] }, 'hand')
    expect([font(), box('In rows').style.face, box('Pick beans').style.face]).toEqual(['hand', 'hand', 'plain'])
    expect(source().source).toMatchObject({ from: 'above', topic: { text: 'Spring' } })
    set({ kind: 'topics', topics: [peas] }, 'reading')
    expect([font(), box('In rows').style.face, source().source.from]).toEqual(['reading', 'hand', 'topic'])
    const clear = { target: { kind: 'topics', topics: [peas] }, set: {}, clear: ['font'] } as const
    garden.do((r, m) => changeLook(r, clear, m))
    expect([font(), garden.records.need('topic', peas).look]).toEqual(['hand', null])
  })

  test('a picked fill is drawn with an ink that can be read, two tones as one passing into the other', () => {
    const { garden, box, markup } = planted()
    const topics = [garden.topic('Prune')]
    const target = { kind: 'topics', topics } as const
    garden.do((r, m) => changeLook(r, { target, set: { fill: '#203040', outline: '#c4532f' }, clear: [] }, m))
    expect(markup('Prune')).toMatch(/<rect [^>]*fill="#203040" stroke="#c4532f" stroke-width="1.6"/)
    garden.do((r, m) => changeLook(r, { target, set: { outlineWidth: 4 }, clear: [] }, m))
    expect(markup('Prune')).toMatch(/stroke="#c4532f" stroke-width="4"/)
    expect(markup('Prune')).toMatch(/<text [^>]*fill="#fbfaf6"/)
    garden.do((r, m) => changeLook(r, { target, set: { fillEnd: '#ffffff' }, clear: [] }, m))
    expect(markup('Prune')).toContain(`fill="url(#fill-${topics[0]})"`)
    expect(contrast(box('Prune').style.ink!, box('Prune').style.fillEnd!)).toBeGreaterThanOrEqual(LEAST_CONTRAST)
  })

  test('a hue or a family of a branch holds for all of it and for its connectors', () => {
    const { garden, map } = planted()
    const target = { kind: 'branches', topics: [garden.topic('Spring')] } as const
    garden.do((r, m) => changeLook(r, { target, set: { hue: 6, family: 'rain' }, clear: [] }, m))
    const scene = buildScene(garden.records, map, CONTEXT)
    const peas = scene.layout.byKey.get(garden.topic('Sow peas'))!
    expect(drawTopic(peas, CONTEXT).map(toMarkup).join('')).toContain('class="bar rain-6"')
    const spring = scene.connectors.find(({ parent }) => parent.topic.text === 'Spring')!
    expect(toMarkup(spring.drawing)).toContain('class="connector rain-6"')
  })

  test('goes along to other topics, and to a child map that is split off', () => {
    const { garden, map, box } = planted()
    const target = { kind: 'branches', topics: [garden.topic('Spring')] } as const
    garden.do((r, m) => changeLook(r, { target, set: { shape: 'pill' }, clear: [] }, m))
    garden.do((r, m) => copyLook(r, { from: garden.topic('Spring'), to: [garden.topic('Summer')] }, m))
    expect(box('Pick beans').style.shape).toBe('pill')
    garden.do((r, m) => chooseWholeLook(r, { at: { map }, whole: 'pencil' }, m))
    garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
    const child = garden.records.need('topic', garden.topic('Sow peas')).place.map
    const inside = layoutMap(garden.records, child, CONTEXT).byKey.get(garden.topic('Sow peas'))!
    expect([inside.style.shape, inside.style.face]).toEqual(['pill', 'hand'])
  })
})

describe('whole looks', () => {
  test.each(WholeLook.options)(
    '%s dresses a map, the root other than the rest, and gives way to nothing that is left over',
    (whole) => {
      const { garden, map, box } = planted()
      const every = { kind: 'map', map, level: null } as const
      garden.do((r, m) => changeLook(r, { target: every, set: { size: 30 }, clear: [] }, m))
      garden.do((r, m) => chooseWholeLook(r, { at: { map }, whole }, m))
      const look = WHOLE_LOOKS[whole]
      expect(box('Garden').style.shape).toBe(look.levels[0].shape)
      expect(box('Sow peas').style.size).toBe(look.levels[2].size)
      expect(backdropOf(garden.records, map)).toMatchObject({ scheme: look.scheme, pattern: look.background.pattern })
      expect(inheritedOn(garden.records, map)).toBe(inheritedOn(garden.records, map))
    },
  )

  test('are told apart at first sight', () => {
    const marks = Object.values(WHOLE_LOOKS).map(
      ({ every, levels }) => `${levels[0].shape} ${levels[1].shape ?? every.shape} ${every.connector} ${every.family}`,
    )
    expect(new Set(marks).size).toBe(marks.length)
  })

  test('a map follows the look of all maps until it has its own; so does its background', () => {
    const { garden, map, box } = planted()
    garden.do((r, m) => chooseWholeLook(r, { at: { collection: COLLECTION }, whole: 'galley' }, m))
    expect(box('Prune').style.shape).toBe('rule')
    garden.do((r, m) => chooseWholeLook(r, { at: { map }, whole: 'mosaic' }, m))
    expect(box('Prune').style.shape).toBe('card')
    const ruled = { pattern: 'ruled', tone: '#fff8e0', picture: null } as const
    garden.do((r, m) => setBackground(r, { at: { map }, background: ruled }, m))
    expect(backdropOf(garden.records, map)).toEqual({ scheme: 'light', ...ruled })
    garden.do((r, m) => chooseWholeLook(r, { at: { map }, whole: null }, m))
    expect([box('Prune').style.shape, backdropOf(garden.records, map).tone]).toEqual(['rule', '#ffffff'])
  })
})

describe('the beginning of a note', () => {
  test('stands under the text where it is wanted, in at most three lines, and the topic grows by it', () => {
    const { garden, map, box, markup } = planted()
    const topic = garden.topic('Prune')
    const before = box('Prune').height
    garden.do((r, m) =>
      writeNote(r, { topic, base: '', text: `# When\n\n**Late winter**, ${'on a dry day, '.repeat(30)}` }, m),
    )
    expect(box('Prune').height).toBe(before)
    const every = { kind: 'map', map, level: null } as const
    garden.do((r, m) => changeLook(r, { target: every, set: { excerpt: true }, clear: [] }, m))
    expect(box('Prune').height).toBe(before + 4 + 3 * 17)
    expect(markup('Prune').match(/class="excerpt"/g)).toHaveLength(3)
    expect(markup('Prune')).toContain('When Late winter, on a dry day')
  })

  test('is the words without their marks, cut at a word', () => {
    expect(noteBeginning('## Peat\n\n- [ ] *Look* at [the list](a.md), `twice`\n> 3\\* a day', 100)).toBe(
      'Peat Look at the list, twice 3* a day',
    )
    expect(noteBeginning('word '.repeat(100), 22)).toBe('word word word word…')
    expect(noteBeginning('---\n\n', 20)).toBe('')
    expect(noteBeginning('snake_case_names stay', 40)).toBe('snake_case_names stay')
  })
})

describe('a line drawn by hand', () => {
  test('wavers a little, always alike, and ends where it should', () => {
    const path = 'M0 0H100V50L0 50Z'
    expect(sketched(path, 'a')).toBe(sketched(path, 'a'))
    expect(sketched(path, 'a')).not.toBe(sketched(path, 'b'))
    const points = sketched('M0 0H100', 'a')
      .match(/-?\d+(\.\d+)?/g)!
      .map(Number)
    expect(points.at(-2)).toBeCloseTo(100, -0.5)
    expect(Math.max(...points.filter((_, i) => i % 2 === 1).map(Math.abs))).toBeLessThan(2)
  })
})
