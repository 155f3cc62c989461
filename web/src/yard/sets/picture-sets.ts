import { isGivenMap, isSameShape, type NamedSet, type Role } from '@zesty-tile/core';
import type { FirstSettings } from '../../api/first-recipe.ts';
import { baseName, makeTileOf, type StoredPicture, storePicture } from '../../api/upload.ts';
import type { WhereFrom } from '../../stations/source/where-from.tsx';

/** A picture of a dropped set: what it is taken for, once that is known. */
export interface SetMember {
  file: string;
  /** Null while it is read, or where it was refused. */
  picture: StoredPicture | null;
  refused: string | null;
  /** Null while nobody has said. */
  role: Role | 'none' | null;
  /** Why one has to look at it. */
  doubt: string | null;
}

export interface PictureSet {
  name: string;
  members: SetMember[];
  green: 'up' | 'down' | null;
}

/** What a dropped set looks like before its pictures are read. */
export function setOf({ stem, files }: NamedSet<File>): PictureSet {
  const members = files.map(({ file, read }): SetMember => {
    const { role, isSure, notTaken } = read;
    const common = { file: file.name, picture: null, refused: null };
    if (notTaken) return { ...common, role: 'none', doubt: `${notTaken} is not taken from a file` };
    if (role && isSure) return { ...common, role, doubt: null };
    const doubt = role ? `ambiguous suffix: ${role} or another map` : 'map type unknown';
    return { ...common, role: null, doubt };
  });
  const green = files.find(({ read }) => read.green)?.read.green ?? null;
  const name = stem.replace(/^./, (first) => first.toUpperCase());
  return { name, members, green };
}

/** Reads one picture into the store. */
export async function readMember(file: File): Promise<Pick<SetMember, 'picture' | 'refused'>> {
  try {
    return { picture: await storePicture(file), refused: null };
  } catch (error) {
    const { message } = error as Error;
    return { picture: null, refused: message };
  }
}

/** Why a set cannot be made into a tile yet, one plain line each. */
export function problemsOf({ members }: PictureSet): string[] {
  const problems: string[] = [];
  const taken = members.filter(({ role, refused }) => role !== 'none' && !refused);
  for (const { file, role } of taken) if (role === null) problems.push(`Choose a map type for ${file}.`);
  const colours = taken.filter(({ role }) => role === 'colour');
  if (colours.length === 0) problems.push('Choose the picture that is the colour: a tile is made from it.');
  const roles = taken.flatMap(({ role }) => (role ? [role] : []));
  const twice = roles.find((role, k) => roles.indexOf(role) !== k);
  if (twice) problems.push(`Two pictures are taken for the ${twice}: leave one out.`);
  const colour = colours[0]?.picture;
  for (const { picture, file, role } of taken) {
    if (!colour || !picture || role === 'colour' || role === null) continue;
    if (!isSameShape(picture, colour)) {
      problems.push(
        `${file} is ${picture.width} × ${picture.height}, the colour ${colour.width} × ${colour.height}: they cannot show the same view. Leave it out.`,
      );
    }
  }
  return problems;
}

/** Makes the tile of a set that has no problems. */
export async function makeTileOfSet(
  set: PictureSet,
  whereFrom: WhereFrom,
  projectId: string,
  setup: { onProgress(done: number): void },
) {
  const colour = set.members.find(({ role }) => role === 'colour')?.picture;
  if (!colour) throw new Error('A set without a colour was taken.');
  const given = Object.fromEntries(
    set.members.flatMap(({ role, picture }) =>
      picture && role !== 'none' && isGivenMap(role) ? [[role, picture]] : [],
    ),
  );
  const first: FirstSettings = {
    source: { given, ...whereFrom, ...(set.green ? { givenGreen: set.green } : {}) },
  };
  return makeTileOf(colour, projectId, set.name || baseName(colour.name), first, setup);
}
