import { existsSync, readdirSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
const SOURCES = ['../src', '../../codecs/src', '../../core/src'].map(at);

/** The command line in one file, as `scripts/cli.mjs` makes it. */
export const BUILT = at('../dist/main.js');

/** Whether it is made, and of the sources as they stand. */
export function isBuilt() {
  if (!existsSync(BUILT)) return false;
  const { mtimeMs } = statSync(BUILT);
  return SOURCES.every((folder) =>
    readdirSync(folder, { recursive: true }).every(
      (name) => statSync(`${folder}/${name}`).mtimeMs <= mtimeMs,
    ),
  );
}
