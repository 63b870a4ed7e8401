/** How many files of a dropped folder are looked at. */
const MOST_FILES = 500;

/** The part of a dropped item's entry that is needed; browsers know no standard name for it. */
interface DroppedEntry {
  readonly isFile: boolean;
  readonly isDirectory: boolean;
  readonly name: string;
  file?(done: (file: File) => void, failed: () => void): void;
  createReader?(): { readEntries(done: (entries: DroppedEntry[]) => void, failed: () => void): void };
}

/**
 * All files of a drop, those in folders too, in the order of their names: drawings, and pictures to trace. Must be called while the drop
 * event is handled; what is read afterwards comes as a promise.
 */
export function droppedFiles(transfer: DataTransfer): Promise<File[]> {
  const entries = [...transfer.items].flatMap((item) => {
    const entry = (item as { webkitGetAsEntry?: () => DroppedEntry | null }).webkitGetAsEntry?.();
    return entry ? [entry] : [];
  });
  const plain = [...transfer.files];
  return entries.some(({ isDirectory }) => isDirectory) ? walk(entries) : Promise.resolve(plain);
}

async function walk(entries: readonly DroppedEntry[]): Promise<File[]> {
  const files: File[] = [];
  const waiting = [...entries];
  for (let entry = waiting.shift(); entry && files.length < MOST_FILES; entry = waiting.shift()) {
    if (entry.isDirectory) waiting.unshift(...(await entriesOf(entry)));
    else if (/\.(svgz?|json|csv|png|jpe?g|webp|gif|mp4|webm)$/i.test(entry.name)) {
      const file = await new Promise<File | null>((resolve) => entry.file?.(resolve, () => resolve(null)));
      if (file) files.push(file);
    }
  }
  return files;
}

/** A folder's entries by name; a reader gives them in portions until there are no more. */
async function entriesOf(folder: DroppedEntry): Promise<DroppedEntry[]> {
  const reader = folder.createReader?.();
  const all: DroppedEntry[] = [];
  for (;;) {
    const some = await new Promise<DroppedEntry[]>((resolve) => {
      if (reader) reader.readEntries(resolve, () => resolve([]));
      else resolve([]);
    });
    if (some.length === 0) break;
    all.push(...some);
  }
  return all.sort((p, q) => p.name.localeCompare(q.name, 'en', { numeric: true }));
}
