import { ZipFile } from 'yazl'

/** A PDF with a line of text on each page, as small as can be (ISO 32000-1, 7.5). */
export function smallPdf(lines: readonly string[]): Buffer<ArrayBuffer> {
  const kids = lines.map((_, i) => `${4 + 2 * i} 0 R`).join(' ')
  const objects = [
    '<</Type/Catalog/Pages 2 0 R>>',
    `<</Type/Pages/Count ${lines.length}/Kids[${kids}]>>`,
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>',
    ...lines.flatMap((line, i) => {
      const drawn = `BT /F1 12 Tf 72 700 Td (${line.replace(/[\\()]/g, '\\$&')}) Tj ET`
      return [
        `<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents ${5 + 2 * i} 0 R/Resources<</Font<</F1 3 0 R>>>>>>`,
        `<</Length ${drawn.length}>>stream\n${drawn}\nendstream`,
      ]
    }),
  ]
  let text = '%PDF-1.4\n'
  const starts = objects.map((object, i) => {
    const start = text.length
    text += `${i + 1} 0 obj\n${object}\nendobj\n`
    return start
  })
  const rows = starts.map((start) => `${String(start).padStart(10, '0')} 00000 n \n`).join('')
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${rows}`
  return Buffer.from(
    `${text}trailer<</Size ${objects.length + 1}/Root 1 0 R>>\nstartxref\n${text.lastIndexOf('xref\n0')}\n%%EOF`,
    'latin1',
  )
}

/** A document in Office Open XML with the body given, as far as a reader of its text needs it. */
export async function smallDocx(body: string): Promise<Buffer<ArrayBuffer>> {
  const zip = new ZipFile()
  const types = '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'
  zip.addBuffer(Buffer.from(types), '[Content_Types].xml')
  zip.addBuffer(Buffer.from(`<w:document xmlns:w="w"><w:body>${body}</w:body></w:document>`), 'word/document.xml')
  zip.end()
  const pieces: Buffer[] = []
  for await (const piece of zip.outputStream) pieces.push(piece as Buffer)
  return Buffer.concat(pieces)
}
