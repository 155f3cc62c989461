import { readdir, stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { isGivenMap, Problem, type RoleRead, safeName, setsOf } from '@zesty-tile/core';

/** A picture to bake, and maps found beside it by their names, as `--role` takes them. */
export interface Wanted {
  path: string;
  roles: string[];
  name: string;
}

const READ = ['.png', '.jpg', '.jpeg', '.webp', '.tif', '.tiff', '.exr'];

/** What a file of a set holds, as `--role` takes it. */
function rolesIn(path: string, { role, packed }: RoleRead): string[] {
  const whole = isGivenMap(role) ? [`${role}=${path}`] : [];
  const letters = role === null ? 'rgba' : 'a';
  const parts = (packed ?? []).flatMap((map, k) => (map === 'none' ? [] : [`${map}=${path}#${letters[k]}`]));
  return [...whole, ...parts];
}

/** The pictures of a folder, maps brought to their colour by their names. @throws Problem where there are none. */
async function inFolder(folder: string): Promise<Wanted[]> {
  const names = (await readdir(folder)).filter((name) => READ.includes(extname(name).toLowerCase())).sort();
  const wanted = setsOf(names.map((name) => ({ name }))).map(({ stem, files }): Wanted => {
    const isMaps = (read: RoleRead) => isGivenMap(read.role) || (read.packed !== null && read.role === null);
    const found = files.length > 1 ? files.find(({ read }) => !isMaps(read)) : files[0];
    const colour = found?.file.name;
    if (!colour) {
      throw new Problem(
        'no_colour',
        `The maps of “${stem}” in ${basename(folder)} have no colour beside them.`,
        'Put the colour in the folder too, or take the maps out.',
      );
    }
    const roles = files
      .filter((one) => one !== found)
      .flatMap(({ file, read }) => rolesIn(join(folder, file.name), read));
    const name = files.length > 1 ? stem : basename(colour, extname(colour));
    return { path: join(folder, colour), roles, name: safeName(name) };
  });
  if (wanted.length > 0) return wanted;
  throw new Problem(
    'no_pictures',
    `There are no pictures in ${basename(folder)}.`,
    `Give a folder with ${READ.map((one) => one.slice(1)).join(', ')} files.`,
  );
}

/** What is asked for: pictures as they are, folders as the pictures in them. */
export async function wantedOf(paths: readonly string[]): Promise<Wanted[]> {
  const found: Wanted[] = [];
  for (const path of paths) {
    const isFolder = await stat(path).then(
      (about) => about.isDirectory(),
      () => false,
    );
    if (isFolder) found.push(...(await inFolder(path)));
    else found.push({ path, roles: [], name: safeName(basename(path, extname(path))) });
  }
  return found;
}
