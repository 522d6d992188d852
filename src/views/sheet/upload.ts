import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { MAX_FILE_BYTES } from '../../core/records/file'
import { askerHeaders } from '../app/api'

interface How {
  use?: 'file' | 'picture' | 'background' | 'pages'
  /** The file on the topic whose newer version it is. */
  replaces?: string
  /** The same when it is tried again after its answer was lost: it is done once. */
  id?: string
  /** Breaks it off: nothing is changed then. */
  signal?: AbortSignal
  /** What it is undone together with. */
  step?: UploadStep
}

/** Files that one gesture brings: they are one step of undo, begun by the first that arrives or by a change before it. */
export class UploadStep {
  private readonly id: string
  private hasBegun: boolean

  constructor(
    private readonly of: number,
    /** The change with which the step began, by its id. */
    begunBy: string | null = null,
  ) {
    this.id = begunBy ?? uuid()
    this.hasBegun = begunBy !== null
  }

  /** What is asked of the server for the next file; nothing where that is all. */
  get asked(): Record<string, string> {
    if (this.of < 2 && !this.hasBegun) return {}
    return { step: this.id, of: String(this.of), ...(this.hasBegun ? {} : { first: '' }) }
  }

  arrived(): void {
    this.hasBegun = true
  }
}

/** Uploads a file onto a topic, and tells its id; `report` gets the part that is done, 0 to 1. Rejects with the words of the server. */
export function upload(
  collection: string,
  /** Empty with `use: 'pages'`. */
  topic: string,
  file: File,
  report: (part: number) => void,
  { use = 'file', replaces, id = uuid(), signal, step }: How = {},
): Promise<string | null> {
  return new Promise((resolve, reject) => {
    if (file.size > MAX_FILE_BYTES) return reject(new Error(`${file.name} is too large: a file may have up to 100 MB.`))
    // fetch tells nothing about the progress of a request's body.
    const request = new XMLHttpRequest()
    const asked = new URLSearchParams({
      use,
      topic,
      name: file.name,
      id,
      ...(replaces && { replaces }),
      ...step?.asked,
    })
    request.open('POST', `/api/collections/${collection}/files?${asked}`)
    signal?.addEventListener('abort', () => request.abort())
    request.onabort = () => reject(signal?.reason)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    for (const [name, value] of Object.entries(askerHeaders())) request.setRequestHeader(name, value)
    request.upload.onprogress = (event) => report(event.lengthComputable ? event.loaded / event.total : 0)
    request.onload = () => {
      if (request.status !== 201) return reject(new Error(`${file.name}: ${problemIn(request.responseText)}`))
      step?.arrived()
      resolve(fileIn(request.responseText))
    }
    request.onerror = () =>
      reject(new Error(`${file.name} could not be uploaded: the server cannot be reached. Please try again.`))
    request.send(file)
  })
}

const Uploaded = z.object({ change: z.object({ edits: z.array(z.object({ kind: z.string(), id: z.string() })) }) })

/** The file that came of an upload, by its id. */
const fileIn = (answer: string): string | null =>
  Uploaded.parse(JSON.parse(answer)).change.edits.find(({ kind }) => kind === 'file')?.id ?? null

function problemIn(answer: string): string {
  try {
    return String(JSON.parse(answer).error)
  } catch {
    return 'the upload was refused.'
  }
}
