import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** What every built room holds besides its own sources. */
const BELOW = ['.', '../../core/src', '../../crates/src'].map((path) =>
  fileURLToPath(new URL(path, import.meta.url)),
);

/** Where the entry of a room lies once `scripts/built.mjs` has made it. */
export const builtEntry = (room) => join(room, 'dist', 'main.mjs');

/** Whether a room is built, and of the sources as they stand. */
export function isBuilt(room, below = BELOW) {
  const built = builtEntry(room);
  if (!existsSync(built)) return false;
  const { mtimeMs } = statSync(built);
  const isOlder = (path) => statSync(path).mtimeMs <= mtimeMs;
  // A folder is as new as what was put in it or removed last.
  return [join(room, 'src'), ...below].every((folder) =>
    ['.', ...readdirSync(folder, { recursive: true })].every((name) => isOlder(join(folder, name))),
  );
}
