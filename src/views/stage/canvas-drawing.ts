import type { Drawing } from '../../core/scene/drawing'

type Attributes = Drawing['attributes']

/**
 * Draws on a canvas that is set to map units what a drawing shows as SVG, when its tones have been resolved; pictures and
 * fills of two tones are left to the page.
 */
export function drawOnCanvas(canvas: CanvasRenderingContext2D, drawing: Drawing): void {
  const { tag, attributes, children } = drawing
  switch (tag) {
    case 'g':
      for (const child of children) if (typeof child !== 'string') drawOnCanvas(canvas, child)
      return
    case 'rect':
    case 'path':
      paint(canvas, shapeOf(drawing), attributes)
      return
    case 'text':
      write(canvas, drawing)
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

/** A tone with which something can be drawn here, or null. */
function toneOf(value: string | number | undefined): string | null {
  const tone = String(value ?? 'none')
  return tone === 'none' || tone === 'transparent' || tone.startsWith('url(') ? null : tone
}

function shapeOf({ tag, attributes }: Drawing): Path2D {
  if (tag === 'path') return new Path2D(String(attributes.d))
  const path = new Path2D()
  const [x, y, width, height, rx] = ['x', 'y', 'width', 'height', 'rx'].map((name) => Number(attributes[name] ?? 0))
  if (rx) path.roundRect(x!, y!, width!, height!, rx)
  else path.rect(x!, y!, width!, height!)
  return path
}

function paint(canvas: CanvasRenderingContext2D, path: Path2D, attributes: Attributes): void {
  const fill = toneOf(attributes.fill)
  if (fill) {
    const alpha = canvas.globalAlpha
    canvas.globalAlpha = alpha * Number(attributes['fill-opacity'] ?? 1)
    canvas.fillStyle = fill
    canvas.fill(path)
    canvas.globalAlpha = alpha
  }
  if (setStroke(canvas, attributes)) canvas.stroke(path)
}

/** Makes the canvas ready for a line; false where there is none. */
function setStroke(canvas: CanvasRenderingContext2D, attributes: Attributes): boolean {
  const stroke = toneOf(attributes.stroke)
  if (!stroke) return false
  canvas.strokeStyle = stroke
  canvas.lineWidth = Number(attributes['stroke-width'] ?? 1)
  canvas.lineCap = attributes['stroke-linecap'] === 'round' ? 'round' : 'butt'
  canvas.lineJoin = attributes['stroke-linejoin'] === 'round' ? 'round' : 'miter'
  canvas.setLineDash(
    String(attributes['stroke-dasharray'] ?? '')
      .match(/[\d.]+/g)
      ?.map(Number) ?? [],
  )
  return true
}

function write(canvas: CanvasRenderingContext2D, { attributes, children }: Drawing): void {
  const font = (name: string) => attributes[`font-${name}`]
  canvas.font = `${font('style') ?? 'normal'} ${font('weight') ?? 400} ${font('size')}px ${font('family')}`
  canvas.textAlign = attributes['text-anchor'] === 'middle' ? 'center' : 'left'
  const [text, x, y] = [children.join(''), Number(attributes.x), Number(attributes.y)]
  // What has a stroke has it behind its letters.
  if (setStroke(canvas, attributes)) canvas.strokeText(text, x, y)
  canvas.fillStyle = toneOf(attributes.fill) ?? 'transparent'
  canvas.fillText(text, x, y)
}
