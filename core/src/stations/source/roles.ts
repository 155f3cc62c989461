import { GIVEN_MAPS, type GivenMap } from '../../tile/given.ts';

/** What a picture of a set may be: the colour, a map that is taken, or one that is known but not taken. */
export const ROLES = ['colour', ...GIVEN_MAPS] as const;
export type Role = (typeof ROLES)[number];

/** Common endings of file names. All lower case, without marks between words. */
const ENDINGS: Record<Role, string[]> = {
  colour: [
    'albedo',
    'basecolor',
    'basecolour',
    'color',
    'colour',
    'col',
    'colr',
    'diffuse',
    'diff',
    'dif',
    'bc',
    'alb',
    'photo',
  ],
  normal: ['normal', 'normals', 'normalmap', 'nrm', 'norm', 'nor', 'nml', 'nmap'],
  height: ['height', 'heightmap', 'displacement', 'disp', 'displ', 'bump', 'hgt', 'depth'],
  occlusion: ['occlusion', 'ao', 'occ', 'ambientocclusion', 'ambient'],
  cavity: ['cavity', 'cav', 'curvature', 'curv'],
  roughness: ['roughness', 'rough', 'rgh', 'roughn'],
  gloss: ['gloss', 'glossiness', 'smoothness', 'smooth', 'gls'],
  metallic: ['metallic', 'metalness', 'metal', 'mtl', 'met'],
  specular: ['specular', 'spec', 'specularcolor', 'specularcolour'],
  opacity: ['opacity', 'alpha', 'mask', 'opac', 'transparency', 'cutout'],
  emission: ['emission', 'emissive', 'emit', 'glow'],
};

/** Endings that mean one thing here and another there. */
const DOUBTFUL: Record<string, Role | null> = {
  n: 'normal',
  h: 'height',
  r: 'roughness',
  g: 'gloss',
  d: null,
  a: null,
  c: 'colour',
  m: null,
  s: null,
  o: 'opacity',
  b: null,
  curvature: 'cavity',
  curv: 'cavity',
  mask: 'opacity',
  depth: 'height',
  smooth: 'gloss',
  rough: 'roughness',
  ambient: 'occlusion',
};

/** Maps that sets hold but that are not taken as given. */
const NOT_TAKEN = ['orm', 'arm', 'rma', 'mra'];

/** Ways of saying where the green of a normal map points, after its ending. */
const GREEN: Record<string, 'up' | 'down'> = {
  gl: 'up',
  ogl: 'up',
  opengl: 'up',
  dx: 'down',
  directx: 'down',
  d3d: 'down',
};

/** Words that stand after the ending and say nothing of the role: sizes, bits, versions. */
const ASIDE = /^(\d+k?|\d+x\d+|\d+bit|v\d+|lod\d+|tile|seamless|raw|srgb|linear|map|tex)$/;

export interface RoleRead {
  /** Null where the name tells nothing, or a map that is not taken. */
  role: Role | null;
  /** False where the ending is used for more than one thing, or there is none: then one has to ask. */
  isSure: boolean;
  /** The name without its ending and what stands after it: alike for all pictures of a set. */
  stem: string;
  /** Where the name says the green of a normal map points. */
  green: 'up' | 'down' | null;
  /** The known map that is not taken, as the name has it. */
  notTaken: string | null;
}

/** Parts of a name: at marks, and where a small letter meets a capital. */
function partsOf(name: string): string[] {
  return name
    .replace(/\.[^.]*$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .split(/[\s_.\-()[\]]+/)
    .filter(Boolean)
    .map((part) => part.toLowerCase());
}

const ROLE_OF = new Map(ROLES.flatMap((role) => ENDINGS[role].map((ending) => [ending, role] as const)));

/** The role a picture's file name speaks of, by its ending; several spellings of each are known. */
export function roleOf(fileName: string): RoleRead {
  const parts = partsOf(fileName);
  let green: RoleRead['green'] = null;
  let end = parts.length;
  while (end > 1) {
    const part = parts[end - 1];
    if (GREEN[part]) green = GREEN[part];
    else if (!ASIDE.test(part)) break;
    end--;
  }
  const stemOf = (length: number) => parts.slice(0, Math.max(1, length)).join(' ');
  // Two parts may be one word: “base color”, “ambient occlusion”.
  for (const length of [2, 1]) {
    if (end - length < (length === 2 ? 0 : 1) || end < length) continue;
    const word = parts.slice(end - length, end).join('');
    const stem = stemOf(end - length);
    if (NOT_TAKEN.includes(word)) return { role: null, isSure: true, stem, green: null, notTaken: word };
    if (length === 1 && word in DOUBTFUL) {
      const role = DOUBTFUL[word];
      return { role, isSure: false, stem, green: role === 'normal' ? green : null, notTaken: null };
    }
    const role = ROLE_OF.get(word);
    if (role) return { role, isSure: true, stem, green: role === 'normal' ? green : null, notTaken: null };
  }
  return { role: null, isSure: false, stem: stemOf(parts.length), green: null, notTaken: null };
}

/** Files of one set, by what their names begin with. */
export interface NamedSet<F> {
  stem: string;
  files: { file: F; read: RoleRead }[];
}

/**
 * Files brought together into sets by their names: those with one stem of which at least one is plainly a map
 * beside a colour. All others stand alone, each in a set of its own.
 */
export function setsOf<F extends { name: string }>(files: F[]): NamedSet<F>[] {
  const byStem = new Map<string, NamedSet<F>>();
  for (const file of files) {
    const read = roleOf(file.name);
    const known = byStem.get(read.stem);
    if (known) known.files.push({ file, read });
    else byStem.set(read.stem, { stem: read.stem, files: [{ file, read }] });
  }
  return [...byStem.values()].flatMap((set) => {
    const maps = set.files.filter(({ read }) => read.notTaken || (read.role && read.role !== 'colour'));
    if (set.files.length > 1 && maps.length > 0) return [set];
    return set.files.map((one) => ({ stem: one.read.stem, files: [one] }));
  });
}

export const isGivenMap = (role: Role | null): role is GivenMap => role !== null && role !== 'colour';
