import { MOST_SHOTS, setsOf } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';
import { baseName, makeTileOf, storePicture } from '../api/upload.ts';
import { wordsOf } from '../api/words-of.ts';
import { useWhereFrom, type WhereFrom } from '../stations/source/where-from.tsx';
import { type ProjectOf, useImport } from './import-state.ts';
import { type CrateSet, isManifest, setOfCrate } from './sets/crate-facts.ts';
import { isGlb, setOfGlb } from './sets/glb-set.ts';

interface Wanted {
  file: File;
  projectId: ProjectOf;
  whereFrom: WhereFrom;
}

const FEWEST_SHOTS = 3;

let queue: Wanted[] = [];
/** Ends the request under way; null while nothing is imported. */
let running: AbortController | null = null;

/** A file that no picture program would open is left out of a folder without a word. */
const mayBePicture = (file: File) => /\.(png|jpe?g|webp|tiff?|exr)$/i.test(file.name);

/** The folder a file was dropped or chosen in, as a path; empty where it was a file alone. */
const folderOf = (file: File): string => {
  const path = file.webkitRelativePath || (file as File & { path?: string }).path || '';
  return path
    .replace(/^\.?\//, '')
    .split('/')
    .slice(0, -1)
    .join('/');
};

/** What the files say of themselves beyond their names: crates by their manifests, and glTF binary files. */
async function knownSets(files: readonly File[]): Promise<CrateSet[]> {
  const crates = files.filter(isManifest).map((manifest) => {
    const beside = files.filter((file) => folderOf(file) === folderOf(manifest));
    return setOfCrate(manifest, beside);
  });
  const documents = files.filter(isGlb).map(async (file): Promise<CrateSet | null> => {
    const set = await setOfGlb(file);
    return set && { set, facts: null };
  });
  const found = await Promise.all([...crates, ...documents]);
  return found.filter((one) => one !== null);
}

/** A file that a crate holds, whether it could be supplied or not. */
const isInKnown = (file: File, known: readonly CrateSet[]): boolean =>
  known.some(
    ({ set, facts }) =>
      set.files.some((one) => one.file === file) ||
      (facts !== null && folderOf(set.files[0].file) === folderOf(file) && facts.files.includes(file.name)),
  );

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

/** Takes the tiles of a cancelled import away again. */
async function dropMade(onMade: () => void): Promise<void> {
  const { made, problems } = useImport.getState();
  try {
    for (const id of made) await answerOf(api.tiles[':id'].$delete({ param: { id } }));
  } catch (error) {
    useImport.setState({ problems: [...problems, { name: 'Cancelling', words: wordsOf(error) }], made: [] });
  }
  onMade();
}

/** Brings the tiles back that a cancelled import had made before. */
export async function keepMade(onMade: () => void): Promise<void> {
  const { made } = useImport.getState();
  for (const id of made) await answerOf(api.tiles[':id'].restore.$post({ param: { id } }));
  useImport.setState({ made: [], isCancelled: false });
  onMade();
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
  if (stop.signal.aborted) await dropMade(onMade);
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
  const known = await knownSets(files);
  const rest = files.filter((file) => !isManifest(file) && !isInKnown(file, known));
  const isTaken = (file: File) => mayBePicture(file) || isGlb(file);
  const pictures = rest.length > 1 || known.length > 0 ? rest.filter(isTaken) : rest;
  const named = setsOf(pictures, folderOf);
  const asked: CrateSet[] = [
    ...known,
    ...named.filter((one) => one.files.length > 1).map((set) => ({ set, facts: null })),
  ];
  const single = named.filter((one) => one.files.length === 1).map((one) => one.files[0].file);
  if (pictures.length === 0 && asked.length === 0 && files.length > 0) {
    const words = 'None of these files is a PNG, JPEG, WebP, TIFF or OpenEXR picture.';
    useImport.setState({ problems: [{ name: `${files.length} files`, words }] });
  }
  if (asked.length > 0) {
    const { sets } = useImport.getState();
    useImport.setState({ sets: [...sets, ...asked.map((one) => ({ ...one, projectId }))] });
  }
  if (single.length === 0) return null;
  if (await areAskedAbout(single)) {
    useImport.setState({ shots: { files: single, projectId } });
    return null;
  }
  return importSingle(single, projectId, onMade);
}

/** Whether it is to be asked if pictures are shots of one surface. */
async function areAskedAbout(files: readonly File[]): Promise<boolean> {
  if (files.length < FEWEST_SHOTS || files.length > MOST_SHOTS || useImport.getState().shots) return false;
  const { mayBeShots } = await import('./shots/alike.ts');
  return mayBeShots(files);
}

/** The pictures that were asked about become a tile each. */
export function importEach(onMade: () => void): void {
  const { shots } = useImport.getState();
  useImport.setState({ shots: null });
  if (shots) void importSingle(shots.files, shots.projectId, onMade);
}

/** Photos become a tile each. Resolves with the tile of one that was imported alone. */
async function importSingle(
  single: readonly File[],
  projectId: ProjectOf,
  onMade: () => void,
): Promise<string | null> {
  const whereFrom = useWhereFrom.getState();
  queue.push(...single.map((file) => ({ file, projectId, whereFrom })));
  const { at } = useImport.getState();
  if (at) useImport.setState({ at: { ...at, of: at.index + queue.length } });
  if (running) return null;
  await run(onMade);
  const { made, sets } = useImport.getState();
  return single.length === 1 && made.length === 1 && sets.length === 0 ? made[0] : null;
}

/** Cancels the import: nothing of it stays. The tiles made before can be brought back by `keepMade`. */
export function cancelImport(): void {
  queue = [];
  useImport.setState({ isCancelled: true });
  running?.abort();
}

/** The first of the sets that wait has been answered. */
export function endSet(): void {
  const { sets, answered } = useImport.getState();
  useImport.setState({ sets: sets.slice(1), answered: sets.length > 1 ? answered + 1 : 0 });
}
