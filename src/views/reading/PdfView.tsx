import { ActionIcon, Alert, Loader } from '@mantine/core'
import { IconMinus, IconPlus } from '@tabler/icons-react'
import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy, TextLayer } from 'pdfjs-dist'
import workerAddress from 'pdfjs-dist/build/pdf.worker.min.mjs?url'
import { useEffect, useRef, useState } from 'react'
import styles from './reading.module.css'

GlobalWorkerOptions.workerSrc = workerAddress

/** How large pages are shown, as a factor on the width of the pane. */
const ZOOMS = [0.5, 0.75, 1, 1.25, 1.5, 2, 3]
/** A page that is not known yet is as high as one of the usual paper. */
const USUAL = Math.SQRT2

/** A PDF, page below page; each is drawn when it comes into view, its words can be selected. */
export default function PdfView({ address, page }: { address: string; page: number | null }) {
  const [document, setDocument] = useState<PDFDocumentProxy | null>(null)
  const [trouble, setTrouble] = useState('')
  const [zoom, setZoom] = useState(2)
  const [width, setWidth] = useState(0)
  const pages = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const task = getDocument({
      url: address,
      isEvalSupported: false,
      useWasm: false,
      cMapUrl: '/pdf/cmaps/',
      cMapPacked: true,
      standardFontDataUrl: '/pdf/standard_fonts/',
    })
    task.promise.then(setDocument, (error: unknown) =>
      setTrouble(
        error instanceof Error && error.name === 'PasswordException'
          ? 'This file is locked with a password. It can be downloaded and opened where that can be given.'
          : 'This file cannot be shown: it is damaged. It can be downloaded all the same.',
      ),
    )
    return () => void task.destroy()
  }, [address])
  useEffect(() => {
    const element = pages.current
    if (!element) return
    const observer = new ResizeObserver(() => setWidth(Math.round(element.clientWidth)))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  if (trouble)
    return (
      <Alert color="ember" m="md">
        {trouble}
      </Alert>
    )
  return (
    <>
      <div className={styles.tools}>
        <ActionIcon
          variant="default"
          size="sm"
          aria-label="Smaller"
          disabled={zoom === 0}
          onClick={() => setZoom(zoom - 1)}
        >
          <IconMinus size={14} />
        </ActionIcon>
        <span className={styles.figure}>{ZOOMS[zoom]! * 100} %</span>
        <ActionIcon
          variant="default"
          size="sm"
          aria-label="Larger"
          disabled={zoom === ZOOMS.length - 1}
          onClick={() => setZoom(zoom + 1)}
        >
          <IconPlus size={14} />
        </ActionIcon>
        {document && (
          <span className={styles.left}>{document.numPages === 1 ? '1 page' : `${document.numPages} pages`}</span>
        )}
      </div>
      <div ref={pages} className={styles.pages}>
        {!document && <Loader aria-label="Opening the file" />}
        {document &&
          width > 0 &&
          Array.from({ length: document.numPages }, (_, i) => (
            <PdfPage
              // biome-ignore lint/suspicious/noArrayIndexKey: a page is known by its number
              key={i}
              document={document}
              number={i + 1}
              width={Math.max(120, (width - 32) * ZOOMS[zoom]!)}
              isFirst={i + 1 === page}
            />
          ))}
      </div>
    </>
  )
}

interface PageProps {
  document: PDFDocumentProxy
  number: number
  /** In px. */
  width: number
  /** Whether this is the page to begin with. */
  isFirst: boolean
}

function PdfPage({ document, number, width, isFirst }: PageProps) {
  const frame = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const words = useRef<HTMLDivElement>(null)
  const [isNear, setNear] = useState(false)
  const [ratio, setRatio] = useState(USUAL)
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setNear(entry?.isIntersecting ?? false), {
      // What is scrolled is the section around the pages.
      root: frame.current!.closest('section'),
      rootMargin: '800px',
    })
    observer.observe(frame.current!)
    return () => observer.disconnect()
  }, [])
  useEffect(() => {
    if (isFirst) frame.current?.scrollIntoView()
  }, [isFirst])
  useEffect(() => {
    if (!isNear) return
    let stop = () => {}
    let isGone = false
    const draw = async () => {
      const page = await document.getPage(number)
      if (isGone || !canvas.current || !words.current) return
      const natural = page.getViewport({ scale: 1 })
      setRatio(natural.height / natural.width)
      const viewport = page.getViewport({ scale: width / natural.width })
      const dense = Math.min(window.devicePixelRatio || 1, 2)
      canvas.current.width = Math.round(viewport.width * dense)
      canvas.current.height = Math.round(viewport.height * dense)
      const drawing = page.render({ canvas: canvas.current, viewport, transform: [dense, 0, 0, dense, 0, 0] })
      words.current.replaceChildren()
      words.current.style.setProperty('--total-scale-factor', String(viewport.scale))
      const layer = new TextLayer({ textContentSource: page.streamTextContent(), container: words.current, viewport })
      stop = () => {
        drawing.cancel()
        layer.cancel()
      }
      await Promise.all([drawing.promise, layer.render()])
    }
    // Whoever scrolls on meanwhile wants another page.
    draw().catch(() => {})
    return () => {
      isGone = true
      stop()
    }
  }, [document, number, width, isNear])
  return (
    <div ref={frame} className={styles.page} data-page={number} style={{ width, height: width * ratio }}>
      <canvas ref={canvas} aria-hidden />
      <div ref={words} className={styles.pageWords} />
    </div>
  )
}
