import * as v from 'valibot';
import { MAP_NAMES, MAPS, type MapName, planesOf } from '../../maps/maps.ts';

/** Formats of a crate's files, and the bits a channel may have in each. */
export const FORMAT_BITS = {
  png: [8, 16],
  tiff: [8, 16],
  jpeg: [8],
  webp: [8],
  tga: [8],
  /** Half and whole floats, linear. */
  exr: [16, 32],
  /** Without compression, with every mip. */
  ktx2: [8, 16],
} as const;
export type Format = keyof typeof FORMAT_BITS;
export const FORMATS = Object.keys(FORMAT_BITS) as Format[];

/** Documents that a crate's pictures may be exported in or with. */
export const DOCUMENTS = ['none', 'gltf', 'materialx'] as const;

const mapChannel = v.strictObject({
  map: v.picklist(MAP_NAMES, `refers to an unknown map; it is one of ${MAP_NAMES.join(', ')}`),
  /** Which of its planes: red, green, blue of a colour; x, y, z of the normal. */
  plane: v.picklist([0, 1, 2], 'is one of 0, 1, 2'),
  /** 1 − value. */
  turned: v.boolean(),
});
const valueChannel = v.strictObject({
  value: v.pipe(v.number(), v.minValue(0, 'is at least 0'), v.maxValue(1, 'is at most 1')),
});
/** What is in one channel: a plane of a map, or one value all over. */
export type Channel = v.InferOutput<typeof mapChannel> | v.InferOutput<typeof valueChannel>;

const fileSchema = v.strictObject({
  ending: v.pipe(
    v.string(),
    v.regex(
      /^[\p{L}\p{N}][\p{L}\p{N}.-]*$/u,
      'holds letters, digits, dots and dashes, and starts with a letter or digit',
    ),
    v.maxLength(40, 'has at most 40 characters'),
  ),
  format: v.picklist(FORMATS, `is one of ${FORMATS.join(', ')}`),
  bits: v.picklist([8, 16, 32], 'is 8, 16 or 32'),
  kind: v.picklist(['colour', 'data'], 'is colour or data'),
  channels: v.pipe(
    v.array(
      v.union([mapChannel, valueChannel], 'holds a plane of a map that there is, or one value from 0 to 1'),
    ),
    v.minLength(1, 'hold at least one'),
    v.maxLength(4, 'are at most four'),
  ),
  /** Longest edge in pixels; 0 as the tile. */
  size: v.picklist([0, 64, 128, 256, 512, 1024, 2048, 4096, 8192], 'is 0 or a power of two from 64 to 8192'),
  /** Detail finer than this is smoothed out. */
  softMm: v.pipe(v.number(), v.minValue(0, 'is at least 0'), v.maxValue(100, 'is at most 100')),
  /** Where a normal's green points; as the recipe has it, or turned to that. */
  green: v.picklist(['recipe', 'up', 'down'], 'is recipe, up or down'),
  /** How much of the occlusion is multiplied into a colour, 0…1. */
  occlusion: v.pipe(v.number(), v.minValue(0, 'is at least 0'), v.maxValue(1, 'is at most 1')),
});
/** One file of a profile. */
export type ProfileFile = v.InferOutput<typeof fileSchema>;

export const profileSchema = v.strictObject({
  name: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'is not empty'),
    v.maxLength(60, 'has at most 60 characters'),
  ),
  files: v.pipe(v.array(fileSchema), v.minLength(1, 'hold at least one'), v.maxLength(24, 'are at most 24')),
  /** A document that holds the pictures (gltf), or names them (materialx). */
  document: v.optional(v.picklist(DOCUMENTS, `is one of ${DOCUMENTS.join(', ')}`), 'none'),
});
/** Which files are exported and what is in each channel of each, as data. */
export type Profile = v.InferOutput<typeof profileSchema>;

/** Whether a channel holds a plane of a map as it is. */
export const holds = (channel: Channel | undefined, map: MapName, plane = 0): boolean =>
  channel !== undefined &&
  'map' in channel &&
  channel.map === map &&
  channel.plane === plane &&
  !channel.turned;

/** Whether a file begins with the three planes of a map, in order. */
export const holdsWhole = ({ channels }: Pick<ProfileFile, 'channels'>, map: MapName): boolean =>
  channels.length >= 3 && channels.slice(0, 3).every((channel, k) => holds(channel, map, k));

const inGltf: [words: string, fits: (file: ProfileFile) => boolean][] = [
  ['the albedo in red, green, blue (opacity in alpha, if any)', (file) => holdsWhole(file, 'albedo')],
  ['the normal, with green up', (file) => holdsWhole(file, 'normal') && file.green === 'up'],
  [
    'roughness in green and metallic in blue (occlusion in red, if any)',
    ({ channels }) => holds(channels[1], 'roughness') && holds(channels[2], 'metallic'),
  ],
  ['the emission in red, green, blue', (file) => holdsWhole(file, 'emission')],
  ['the dielectric’s F0 in red, green, blue', (file) => holdsWhole(file, 'dielectric')],
];

/** What a glTF cannot hold, in words. */
function gltfProblems(files: ProfileFile[]): string[] {
  const found: string[] = [];
  for (const file of files) {
    if (file.format !== 'png' && file.format !== 'jpeg')
      found.push(`“${file.ending}”: a glTF holds png or jpeg, not ${file.format}.`);
    if (file.bits !== 8) found.push(`“${file.ending}”: a glTF’s pictures have 8 bits.`);
    if (!inGltf.some(([, fits]) => fits(file)))
      found.push(`“${file.ending}”: a glTF’s files hold ${inGltf.map(([words]) => words).join('; or ')}.`);
  }
  for (const [words, fits] of inGltf.slice(0, 3))
    if (!files.some(fits)) found.push(`A glTF needs a file with ${words}.`);
  return found;
}

const CHANNEL_WORDS = ['red', 'green', 'blue', 'alpha'];

/** What a file's format cannot hold, in words. */
function formatProblems({ ending, format, bits, kind, channels }: ProfileFile): string[] {
  const found: string[] = [];
  if (!(FORMAT_BITS[format] as readonly number[]).includes(bits))
    found.push(`“${ending}”: ${format} has ${FORMAT_BITS[format].join(' or ')} bits, not ${bits}.`);
  if (format === 'tiff' && kind === 'colour' && bits === 16)
    found.push(`“${ending}”: 16-bit TIFF cannot carry an sRGB profile; choose png, or 8 bits.`);
  if (format === 'ktx2' && kind === 'colour' && bits === 16)
    found.push(`“${ending}”: ktx2 has no sRGB of 16 bits; choose 8 bits.`);
  if (channels.length === 2) found.push(`“${ending}”: a file has one, three or four channels, not two.`);
  if (channels.length === 4 && format === 'jpeg') found.push(`“${ending}”: jpeg has no fourth channel.`);
  if (channels.length === 1 && format === 'webp') found.push(`“${ending}”: webp has three or four channels.`);
  for (const [k, channel] of channels.entries()) {
    if (!('map' in channel)) continue;
    if (channel.plane >= planesOf(channel.map))
      found.push(`“${ending}”, ${CHANNEL_WORDS[k]}: ${channel.map} has one plane, 0.`);
    if (kind === 'colour' && k < 3 && MAPS[channel.map].kind === 'data')
      found.push(
        `“${ending}”, ${CHANNEL_WORDS[k]}: ${channel.map} is data; a colour file holds colours, and data in its alpha alone.`,
      );
  }
  return found;
}

/** What is wrong with a value that should be a profile, one sentence each; empty where nothing is. */
export function profileProblems(value: unknown): string[] {
  const read = v.safeParse(profileSchema, value);
  if (!read.success) {
    return read.issues.map((issue) => {
      const path = v.getDotPath(issue);
      return `${path ? `“${path}” ` : ''}${issue.message}.`;
    });
  }
  const found: string[] = [];
  const endings = new Set<string>();
  for (const file of read.output.files) {
    // Names differ on every system only if they differ in more than their case.
    const key = file.ending.normalize('NFC').toLowerCase();
    if (endings.has(key))
      found.push(`Two files are called “${file.ending}”; give one of them another ending.`);
    endings.add(key);
    found.push(...formatProblems(file));
  }
  if (read.output.document === 'gltf') found.push(...gltfProblems(read.output.files));
  return found;
}
