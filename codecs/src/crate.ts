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
  // Two files at a time are encoded, in threads of the codec.
  const encoding: Promise<Uint8Array>[] = [];
  const begin = (k: number) => {
    if (k >= files.length) return;
    encoding[k] = encodePng(files[k]);
    // It may fail while an earlier one is awaited; it is heard when its turn comes.
    encoding[k].catch(() => {});
  };
  begin(0);
  for (const [k, file] of files.entries()) {
    begin(k + 1);
    const bytes = await encoding[k];
    delete encoding[k];
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
