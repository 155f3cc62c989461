import { existsSync } from 'node:fs';
import { basename } from 'node:path';
import { readFacts, sha256Of } from '@zesty-tile/codecs';
import { type LightDirection, type PictureRef, Problem } from '@zesty-tile/core';
import { readInput } from './read.ts';

/** More shots of the surface in a photo, and where the light of each comes from, the photo's own first. */
export interface ShotFiles {
  shots: PictureRef[];
  directions: (LightDirection | null)[];
  files: Map<string, Uint8Array>;
}

const NUMBER = /^-?\d+(\.\d+)?$/;

/** A file, and the direction of its light where one is written after an @. A file that is called so is meant itself. */
function partsOf(written: string): { path: string; direction: LightDirection | null } {
  const at = written.lastIndexOf('@');
  if (at <= 0 || existsSync(written)) return { path: written, direction: null };
  const parts = written.slice(at + 1).split(',');
  const [azimuth, height] = parts.map(Number);
  if (parts.length !== 2 || !parts.every((part) => NUMBER.test(part.trim())) || height < 5 || height > 90) {
    throw new Problem(
      'bad_shot',
      `--shot takes <file>@<azimuth>,<height>, not “${written}”: azimuth in degrees clockwise from the top, height 5 to 90.`,
      'Write for example shot.jpg@120,40, or the file alone.',
    );
  }
  return { path: written.slice(0, at), direction: { azimuth: ((azimuth % 360) + 360) % 360, height } };
}

/**
 * Reads `--shot <file>@<azimuth>,<height>`; the photo itself may be among them, to say where its light comes from.
 * @throws Problem where one cannot be read, or differs from the photo in size.
 */
export async function readShots(
  written: readonly string[],
  photo: { sha256: string; width: number; height: number },
): Promise<ShotFiles> {
  const found: ShotFiles = { shots: [], directions: [null], files: new Map() };
  for (const one of written) {
    const { path, direction } = partsOf(one);
    const bytes = await readInput(path);
    const sha256 = sha256Of(bytes);
    if (sha256 === photo.sha256) {
      found.directions[0] = direction;
      continue;
    }
    const { width, height } = await readFacts(bytes);
    if (width !== photo.width || height !== photo.height) {
      throw new Problem(
        'bad_shot',
        `The shot ${basename(path)} is ${width} × ${height}, the picture ${photo.width} × ${photo.height}: they are not of one camera.`,
        'Give shots of the same size, turned the same way.',
      );
    }
    found.files.set(sha256, bytes);
    found.shots.push({ sha256, width, height, name: basename(path) });
    found.directions.push(direction);
  }
  return found;
}
