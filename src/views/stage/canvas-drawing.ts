import type { Drawing } from '../../core/scene/drawing'

/** How elements of a tag and class are drawn by the style sheet. */
interface Ink {
  fill: string
  stroke: string
  strokeWidth: number
  dashes: number[]
  /** As a canvas wants it, but for the size in px, which stands before the families. */
  font: { style: string; weight: string; size: number; family: string }
}

export type ReadInk = (tag: string, name: string) => Ink

/** Asks the style sheet how elements look inside a stage: light or dark as it is there. Answers are kept. */
export function inkReader(stage: Element): ReadInk {
  const known = new Map<string, Ink>()
  return (tag, name) => {
    const key = `${tag} ${name}`
    let ink = known.get(key)
    if (!ink) known.set(key, (ink = readInk(stage, tag, name)))
    return ink
  }
}

const SVG = 'http://www.w3.org/2000/svg'

function readInk(stage: Element, tag: string, name: string): Ink {
  const scene = document.createElementNS(SVG, 'svg')
  scene.setAttribute('class', 'scene')
  const probe = document.createElementNS(SVG, tag)
  probe.setAttribute('class', name)
  scene.append(probe)
  stage.append(scene)
  const style = getComputedStyle(probe)
  const ink: Ink = {
    fill: style.fill,
    stroke: style.stroke,
    strokeWidth: Number.parseFloat(style.strokeWidth) || 1,
    dashes: style.strokeDasharray === 'none' ? [] : style.strokeDasharray.split(',').map(Number.parseFloat),
    font: {
      style: style.fontStyle,
      weight: style.fontWeight,
      size: Number.parseFloat(style.fontSize),
      family: style.fontFamily,
    },
  }
  scene.remove()
  return ink
}

/** Draws on a canvas that is set to map units what the same drawing shows as SVG; pictures are left out. */
export function drawOnCanvas(canvas: CanvasRenderingContext2D, drawing: Drawing, inkOf: ReadInk): void {
  const { tag, attributes, children } = drawing
  switch (tag) {
    case 'g':
      for (const child of children) if (typeof child !== 'string') drawOnCanvas(canvas, child, inkOf)
      return
    case 'rect':
    case 'path':
      paint(canvas, shapeOf(drawing), inkOf(tag, String(attributes.class ?? '')), attributes)
      return
    case 'text':
      write(canvas, drawing, inkOf('text', String(attributes.class ?? '')))
      return
    case 'title':
    case 'image':
    case 'defs':
    case 'linearGradient':
    case 'stop':
      return
    default:
      tag satisfies never
  }
}

const isVisible = (tone: string) => tone !== 'none' && tone !== 'rgba(0, 0, 0, 0)'

/** A tone that was picked, else that of the style sheet. Fills of two tones are left to the page. */
const toneOf = (picked: string | number | undefined, ink: string): string =>
  picked === undefined ? ink : String(picked).startsWith('url(') ? 'none' : String(picked)

function shapeOf({ tag, attributes }: Drawing): Path2D {
  if (tag === 'path') return new Path2D(String(attributes.d))
  const path = new Path2D()
  const [x, y, width, height, rx] = ['x', 'y', 'width', 'height', 'rx'].map((name) => Number(attributes[name] ?? 0))
  if (rx) path.roundRect(x!, y!, width!, height!, rx)
  else path.rect(x!, y!, width!, height!)
  return path
}

function paint(canvas: CanvasRenderingContext2D, path: Path2D, ink: Ink, attributes: Drawing['attributes']): void {
  const fill = toneOf(attributes.fill, ink.fill)
  if (isVisible(fill)) {
    canvas.fillStyle = fill
    canvas.fill(path)
  }
  const stroke = toneOf(attributes.stroke, ink.stroke)
  if (isVisible(stroke)) {
    canvas.strokeStyle = stroke
    canvas.lineWidth = Number(attributes['stroke-width'] ?? ink.strokeWidth)
    canvas.setLineDash(ink.dashes)
    canvas.stroke(path)
  }
}

function write(canvas: CanvasRenderingContext2D, { attributes, children }: Drawing, ink: Ink): void {
  const { style, weight, family } = ink.font
  canvas.font = `${style} ${weight} ${attributes['font-size'] ?? ink.font.size}px ${family}`
  canvas.textAlign = attributes['text-anchor'] === 'middle' ? 'center' : 'left'
  canvas.fillStyle = toneOf(attributes.fill, ink.fill)
  canvas.fillText(children.join(''), Number(attributes.x), Number(attributes.y))
}
