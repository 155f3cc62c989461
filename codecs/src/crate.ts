import {
  type Evaluation,
  type Manifest,
  manifestOf,
  PROFILES,
  type ProfileName,
  type SourceRef,
} from '@zesty-tile/core';
import { encodePng } from './encode.ts';
import { sha256Of } from './hash.ts';

/** One file of a crate, encoded. */
export interface EncodedFile {
  name: string;
  bytes: Uint8Array;
  sha256: string;
}

export const manifestName = (name: string): string => `${name}.tile.json`;

const pictureName = (name: string, ending: string): string => `${name}_${ending}.png`;

/** Names of the files that a crate will have, the manifest last. */
export function crateFileNames(name: string, profile: ProfileName, hasAlpha: boolean): string[] {
  const files = PROFILES[profile].filter((file) => hasAlpha || !file.maps.includes('opacity'));
  return [...files.map((file) => pictureName(name, file.ending)), manifestName(name)];
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
  // The next file is encoded, in threads of the codec, while the one before is hashed and stored.
  let next = files.length > 0 ? encodePng(files[0]) : null;
  for (const [k, file] of files.entries()) {
    const bytes = await next!;
    next = k + 1 < files.length ? encodePng(files[k + 1]) : null;
    // A failure of storing is told first; that of the next encoding must not go unheard meanwhile.
    next?.catch(() => {});
    const sha256 = sha256Of(bytes);
    const fileName = pictureName(name, file.ending);
    await store({ name: fileName, bytes, sha256 });
    written.push({ file, name: fileName, sha256 });
  }
  const manifest = manifestOf(name, source, evaluation, written);
  const bytes = new TextEncoder().encode(`${JSON.stringify(manifest, null, 2)}\n`);
  await store({ name: manifestName(name), bytes, sha256: sha256Of(bytes) });
  return manifest;
}
