import { setsOf } from '@zesty-tile/core';
import { baseName, makeTileOf, storePicture } from '../api/upload.ts';
import { wordsOf } from '../api/words-of.ts';
import { useWhereFrom, type WhereFrom } from '../stations/source/where-from.tsx';
import { type ProjectOf, useImport } from './import-state.ts';

interface Wanted {
  file: File;
  projectId: ProjectOf;
  whereFrom: WhereFrom;
}

let queue: Wanted[] = [];
/** Ends the request under way; null while nothing is imported. */
let running: AbortController | null = null;

/** A file that no picture program would open is left out of a folder without a word. */
const mayBePicture = (file: File) => /\.(png|jpe?g|webp|tiff?|exr)$/i.test(file.name);

const asksBeforeLeaving = (event: BeforeUnloadEvent) => event.preventDefault();

/** Notes how far the setup of the file under way is. */
const setUpTo = (setUp: number) => useImport.setState(({ at }) => ({ at: at && { ...at, setUp } }));

async function importOne({ file, projectId, whereFrom }: Wanted, signal: AbortSignal): Promise<void> {
  const { made, problems } = useImport.getState();
  try {
    const picture = await storePicture(file, signal);
    const setup = { signal, onProgress: setUpTo };
    const first = { source: whereFrom };
    const { id } = await makeTileOf(picture, await projectId(), baseName(file.name), first, setup);
    useImport.setState({ made: [...made, id] });
  } catch (error) {
    if (signal.aborted) return;
    useImport.setState({ problems: [...problems, { name: file.name, words: wordsOf(error) }] });
  }
}

/** Imports what is queued, one file after the other. `onMade` is called after each. */
async function run(onMade: () => void): Promise<void> {
  const stop = new AbortController();
  running = stop;
  useImport.setState({ problems: [], made: [], isCancelled: false });
  addEventListener('beforeunload', asksBeforeLeaving);
  for (let index = 1; !stop.signal.aborted; index++) {
    const next = queue.shift();
    if (!next) break;
    useImport.setState({ at: { name: next.file.name, index, of: index + queue.length } });
    await importOne(next, stop.signal);
    onMade();
  }
  removeEventListener('beforeunload', asksBeforeLeaving);
  running = null;
  useImport.setState({ at: null });
  // Files that were dropped while a cancelled import was still ending.
  if (queue.length > 0) await run(onMade);
}

/**
 * Takes dropped files in: photos become a tile each, one after the other; pictures whose names make them a set wait until it is
 * known what each is. Resolves with the tile of a picture that was imported alone, null otherwise.
 */
export async function importFiles(
  files: File[],
  projectId: ProjectOf,
  onMade: () => void,
): Promise<string | null> {
  const pictures = files.length > 1 ? files.filter(mayBePicture) : files;
  const named = setsOf(pictures);
  const asked = named.filter((one) => one.files.length > 1);
  const single = named.filter((one) => one.files.length === 1).map((one) => one.files[0].file);
  if (pictures.length === 0 && files.length > 0) {
    const words = 'None of these files is a PNG, JPEG, WebP, TIFF or OpenEXR picture.';
    useImport.setState({ problems: [{ name: `${files.length} files`, words }] });
  }
  if (asked.length > 0) {
    const { sets } = useImport.getState();
    useImport.setState({ sets: [...sets, ...asked.map((set) => ({ set, projectId }))] });
  }
  if (single.length === 0) return null;
  const whereFrom = useWhereFrom.getState();
  queue.push(...single.map((file) => ({ file, projectId, whereFrom })));
  const { at } = useImport.getState();
  if (at) useImport.setState({ at: { ...at, of: at.index + queue.length } });
  if (running) return null;
  await run(onMade);
  const { made, sets } = useImport.getState();
  return single.length === 1 && made.length === 1 && sets.length === 0 ? made[0] : null;
}

/** Cancels the import: tiles that are made stay, the file under way and those behind it are left. */
export function cancelImport(): void {
  queue = [];
  useImport.setState({ isCancelled: true });
  running?.abort();
}

/** The first of the sets that wait has been answered. */
export function endSet(): void {
  const { sets } = useImport.getState();
  useImport.setState({ sets: sets.slice(1) });
}
