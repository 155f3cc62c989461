import {
  type GivenMap,
  type GivenRefs,
  isGivenMap,
  isSameShape,
  type NamedSet,
  type PictureContent,
  type Role,
} from '@zesty-tile/core';
import { contentOf } from '../../api/content.ts';
import type { FirstSettings } from '../../api/first-recipe.ts';
import { baseName, makeTileOf, type StoredPicture, storePicture } from '../../api/upload.ts';
import type { WhereFrom } from './where-from.tsx';

/** What is in one channel of a picture. */
export type ChannelRole = GivenMap | 'none';
/** What a picture of a set is taken for: one thing as a whole, several maps in its channels, or nothing. */
export type MemberRole = Role | 'packed' | 'none';

/** A picture of a dropped set: what it is taken for, once that is known. */
export interface SetMember {
  file: string;
  /** Null while it is read, or where it was refused. */
  picture: StoredPicture | null;
  refused: string | null;
  /** Null while nobody has said. */
  role: MemberRole | null;
  /** What is in each channel of a packed picture; in the alpha alone of a colour or a normal. */
  channels: ChannelRole[];
  /** Why one has to look at it. */
  doubt: string | null;
}

export interface PictureSet {
  name: string;
  members: SetMember[];
  green: 'up' | 'down' | null;
}

/** Where the channels of a role begin that stands beside the picture as a whole: the alpha. */
const ALPHA = 3;
/** What is in red, green and blue where nothing tells. */
const USUAL_PACKING: ChannelRole[] = ['occlusion', 'roughness', 'metallic'];

/** The number of the channel that an entry of `channels` stands for. */
export const channelOf = ({ role }: Pick<SetMember, 'role'>, k: number): number =>
  role === 'packed' ? k : ALPHA + k;

/** What a picture is taken for by its name. */
export function memberOf({ file, read }: NamedSet<File>['files'][number]): SetMember {
  const { role, isSure, packed } = read;
  const common = { file: file.name, picture: null, refused: null, channels: packed ?? [] };
  if (packed && role === null) return { ...common, role: 'packed', doubt: null };
  if (role && isSure) return { ...common, role, doubt: null };
  const doubt = role ? `ambiguous suffix: ${role} or another map` : 'map type unknown';
  return { ...common, role: null, doubt };
}

/** A specular colour says again what colour and metallic say together. */
function withoutSpecular(members: SetMember[]): SetMember[] {
  const hasMetallic = members.some(
    ({ role, channels }) => role === 'metallic' || channels.includes('metallic'),
  );
  if (!hasMetallic) return members;
  return members.map((member) =>
    member.role === 'specular'
      ? { ...member, role: 'none', doubt: 'follows from colour and metallic' }
      : member,
  );
}

/** What a dropped set looks like before its pictures are read. */
export function setOf({ stem, files }: NamedSet<File>): PictureSet {
  const members = withoutSpecular(files.map(memberOf));
  const green = files.find(({ read }) => read.green)?.read.green ?? null;
  const name = stem.replace(/^./, (first) => first.toUpperCase());
  return { name, members, green };
}

/** What is known of a picture by its name, together with what its values say. */
export function judged(member: SetMember, picture: StoredPicture, content: PictureContent): SetMember {
  const { hasAlpha, kind } = content;
  const read = { ...member, picture };
  if (member.role === 'packed') {
    const { channels } = member;
    return { ...read, channels: hasAlpha && channels.length < 4 ? [...channels, 'none'] : channels };
  }
  if (member.role === 'normal' || member.role === 'colour') {
    if (!hasAlpha) return { ...read, channels: [] };
    if (member.channels.length > 0) return read;
    return member.role === 'colour'
      ? { ...read, channels: ['opacity'] }
      : { ...read, channels: ['gloss'], doubt: 'its alpha holds values, gloss as a rule: check it' };
  }
  if (member.role === null && kind === 'packed') {
    const channels: ChannelRole[] = hasAlpha ? [...USUAL_PACKING, 'none'] : USUAL_PACKING;
    return { ...read, role: 'packed', channels, doubt: 'its channels hold different maps: check each' };
  }
  if (member.role === null && kind === 'normal' && member.doubt === 'map type unknown')
    return { ...read, role: 'normal', doubt: 'its values are directions' };
  return read;
}

/** Reads one picture into the store, and what it says it is. */
export async function readMember(
  file: File,
  signal: AbortSignal,
): Promise<{ picture: StoredPicture; content: PictureContent } | { refused: string }> {
  try {
    const picture = await storePicture(file, signal);
    return { picture, content: await contentOf(picture.sha256) };
  } catch (error) {
    const { message } = error as Error;
    return { refused: message };
  }
}

/** Another role for a picture, and the channels that go with it. */
export function withRole(member: SetMember, role: MemberRole): SetMember {
  const channels = role === 'packed' ? (member.channels.length > 1 ? member.channels : USUAL_PACKING) : [];
  return { ...member, role, channels, doubt: null };
}

/** Two pictures with their roles exchanged. */
export function swapped(members: SetMember[], a: number, b: number): SetMember[] {
  const taking = (member: SetMember, { role, channels }: SetMember) => ({
    ...member,
    role,
    channels,
    doubt: null,
  });
  return members.map((member, k) =>
    k === a ? taking(member, members[b]) : k === b ? taking(member, members[a]) : member,
  );
}

/** The maps a picture is taken for. */
const mapsOf = ({ role, channels }: SetMember): Role[] => [
  ...(role && role !== 'packed' && role !== 'none' ? [role] : []),
  ...channels.flatMap((one) => (one === 'none' || role === 'none' ? [] : [one])),
];

/** Why a set cannot be made into a tile yet, one plain line each. */
export function problemsOf({ members }: PictureSet): string[] {
  const problems: string[] = [];
  const taken = members.filter(({ role, refused }) => role !== 'none' && !refused);
  for (const member of taken) {
    if (member.role === null) problems.push(`Choose a map type for ${member.file}.`);
    else if (mapsOf(member).length === 0)
      problems.push(`Choose a map for a channel of ${member.file}, or leave it out.`);
  }
  const colours = taken.filter(({ role }) => role === 'colour');
  if (colours.length === 0) problems.push('Choose the picture that is the colour: a tile is made from it.');
  const roles = taken.flatMap(mapsOf);
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

/** The supplied maps of a set, by what each picture is taken for. */
export function givenOf({ members }: Pick<PictureSet, 'members'>): GivenRefs {
  return Object.fromEntries(
    members.flatMap((member) => {
      const { picture, role, channels } = member;
      if (!picture || role === null || role === 'none') return [];
      const whole = role !== 'packed' && isGivenMap(role) ? [[role, picture] as const] : [];
      const parts = channels.flatMap((map, k) =>
        // The alpha of the colour is its opacity by itself.
        map === 'none' || role === 'colour'
          ? []
          : [[map, { ...picture, channel: channelOf(member, k) as 0 | 1 | 2 | 3 }] as const],
      );
      return [...whole, ...parts];
    }),
  );
}

interface MakeSet {
  whereFrom: WhereFrom;
  projectId: string;
  signal: AbortSignal;
  /** Settings that are known of it, and that stay as they are. */
  first: FirstSettings;
  onProgress(done: number): void;
}

/** Makes the tile of a set that has no problems. */
export async function makeTileOfSet(
  set: PictureSet,
  { whereFrom, projectId, first: known, signal, onProgress }: MakeSet,
) {
  const colour = set.members.find(({ role }) => role === 'colour')?.picture;
  if (!colour) throw new Error('A set without a colour was taken.');
  const first: FirstSettings = {
    ...known,
    source: { given: givenOf(set), ...whereFrom, ...(set.green ? { givenGreen: set.green } : {}) },
  };
  const chosen = Object.entries(known).flatMap(([station, values]) =>
    Object.keys(values ?? {}).map((key) => `${station}.${key}`),
  );
  return makeTileOf(colour, projectId, set.name || baseName(colour.name), first, {
    signal,
    onProgress,
    chosen,
  });
}
