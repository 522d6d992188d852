import type { ToldChange } from '../../core/changes/edit'
import type { CollectionDigest, MapDigest, MapSnapshot } from '../../core/records/snapshot'
import { whenIdle } from '../app/when-idle'
import { HeldSnapshot } from './api-schemas'
import type { KeptCollection } from './kept-maps'

type Store = typeof import('./kept-maps')
const fetchStore = (): Promise<Store> => import('./kept-maps')

/** What is told of all maps is kept at most so often, in ms. */
const ROWS_MS = 5_000

/**
 * Keeps what the server told of a collection in this browser, so that its maps open without a connection. It is done one after the other
 * and while nothing else is to be done. Where a browser keeps nothing, nobody is troubled: the maps do not open then.
 */
export class KeptHere {
  private last: Promise<unknown> = new Promise<void>((begin) => whenIdle(begin, 5_000))
  private rowsTimer: ReturnType<typeof setTimeout> | undefined
  private rowsKept = 0

  constructor(private readonly collection: string) {}

  private keep(work: (store: Store) => Promise<void>): void {
    this.last = this.last
      .then(fetchStore)
      .then(work, () => {})
      .catch(() => {})
  }

  digest(digest: CollectionDigest): void {
    this.keep((store) => store.keepDigest(digest))
  }

  /** Keeps the answer about a map, of which nobody else has read. */
  map(map: string, answer: Response): void {
    this.keep(async (store) => store.keepMap(this.collection, map, await answer.text()))
  }

  told(changes: readonly ToldChange[]): void {
    this.keep((store) => store.keepTold(this.collection, changes))
  }

  rows(now: () => readonly MapDigest[]): void {
    const keep = () => {
      this.rowsTimer = undefined
      this.rowsKept = Date.now()
      this.keep((store) => store.keepRows(this.collection, now()))
    }
    this.rowsTimer ??= setTimeout(keep, Math.max(0, this.rowsKept + ROWS_MS - Date.now()))
  }

  forgetMap(map: string): void {
    this.keep((store) => store.forgetKeptMap(this.collection, map))
  }

  forget(): void {
    this.keep((store) => store.forgetKeptCollection(this.collection))
  }

  /** The map as it was kept; null where it was not. */
  async mapKept(map: string): Promise<MapSnapshot | null> {
    const answer = await fetchStore().then((store) => store.keptMap(this.collection, map))
    return answer === null ? null : HeldSnapshot.parse(JSON.parse(answer))
  }
}

/** What is kept of a collection, where the server cannot be reached; throws the `error` of the server where that is nothing. */
export async function keptInstead(collection: string, error: unknown): Promise<KeptCollection> {
  if (!(error instanceof TypeError)) throw error
  const kept = await fetchStore()
    .then((store) => store.keptCollection(collection))
    .catch(() => null)
  if (!kept) throw error
  return kept
}
