import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));

/** The command line in one file, as `scripts/cli.mjs` makes it, and what it is made of. */
const BUILT = at('../dist/main.js');
const SOURCES = ['../src', '../../codecs/src', '../../core/src'].map(at);

/** Whether the command line is made, and of the sources as they stand. */
export function isBuilt(built = BUILT, sources = SOURCES) {
  if (!existsSync(built)) return false;
  const { mtimeMs } = statSync(built);
  const isOlder = (path) => statSync(path).mtimeMs <= mtimeMs;
  // A folder is as new as what was put in it or taken out last.
  return sources.every((folder) =>
    ['.', ...readdirSync(folder, { recursive: true })].every((name) => isOlder(join(folder, name))),
  );
}
