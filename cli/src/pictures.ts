import { readdir, stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { isGivenMap, Problem, roleOf, safeName, setsOf } from '@zesty-tile/core';

/** A picture to bake, and maps found beside it by their names, as `--role` takes them. */
export interface Wanted {
  path: string;
  roles: string[];
  name: string;
}

const READ = ['.png', '.jpg', '.jpeg', '.webp', '.tif', '.tiff', '.exr'];

/** The pictures of a folder, maps brought to their colour by their names. @throws Problem where there are none. */
async function inFolder(folder: string): Promise<Wanted[]> {
  const names = (await readdir(folder)).filter((name) => READ.includes(extname(name).toLowerCase())).sort();
  const wanted = setsOf(names.map((name) => ({ name }))).map(({ stem, files }): Wanted => {
    const paths = files.map(({ file }) => file.name);
    const maps = paths.filter((name) => isGivenMap(roleOf(name).role));
    const colour = files.length > 1 ? paths.find((name) => !maps.includes(name)) : paths[0];
    if (!colour) {
      throw new Problem(
        'no_colour',
        `The maps of “${stem}” in ${basename(folder)} have no colour beside them.`,
        'Put the colour in the folder too, or take the maps out.',
      );
    }
    const roles = maps
      .filter((name) => name !== colour)
      .map((name) => `${roleOf(name).role}=${join(folder, name)}`);
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
