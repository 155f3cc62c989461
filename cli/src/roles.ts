import { existsSync } from 'node:fs';
import { basename } from 'node:path';
import { decodePicture, readFacts, sha256Of } from '@zesty-tile/codecs';
import {
  codesRaster,
  GIVEN_MAPS,
  type GivenMap,
  type GivenRefs,
  greenOf,
  isOnePlane,
  isSameShape,
  type PictureRef,
  Problem,
} from '@zesty-tile/core';
import { readInput } from './read.ts';

/** Pictures that tile by themselves and need not show what the photo shows. */
const OWN = ['detail', 'grey'] as const;
type OwnPicture = (typeof OWN)[number];

export interface GivenFiles {
  given: GivenRefs;
  /** A detail normal for Relief, a grey map for Finish. */
  own: Partial<Record<OwnPicture, PictureRef>>;
  files: Map<string, Uint8Array>;
  /** Where the green of a given normal map points, as far as it can be determined. */
  green: 'up' | 'down' | null;
}

const CHANNELS = ['r', 'g', 'b', 'a'];

/** A path that may name one channel of the picture at its end: `packed.png#g`. A file that is called so is meant itself. */
function placeOf(written: string): { path: string; channel: number | null } {
  const [, path, letter] = /^(.+)#([rgba])$/.exec(written) ?? [];
  if (!path || existsSync(written)) return { path: written, channel: null };
  return { path, channel: CHANNELS.indexOf(letter) };
}

async function greenIn(bytes: Uint8Array): Promise<'up' | 'down' | null> {
  const { isNormal, points } = greenOf(codesRaster(await decodePicture(bytes), 3));
  if (isNormal) return points;
  throw new Problem(
    'bad_role',
    'The normal is no normal map: its colours are no directions.',
    'Give a normal map, or give this file as height.',
  );
}

/**
 * Reads `--role <map>=<file>` pairs, a file’s channel with `#r`, `#g`, `#b` or `#a` after it: which map is given, the files' bytes by their SHA-256, and
 * what the normal says of its green.
 * @throws Problem where a map cannot be given, or a picture does not show what the photo shows.
 */
export async function readRoles(
  pairs: string[],
  photo: { width: number; height: number },
): Promise<GivenFiles> {
  const given: GivenRefs = {};
  const own: GivenFiles['own'] = {};
  const files = new Map<string, Uint8Array>();
  let green: GivenFiles['green'] = null;
  for (const pair of pairs) {
    const at = pair.indexOf('=');
    const role = pair.slice(0, Math.max(0, at));
    const map = role as GivenMap;
    const isOwn = (OWN as readonly string[]).includes(role);
    if (!isOwn && !GIVEN_MAPS.includes(map)) {
      throw new Problem(
        'bad_role',
        `--role takes <map>=<file> with one of ${[...GIVEN_MAPS, ...OWN].join(', ')}, not “${pair}”.`,
        'The albedo comes from the picture itself.',
      );
    }
    const { path, channel } = placeOf(pair.slice(at + 1));
    if (channel !== null && (isOwn || !isOnePlane(map))) {
      throw new Problem(
        'bad_role',
        `The ${role} has three channels and cannot be taken from one, as “${pair}” asks.`,
        'Give the file without a channel.',
      );
    }
    const bytes = await readInput(path);
    const { width, height } = await readFacts(bytes);
    if (!isOwn && !isSameShape({ width, height }, photo)) {
      throw new Problem(
        'bad_role',
        `The ${map} is ${width} × ${height}, the picture ${photo.width} × ${photo.height}: they cannot show the same view.`,
        'Give a map of the same shape as the picture.',
      );
    }
    const sha256 = sha256Of(bytes);
    files.set(sha256, bytes);
    const ref = { sha256, width, height, name: basename(path) };
    if (isOwn) {
      own[role as OwnPicture] = ref;
      continue;
    }
    given[map] = channel === null ? ref : { ...ref, channel: channel as 0 | 1 | 2 | 3 };
    if (map === 'normal') green = await greenIn(bytes);
  }
  return { given, own, files, green };
}
