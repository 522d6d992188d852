import { join } from 'node:path'
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { projectRoot } from '../../project-root'
import type { Pages } from './pages'

/** The text of a PDF, page by page, in the order in which it was written. Throws where it cannot be read, or is locked. */
export async function readPdf(bytes: Uint8Array, pages: Pages): Promise<void> {
  const task = getDocument({
    data: new Uint8Array(bytes),
    // Of a text neither fonts nor pictures are needed, and nothing is fetched.
    disableFontFace: true,
    useSystemFonts: false,
    useWasm: false,
    isEvalSupported: false,
    // Which letters stand behind the codes of East Asian fonts.
    cMapUrl: `${join(projectRoot(), 'node_modules', 'pdfjs-dist', 'cmaps')}/`,
    cMapPacked: true,
    stopAtErrors: false,
    verbosity: VerbosityLevel.ERRORS,
  })
  const document = await task.promise
  try {
    for (let number = 1; number <= document.numPages && pages.isRoom; number++) {
      const page = await document.getPage(number)
      const { items } = await page.getTextContent()
      let text = ''
      for (const item of items) if ('str' in item) text += item.str + (item.hasEOL ? '\n' : '')
      pages.add(text)
      page.cleanup()
    }
  } finally {
    await task.destroy()
  }
}
