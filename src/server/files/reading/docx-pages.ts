import { SaxesParser } from 'saxes'
import { fromBuffer, type ZipFile } from 'yauzl'
import { Failure } from '../../http/failure'
import type { Pages } from './pages'

/** The part of a document in which its text stands (ECMA-376, part 1, 11.3.10), and how large it may be unpacked, in bytes. */
const PART = 'word/document.xml'
const MOST_BYTES = 40 * 1024 * 1024

/** The text of a document in Office Open XML, page by page as far as it says where its pages break. Throws where it is none. */
export async function readDocx(bytes: Buffer, pages: Pages): Promise<void> {
  const parser = new SaxesParser()
  let text = ''
  let isText = false
  parser.on('opentag', ({ name, attributes }) => {
    if (name === 'w:t') isText = true
    else if (name === 'w:tab') text += '\t'
    else if (name === 'w:lastRenderedPageBreak' || (name === 'w:br' && attributes['w:type'] === 'page')) {
      pages.add(text)
      text = ''
    } else if (name === 'w:br' || name === 'w:cr') text += '\n'
  })
  parser.on('text', (words) => {
    if (isText) text += words
  })
  parser.on('closetag', ({ name }) => {
    if (name === 'w:t') isText = false
    else if (name === 'w:p') text += '\n'
  })
  parser.on('error', (error) => {
    throw error
  })
  const decoder = new TextDecoder()
  for await (const chunk of unpacked(bytes)) parser.write(decoder.decode(chunk, { stream: true }))
  parser.close()
  pages.add(text)
}

/** The bytes of the part, as they are unpacked. */
async function* unpacked(bytes: Buffer): AsyncGenerator<Buffer> {
  const zip = await new Promise<ZipFile>((resolve, reject) =>
    fromBuffer(bytes, { lazyEntries: true }, (error, opened) => (error ? reject(error) : resolve(opened))),
  )
  const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) => {
    const without = () => reject(new Failure(422, 'There is no text in this document.'))
    zip.on('entry', (entry) => {
      if (entry.fileName !== PART) zip.readEntry()
      else zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened)))
    })
    zip.on('end', without)
    zip.on('error', reject)
    zip.readEntry()
  })
  let size = 0
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > MOST_BYTES) throw new Failure(422, 'This document is too large to be read.')
    yield chunk
  }
}
