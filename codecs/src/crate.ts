import {
  type CrateFile,
  type Evaluation,
  type Format,
  filesWithout,
  type Manifest,
  type MapName,
  manifestOf,
  type Profile,
  type SourceRef,
} from '@zesty-tile/core';
import { encodeFile } from './encode.ts';
import { sha256Of } from './hash.ts';
import { readBack } from './read-back.ts';

/** One file of a crate, encoded. */
export interface EncodedFile {
  name: string;
  bytes: Uint8Array;
  sha256: string;
}

export const manifestName = (name: string): string => `${name}.tile.json`;

const EXTENSIONS: Record<Format, string> = { png: 'png', tiff: 'tif', jpeg: 'jpg', webp: 'webp', tga: 'tga' };

const pictureName = (name: string, { ending, format }: Pick<CrateFile, 'ending' | 'format'>): string =>
  `${name}_${ending}.${EXTENSIONS[format]}`;

/** Names of the files that a crate will have, the manifest last; `missing` are maps that the tile has not. */
export function crateFileNames(name: string, profile: Profile, missing: readonly MapName[]): string[] {
  return [...filesWithout(profile, missing).map((file) => pictureName(name, file)), manifestName(name)];
}

/**
 * Encodes every file of an evaluation's crate, the manifest last. `store` is handed each as soon as it
 * is ready, so that a large set need not lie in memory at once.
 */
export async function encodeCrate(
  evaluation: Evaluation,
  name: string,
  source: SourceRef & { file: string },
  store: (file: EncodedFile) => Promise<void>,
): Promise<Manifest> {
  const files = evaluation.outputs.crate?.files ?? [];
  const written = [];
  // Two files at a time are encoded, in threads of the codec.
  const encoding: Promise<Uint8Array>[] = [];
  const begin = (k: number) => {
    if (k >= files.length) return;
    encoding[k] = encodeFile(files[k]);
    // It may fail while an earlier one is awaited; it is heard when its turn comes.
    encoding[k].catch(() => {});
  };
  begin(0);
  for (const [k, file] of files.entries()) {
    begin(k + 1);
    const bytes = await encoding[k];
    delete encoding[k];
    const { most, mean } = await readBack(file, bytes);
    const sha256 = sha256Of(bytes);
    const fileName = pictureName(name, file);
    await store({ name: fileName, bytes, sha256 });
    written.push({ file, name: fileName, sha256, readBack: { most, mean } });
  }
  const manifest = manifestOf(name, source, evaluation, written);
  const bytes = new TextEncoder().encode(`${JSON.stringify(manifest, null, 2)}\n`);
  await store({ name: manifestName(name), bytes, sha256: sha256Of(bytes) });
  return manifest;
}
