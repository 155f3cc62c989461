import type { GivenMap } from '../../tile/given.ts';
import { isGivenMap, ROLES, type Role, type RoleRead } from './roles.ts';

const WIDE: Record<string, Role> = {
  'albedo.r': 'colour',
  'diffuse.r': 'colour',
  'normal.x': 'normal',
  'specular.r': 'specular',
  'emission.r': 'emission',
};
/** What a map is the other way round. */
const TURNED: Record<string, GivenMap> = { roughness: 'gloss', gloss: 'roughness' };

/** The map in one channel, `none` where it holds a value, a part of something, or what cannot be supplied. */
function mapIn(content: string): GivenMap | 'none' {
  const turned = content.match(/^1 − (.*)$/)?.[1];
  const name = turned ? TURNED[turned] : content;
  const role = ROLES.find((one) => one === name) ?? null;
  return isGivenMap(role) ? role : 'none';
}

/**
 * What a picture of a crate is, by the list of its channels in the crate's manifest (`albedo.r`, `1 − roughness`, `0.5`):
 * read like a name, but always sure. Null where nothing in it can be supplied.
 */
export function roleOfContents(contents: readonly string[]): Pick<RoleRead, 'role' | 'packed'> | null {
  const wide = WIDE[contents[0]];
  if (wide) {
    const alpha = contents.length > 3 ? mapIn(contents[3]) : 'none';
    return { role: wide, packed: alpha === 'none' ? null : [alpha] };
  }
  const maps = contents.map(mapIn);
  if (maps.every((map) => map === 'none')) return null;
  return maps.length === 1 && maps[0] !== 'none'
    ? { role: maps[0], packed: null }
    : { role: null, packed: maps };
}
