/** Deepest folders that are looked into, and most files that are taken at once. */
const [MOST_LEVELS, MOST_FILES] = [10, 500]

/** The files that were dropped, with those inside of dropped folders. To be called while the drop is being answered. */
export async function droppedFiles(transfer: DataTransfer): Promise<File[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry?.() ?? [])
  if (!entries.some(({ isDirectory }) => isDirectory)) return [...transfer.files]
  const found: File[] = []
  for (const entry of entries) await gather(entry, 0, found)
  return found
}

async function gather(entry: FileSystemEntry, level: number, found: File[]): Promise<void> {
  if (found.length >= MOST_FILES) return
  if (isFile(entry)) {
    const file = await new Promise<File>((resolve, reject) => entry.file(resolve, reject))
    // As it is where a folder was chosen: browsers leave it empty where one was dropped.
    if (level > 0) Object.defineProperty(file, 'webkitRelativePath', { value: entry.fullPath.replace(/^\//, '') })
    found.push(file)
  } else if (isFolder(entry) && level < MOST_LEVELS)
    for (const inner of await entriesOf(entry)) await gather(inner, level + 1, found)
}

const isFile = (entry: FileSystemEntry): entry is FileSystemFileEntry => entry.isFile
const isFolder = (entry: FileSystemEntry): entry is FileSystemDirectoryEntry => entry.isDirectory

/** All that a folder holds: it is told in parts. */
async function entriesOf(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader()
  const all: FileSystemEntry[] = []
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
    if (part.length === 0) return all
    all.push(...part)
  }
}
