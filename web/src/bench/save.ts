import { detachSheets, keyOf, type Recipe, type Sheet } from '@zesty-tile/core';
import { create } from 'zustand';
import { ApiError, api } from '../api/client.ts';
import { dropDraft, keepDraft, readDraft } from './draft.ts';
import { useBench } from './state.ts';

type SaveState =
  | { kind: 'saved'; at: Date | null }
  | { kind: 'changed' }
  | { kind: 'saving' }
  | { kind: 'away' }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; newest: number };

export const useSave = create<{ state: SaveState }>(() => ({ state: { kind: 'saved', at: null } }));

const PAUSE_MS = 700;
const AGAIN_MS = 3000;

/** Sheets of strokes of the open tile that the server holds. */
let held = new Map<string, Sheet>();

let saved = '';
let savedAt: Date | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> | null = null;

const setState = (state: SaveState) => useSave.setState({ state });
/** What counts as a change: the settings. Decisions follow from them and ride along. */
const essence = ({ seed, masks, stations }: Recipe) => keyOf([seed, masks, stations]);

/** Whether two recipes are the same work. */
export const isSameWork = (a: Recipe, b: Recipe): boolean => essence(a) === essence(b);

/** Tells the saver which recipe the server holds, and from which sheets of strokes it was read. */
export function startSaving(recipe: Recipe): void {
  clearTimeout(timer);
  held = detachSheets(recipe).sheets;
  saved = essence(recipe);
  savedAt = null;
  setState({ kind: 'saved', at: null });
}

export const isUnsaved = (): boolean => essence(useBench.getState().recipe) !== saved;

/** What was changed was taken back before it was saved: there is nothing left to save. */
function backToSaved(): void {
  if (useSave.getState().state.kind !== 'changed') return;
  clearTimeout(timer);
  dropDraft(useBench.getState().tileId);
  setState({ kind: 'saved', at: savedAt });
}

/** Called on every change of the recipe: keeps a draft at once, saves after a short pause. */
export function recipeChanged(): void {
  if (!isUnsaved()) {
    backToSaved();
    return;
  }
  const { tileId, base, recipe } = useBench.getState();
  // Decisions follow from the settings, and are large.
  keepDraft(tileId, { base, recipe: { ...recipe, decisions: {} } }, (hash) => held.has(hash));
  const { state } = useSave.getState();
  if (state.kind === 'conflict') return;
  if (state.kind !== 'away') setState({ kind: 'changed' });
  clearTimeout(timer);
  timer = setTimeout(() => void saveNow(), PAUSE_MS);
}

/** Saves a recipe without strokes on sheets that are held already. */
async function post(
  tileId: string,
  base: number,
  recipe: Recipe,
  heldThen: ReadonlyMap<string, Sheet>,
): Promise<number> {
  const { stored, sheets } = detachSheets(recipe);
  const fresh = Object.fromEntries([...sheets].filter(([hash]) => !heldThen.has(hash)));
  let response: Response;
  try {
    response = await api.tiles[':id'].revisions.$post({
      param: { id: tileId },
      json: { base, recipe: stored, sheets: fresh },
    } as never);
  } catch {
    throw new ApiError('away', 'The server does not answer.', 'See that it runs.');
  }
  const answer = await response.json();
  if (response.status === 409) throw new Conflict(answer.newest);
  // Versions that an earlier program stored hold their strokes themselves, without sheets.
  if (answer.error?.code === 'sheets_missing' && heldThen.size > 0) {
    return post(tileId, base, recipe, new Map());
  }
  if (!response.ok) throw new ApiError(answer.error.code, answer.error.message, answer.error.hint);
  return answer.revision.number;
}

class Conflict extends Error {
  readonly newest: number;

  constructor(newest: number) {
    super('The tile was changed elsewhere.');
    this.newest = newest;
  }
}

/** True while the Bench still holds the tile: a late answer must not touch the next one. */
const isOpen = (tileId: string) => useBench.getState().tileId === tileId;

/** The draft of a tile that was left before its save was answered; the server holds these sheets of it. */
function settleDraft(
  tileId: string,
  saidRecipe: Recipe,
  number: number,
  sheets: ReadonlyMap<string, Sheet>,
): void {
  const draft = readDraft(tileId, (hash) => sheets.get(hash));
  if (!draft) return;
  if (essence(draft.recipe) === essence(saidRecipe)) dropDraft(tileId);
  else keepDraft(tileId, { base: number, recipe: draft.recipe }, (hash) => sheets.has(hash));
}

function tell(error: unknown): void {
  if (error instanceof Conflict) setState({ kind: 'conflict', newest: error.newest });
  else if (error instanceof ApiError && error.code === 'away') {
    setState({ kind: 'away' });
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), AGAIN_MS);
  } else {
    const message = error instanceof ApiError ? `${error.message} ${error.hint}` : String(error);
    setState({ kind: 'refused', message });
  }
}

async function save(): Promise<void> {
  const { tileId, base, recipe } = useBench.getState();
  const heldThen = held;
  setState({ kind: 'saving' });
  try {
    const number = await post(tileId, base, recipe, heldThen);
    for (const [hash, sheet] of detachSheets(recipe).sheets) heldThen.set(hash, sheet);
    if (!isOpen(tileId)) {
      settleDraft(tileId, recipe, number, heldThen);
      return;
    }
    saved = essence(recipe);
    savedAt = new Date();
    useBench.setState({ base: number });
    if (isUnsaved()) recipeChanged();
    else {
      dropDraft(tileId);
      setState({ kind: 'saved', at: savedAt });
    }
  } catch (error) {
    // What could not be saved is in the draft, and is offered when the tile is opened again.
    if (isOpen(tileId)) tell(error);
  }
}

/** Saves what is unsaved, one request at a time. Resolves when the try has ended. */
export async function saveNow(): Promise<void> {
  clearTimeout(timer);
  while (saving) await saving;
  if (!isUnsaved()) return;
  saving = save().finally(() => {
    saving = null;
  });
  await saving;
}

/** After a conflict: what is in use goes on top of the other version, which stays in the list of revisions. */
export async function saveOnTop(newest: number): Promise<void> {
  useBench.setState({ base: newest });
  setState({ kind: 'changed' });
  await saveNow();
}
