import { GIVEN_MAPS, type GivenMap } from '../../tile/given.ts';

/** What a picture of a set may be: the colour, or a map that is supplied with it. */
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

/** Short names of packed pictures: what is in red, green and blue. */
const PACKED: Record<string, (GivenMap | 'none')[]> = {
  orm: ['occlusion', 'roughness', 'metallic'],
  arm: ['occlusion', 'roughness', 'metallic'],
  rma: ['roughness', 'metallic', 'occlusion'],
  mra: ['metallic', 'roughness', 'occlusion'],
  mro: ['metallic', 'roughness', 'occlusion'],
  // The two as a glTF packs them: green and blue.
  metallicroughness: ['none', 'roughness', 'metallic'],
};

/** Ways of saying where the green of a normal map points. */
const GREEN: Record<string, 'up' | 'down'> = {
  gl: 'up',
  ogl: 'up',
  opengl: 'up',
  dx: 'down',
  directx: 'down',
  d3d: 'down',
};

/** Words that stand after the ending and say nothing of the role: bits, versions. */
const ASIDE = /^(\d{1,2}bits?|v\d+|lod\d+|tile|tiled|seamless|raw|srgb|linear|map|tex|texture|final)$/;
/** Sizes in pixels: 2k, 2048, 2048x2048, 2048px. */
const SIZE = /^(\d{1,2}k|\d{3,5}x\d{3,5}|\d{3,5}px|256|512|1024|2048|4096|8192|16384)$/;
/** Words that are as often the name of a material as of a map, unless they stand at the end. */
const MATERIALS = ['metal', 'glow', 'bump', 'alpha', 'mask', 'photo', 'ambient', 'rough', 'smooth', 'depth'];
/** Endings that are read without a mark before them have at least so many letters. */
const LEAST_GLUED = 6;
/** Channels a picture has at most. */
const MOST_CHANNELS = 4;

export interface RoleRead {
  /** Null where the name tells nothing, or the picture is packed. */
  role: Role | null;
  /** False where the word is used for more than one thing, or there is none: then one has to ask. */
  isSure: boolean;
  /** The name without its role, sizes and what stands after: alike for all pictures of a set; empty for `normal.png`. */
  stem: string;
  /** Where the name says the green of a normal map points. */
  green: 'up' | 'down' | null;
  /** What is in the channels of a packed picture, from red on; in the alpha alone where `role` is a colour or a normal. */
  packed: (GivenMap | 'none')[] | null;
}

/** Parts of a name: at marks, and where a small letter meets a capital. */
function partsOf(name: string): string[] {
  return name
    .replace(/\.[^.]*$/, '')
    .replace(/([a-z\d])([A-Z][a-z])|([a-z])([A-Z])/g, '$1$3 $2$4')
    .split(/[\s_.\-()[\]~+#,@&=]+/)
    .filter(Boolean)
    .map((part) => part.toLowerCase());
}

const ROLE_OF = new Map(ROLES.flatMap((role) => ENDINGS[role].map((ending) => [ending, role] as const)));
const GLUED = [...ROLE_OF.keys()].filter((ending) => ending.length >= LEAST_GLUED);

const isWide = (role: Role) => role === 'colour' || role === 'normal';

/** The roles that parts name one after the other, up to their end; two parts may be one word: “base color”. */
function rolesUpTo(parts: readonly string[], end: number): { role: Role; from: number }[] {
  const found: { role: Role; from: number }[] = [];
  for (let at = end; at > 0; ) {
    const two = at > 1 ? ROLE_OF.get(parts[at - 2] + parts[at - 1]) : undefined;
    const role = two ?? ROLE_OF.get(parts[at - 1]);
    if (!role || found.some((one) => one.role === role)) break;
    at -= two ? 2 : 1;
    found.unshift({ role, from: at });
  }
  return found;
}

type Found = Omit<RoleRead, 'stem' | 'green'> & { from: number; to: number };

/** A packed picture named by all it holds: “occlusion-roughness-metallic”, “normal-gloss”. */
function packedUpTo(parts: readonly string[], end: number): Found | null {
  const named = rolesUpTo(parts, end);
  for (let first = 0; first < named.length - 1; first++) {
    const [{ role, from }, ...others] = named.slice(first);
    const rest = others.map((one) => one.role);
    if (rest.some((one) => isWide(one) || one === 'specular' || one === 'emission')) continue;
    if (isWide(role) && rest.length === 1)
      return { role, isSure: true, packed: rest as GivenMap[], from, to: end };
    const isData = !isWide(role) && role !== 'specular' && role !== 'emission';
    if (isData && rest.length >= 2 && rest.length < MOST_CHANNELS)
      return { role: null, isSure: true, packed: [role, ...rest] as GivenMap[], from, to: end };
  }
  return null;
}

/** What the one or two parts before `end` name. */
function wordUpTo(parts: readonly string[], end: number): Found | null {
  for (const length of [2, 1]) {
    const from = end - length;
    if (from < 0) continue;
    const word = parts.slice(from, end).join('');
    const place = { from, to: end };
    if (word in PACKED) return { role: null, isSure: true, packed: PACKED[word], ...place };
    if (length === 1 && word in DOUBTFUL && (word.length > 1 || from > 0)) {
      return { role: DOUBTFUL[word], isSure: false, packed: null, ...place };
    }
    const role = ROLE_OF.get(word);
    if (role) return { role, isSure: true, packed: null, ...place };
  }
  return null;
}

/** A role that stands before the name or in the middle of it: “Albedo gate”, “gate normal old”. */
function wordInside(parts: readonly string[], end: number): Found | null {
  const isPlain = ({ role, packed, from, to }: Found) =>
    packed !== null || (role !== null && !MATERIALS.includes(parts.slice(from, to).join('')));
  for (let at = end - 1; at > 0; at--) {
    const found = packedUpTo(parts, at) ?? wordUpTo(parts, at);
    if (found?.isSure && isPlain(found)) return found;
  }
  return null;
}

/** Puts a mark before a role that is glued to the name: “gatealbedo”. */
function unglued(parts: readonly string[], end: number): string[] {
  const last = parts[end - 1] ?? '';
  const ending = GLUED.filter((one) => last.endsWith(one) && last.length > one.length + 2).sort(
    (a, b) => b.length - a.length,
  )[0];
  if (!ending) return [...parts];
  return [...parts.slice(0, end - 1), last.slice(0, -ending.length), ending, ...parts.slice(end)];
}

/**
 * The role a picture's file name speaks of: at its end, else before or inside the name; several spellings of each are
 * known, also of pictures that hold several maps in their channels.
 */
export function roleOf(fileName: string): RoleRead {
  const written = partsOf(fileName);
  const greens = written.map((part) => GREEN[part] ?? null);
  let parts = written.filter((part, k) => greens[k] === null && !SIZE.test(part));
  let end = parts.length;
  // One or two digits are the number of a variant: the set has it too.
  while (end > 1 && (ASIDE.test(parts[end - 1]) || /^\d{1,2}$/.test(parts[end - 1]))) end--;
  const variant = parts.slice(end).filter((part) => /^\d+$/.test(part));
  let found = packedUpTo(parts, end) ?? wordUpTo(parts, end) ?? wordInside(parts, end);
  if (!found) {
    const cut = unglued(parts, end);
    if (cut.length > parts.length) {
      parts = cut;
      end++;
      found = wordUpTo(parts, end);
    }
  }
  if (!found) return { role: null, isSure: false, stem: written.join(' '), green: null, packed: null };
  const { from, to, ...read } = found;
  const before = parts.slice(0, from);
  const after = parts.slice(to, end);
  return {
    ...read,
    stem: [...before, ...after, ...variant].join(' '),
    green: read.role === 'normal' ? (greens.find((green) => green !== null) ?? null) : null,
  };
}

/** Files of one set, by what they are called beside their roles. */
export interface NamedSet<F> {
  /** The name they have in common, or that of their folder. */
  stem: string;
  files: { file: F; read: RoleRead }[];
}

/** Brings files whose names say nothing into the set whose name they begin with: they are one of its maps as a rule. */
function joinStrays<F>(together: Map<string, NamedSet<F>>): void {
  const sets = [...together].filter(([, { files }]) => files.some(({ read }) => isGivenMap(read.role)));
  for (const [key, { files }] of [...together]) {
    if (files.length !== 1 || files[0].read.role !== null || files[0].read.packed) continue;
    const home = sets.find(([of, set]) => set.files.length > 1 && key !== of && key.startsWith(`${of} `));
    if (!home?.[1].stem) continue;
    home[1].files.push(files[0]);
    together.delete(key);
  }
}

/**
 * Files brought together into sets by their names and folders: those with one stem of which at least one is plainly a
 * map, and those called like one of these with a word more. Files called by their roles alone make a set if there is a colour or a normal among them. All others stand
 * alone, each in a set of its own.
 */
export function setsOf<F extends { name: string }>(
  files: F[],
  folderOf: (file: F) => string = () => '',
): NamedSet<F>[] {
  const together = new Map<string, NamedSet<F>>();
  for (const file of files) {
    const read = roleOf(file.name);
    const folder = folderOf(file);
    const key = `${folder}/${read.stem}`;
    const known = together.get(key);
    const stem = read.stem || (folder.split('/').filter(Boolean).at(-1) ?? '');
    if (known) known.files.push({ file, read });
    else together.set(key, { stem, files: [{ file, read }] });
  }
  joinStrays(together);
  return [...together.values()].flatMap((set) => {
    const { files: members } = set;
    const isMap = ({ read }: { read: RoleRead }) => read.packed !== null || isGivenMap(read.role);
    const isNamed = members.some(({ read }) => read.stem !== '');
    const isPlainSet = members.some(({ read }) => read.role === 'colour' || read.role === 'normal');
    if (members.length > 1 && members.some(isMap) && (isNamed || isPlainSet))
      return [{ ...set, stem: set.stem || 'set' }];
    return members.map((one) => ({ stem: one.read.stem, files: [one] }));
  });
}

export const isGivenMap = (role: Role | null): role is GivenMap => role !== null && role !== 'colour';
