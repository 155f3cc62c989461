import { type Evaluation, type Manifest, manifestOf, type SourceRef } from '@zesty-tile/core';
import { encodePng } from './encode.ts';
import { sha256Of } from './hash.ts';

/** One file of a crate, encoded. */
export interface EncodedFile {
  name: string;
  bytes: Uint8Array;
  sha256: string;
}

export const manifestName = (name: string): string => `${name}.tile.json`;

/** File names of an evaluation's crate, the manifest last. */
export function crateFileNames(evaluation: Evaluation, name: string): string[] {
  const files = evaluation.outputs.crate?.files ?? [];
  return [...files.map((file) => `${name}_${file.ending}.png`), manifestName(name)];
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
  const names = crateFileNames(evaluation, name);
  const written = [];
  // The next file is encoded, in threads of the codec, while the one before is hashed and stored.
  let next = files.length > 0 ? encodePng(files[0]) : null;
  for (const [k, file] of files.entries()) {
    const bytes = await next!;
    next = k + 1 < files.length ? encodePng(files[k + 1]) : null;
    // A failure of storing is told first; that of the next encoding must not go unheard meanwhile.
    next?.catch(() => {});
    const sha256 = sha256Of(bytes);
    await store({ name: names[k], bytes, sha256 });
    written.push({ file, name: names[k], sha256 });
  }
  const manifest = manifestOf(name, source, evaluation, written);
  const bytes = new TextEncoder().encode(`${JSON.stringify(manifest, null, 2)}\n`);
  await store({ name: manifestName(name), bytes, sha256: sha256Of(bytes) });
  return manifest;
}
