import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { Problem } from '@zesty-tile/core';

/** A file's bytes. @throws Problem that says which file and why. */
export async function readInput(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'it is a folder'
          : `it cannot be read (${code})`;
    throw new Problem('no_file', `${basename(path)}: ${why}.`, 'Check the path.');
  }
}

/** A JSON file. @throws Problem where it is missing or not JSON. */
export async function readJson(path: string): Promise<unknown> {
  const bytes = await readInput(path);
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    throw new Problem(
      'not_json',
      `${basename(path)} is not JSON (${(error as Error).message}).`,
      'Correct it there, or export the recipe again.',
    );
  }
}

/** A recipe's JSON; that of a crate where its manifest is given. */
export async function readRecipe(path: string): Promise<unknown> {
  const value = await readJson(path);
  const isManifest = typeof value === 'object' && value !== null && 'recipe' in value && 'files' in value;
  return isManifest ? value.recipe : value;
}
