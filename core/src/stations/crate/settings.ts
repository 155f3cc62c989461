import * as v from 'valibot';
import { choice, data, group, number } from '../../settings/kinds.ts';
import { patternProblems, USUAL_PATTERN } from './names.ts';
import { type Profile, profileProblems, profileSchema } from './profile.ts';
import { PROFILE_NAMES, PROFILES } from './profiles.ts';
import { templateProblems } from './template.ts';

const GROUPS = {
  ownProfile: group({ id: 'own-profile', title: 'Own profile' }),
  names: group({ id: 'names', title: 'Names' }),
  sizesOfTheirOwn: group({ id: 'sizes-of-their-own', title: 'Per-file sizes', collapsed: true }),
};

/** A custom text that is exported beside the pictures. */
export interface CrateText {
  /** Ending of its file, such as `material.txt`. */
  ending: string;
  /** With fields in double braces. */
  text: string;
}

/** What the ending of a text may be. */
export const TEXT_ENDING = /^[\p{L}\p{N}][\p{L}\p{N}_-]*(\.[\p{L}\p{N}_-]+)*$/u;

const ENDING = v.pipe(
  v.string(),
  v.regex(
    TEXT_ENDING,
    'of the text holds letters, digits, dashes and single dots, and starts with a letter or digit',
  ),
  v.maxLength(40, 'of the text has at most 40 characters'),
);

/** The first thing wrong, said by the check that found it. */
const sound = <T>(problemsOf: (value: T) => string[]) =>
  v.check<T, (issue: v.CheckIssue<T>) => string>(
    (value) => problemsOf(value).length === 0,
    ({ input }) => problemsOf(input)[0] ?? '',
  );

export const settings = {
  profile: choice({
    label: 'Profile',
    help: 'separate: one file a map. packed: occlusion, roughness and metallic in red, green and blue of one file. specular-gloss: diffuse, specular and gloss in place of albedo, metallic and roughness. normal-gloss: the same with gloss in the normal’s alpha. two-maps: colour with occlusion in it, and normal. gltf: one binary glTF with the tile on a slab. materialx: pictures and a document that names them. own: as ownProfile says.',
    default: 'separate',
    options: [...PROFILE_NAMES, 'own'],
    names: [...PROFILE_NAMES.map((name) => PROFILES[name].name), 'Own'],
  }),
  ownProfile: data<Profile | null>({
    label: 'Own profile',
    group: GROUPS.ownProfile,
    help: 'Which files are exported and what each channel holds, where the profile is “own”. Stored whole, so that a recipe stands alone.',
    default: null,
    // A profile that was written without a document has none.
    schema: v.nullable(
      v.pipe(profileSchema, sound<Profile>(profileProblems)),
    ) as v.GenericSchema<Profile | null>,
    example: JSON.stringify({ name: 'Ours', files: [PROFILES.packed.files[2]] }),
    words: (value) => value?.name ?? 'none',
  }),
  names: data<string>({
    label: 'Names of the files',
    group: GROUPS.names,
    help: 'Pattern of the file names: {tile}, {map}, {size} in pixels, {crate} its number. Where several sizes go out and it has no {size}, the size comes last.',
    default: USUAL_PATTERN,
    schema: v.pipe(v.string(), v.trim(), sound(patternProblems)),
    example: '"{tile}_{map}_{size}"',
    words: (value) => value,
  }),
  ladder: choice({
    label: 'Sizes',
    help: 'How many sizes go out together, each half the one before.',
    group: GROUPS.sizesOfTheirOwn,
    default: 1,
    options: [1, 2, 3, 4, 5],
    names: [
      'One',
      'Two: full and half',
      'Three: down to a quarter',
      'Four: down to an eighth',
      'Five: down to a sixteenth',
    ],
  }),
  text: data<CrateText | null>({
    label: 'Text file',
    group: GROUPS.names,
    help: 'A custom text file exported with each crate, its fields in double braces filled in: {{tile}}, {{size}}, {{depthShare}}, {{file.normal}}, or {{#files}}…{{/files}} for each file.',
    default: null,
    schema: v.nullable(
      v.strictObject({
        ending: ENDING,
        text: v.pipe(
          v.string(),
          v.maxLength(20_000, 'has at most 20 000 characters'),
          sound(templateProblems),
        ),
      }),
    ),
    example: '{"ending":"material.txt","text":"albedo {{file.albedo}}"}',
    words: (value) => (value ? `.${value.ending}` : 'none'),
  }),
  colourOcclusion: number({
    label: 'Occlusion in colour',
    help: 'How much of the occlusion is multiplied into the colour of “two-maps”, for renderers that know none.',
    group: GROUPS.sizesOfTheirOwn,
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  normalBits: choice({
    label: 'Normal bits',
    help: 'Bits per channel of the normal map: 16 keep gentle slopes free of steps.',
    group: GROUPS.sizesOfTheirOwn,
    default: 8,
    options: [8, 16],
    names: ['8 bit', '16 bit'],
  }),
  heightSize: choice({
    label: 'Height size',
    help: 'Longer edge of the height file, never above the tile’s own: for parallax a small, soft one looks better.',
    group: GROUPS.sizesOfTheirOwn,
    default: 0,
    options: [0, 2048, 1024, 512, 256, 128],
    names: ['As the tile', '2048 px', '1024 px', '512 px', '256 px', '128 px'],
  }),
  heightSoftMm: number({
    label: 'Height softness',
    help: 'Detail finer than this is smoothed out of the height file; the other maps keep theirs.',
    group: GROUPS.sizesOfTheirOwn,
    default: 0,
    min: 0,
    max: 100,
    step: 0.5,
    unit: 'mm',
  }),
};
