import { readFacts, sha256Of } from '@zesty-tile/codecs';
import { GIVEN_MAPS, type GivenMap, type GivenRefs, Problem } from '@zesty-tile/core';
import { readInput } from './read.ts';

const SHAPE_SLACK = 0.01;

/**
 * Reads `--role <map>=<file>` pairs: which map is given, and the file's bytes by their SHA-256.
 * @throws Problem where a map cannot be given, or a picture does not show what the photo shows.
 */
export async function readRoles(
  pairs: string[],
  photo: { width: number; height: number },
): Promise<{ given: GivenRefs; files: Map<string, Uint8Array> }> {
  const given: GivenRefs = {};
  const files = new Map<string, Uint8Array>();
  for (const pair of pairs) {
    const at = pair.indexOf('=');
    const map = pair.slice(0, Math.max(0, at)) as GivenMap;
    if (!GIVEN_MAPS.includes(map)) {
      throw new Problem(
        'bad_role',
        `--role takes <map>=<file> with one of ${GIVEN_MAPS.join(', ')}, not “${pair}”.`,
        'The albedo comes from the picture itself, metallic and specular from finish.line and finish.metal.',
      );
    }
    const bytes = await readInput(pair.slice(at + 1));
    const { width, height } = await readFacts(bytes);
    if (Math.abs((width / height) * (photo.height / photo.width) - 1) > SHAPE_SLACK) {
      throw new Problem(
        'bad_role',
        `The ${map} is ${width} × ${height}, the picture ${photo.width} × ${photo.height}: they cannot show the same view.`,
        'Give a map of the same shape as the picture.',
      );
    }
    const sha256 = sha256Of(bytes);
    files.set(sha256, bytes);
    given[map] = { sha256, width, height };
  }
  return { given, files };
}
