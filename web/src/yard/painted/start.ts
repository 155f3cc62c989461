import {
  type Coat,
  type CoatOutput,
  type CoatPart,
  type GivenRefs,
  newCoat,
  newOutput,
  newPart,
  roleOf,
} from '@zesty-tile/core';
import { storePicture } from '../../api/upload.ts';

/** A pattern that a tile starts from. */
export type StartPattern = CoatPart & { by: 'pattern' };

export const firstPattern = (): StartPattern => ({
  ...(newPart('pattern') as StartPattern),
  kind: 'running',
  across: 4,
  down: 8,
  jointMm: 10,
  bevelMm: 6,
});

const coat = (id: string, name: string, parts: CoatPart[], outputs: CoatOutput[]): Coat =>
  newCoat({ id, name, parts, outputs });

/** The coat of a pattern: its faces in a colour of their own, each a little lighter or darker, standing above the joints. */
export const patternCoats = (pattern: StartPattern, faceHex: string, heightMm: number): Coat[] => [
  coat(
    'coat-1',
    'Pattern',
    [pattern],
    [
      newOutput('constant', { channel: 'colour', colour: faceHex }),
      newOutput('ramp', {
        channel: 'colour',
        driver: 'part',
        part: 1,
        plane: 'value',
        blend: 'soft-light',
        strength: 0.35,
        stops: [
          { at: 0, colour: '#5a5a5a', value: 0.35 },
          { at: 1, colour: '#a6a6a6', value: 0.65 },
        ],
      }),
      newOutput('ramp', {
        channel: 'height',
        driver: 'part',
        part: 1,
        plane: 'profile',
        lowMm: 0,
        highMm: heightMm,
      }),
    ],
  ),
];

/** Coats that colour a tile by the maps that were supplied with it: a ramp along its hollows, darker where little light comes. */
export function bakedCoats(given: GivenRefs, hex: string): Coat[] {
  const along = (driver: 'cavity' | 'height') =>
    newOutput('ramp', {
      channel: 'colour',
      driver,
      blend: 'soft-light',
      kind: 'smooth',
      stops: [
        { at: 0.2, colour: '#2e2a26', value: 0.2 },
        { at: 0.5, colour: '#808080', value: 0.5 },
        { at: 0.8, colour: '#d8d2c8', value: 0.8 },
      ],
    });
  const shaded = newOutput('ramp', {
    channel: 'colour',
    driver: 'occlusion',
    blend: 'multiply',
    stops: [
      { at: 0, colour: '#6d635a', value: 0.4 },
      { at: 1, colour: '#ffffff', value: 1 },
    ],
  });
  return [
    coat('coat-1', 'Base colour', [], [newOutput('constant', { channel: 'colour', colour: hex })]),
    coat('coat-2', 'Hollows and edges', [], [along(given.height && !given.cavity ? 'height' : 'cavity')]),
    ...(given.occlusion ? [coat('coat-3', 'Shade', [], [shaded])] : []),
  ];
}

/** Maps out of files, by what they are called. */
export interface BakedMaps {
  given: GivenRefs;
  /** Sides of the maps. */
  width: number;
  height: number;
  /** The stored picture of one of them, in place of a photo that there is none of. */
  files: string[];
}

/**
 * Stores the maps that are among some files.
 * @throws Error in words where none is known by its name, or they have not one size.
 */
export async function takeMaps(files: readonly File[]): Promise<BakedMaps> {
  const known = files.flatMap((file) => {
    const { role } = roleOf(file.name);
    return role && role !== 'colour' ? [{ file, role }] : [];
  });
  if (known.length === 0) {
    throw new Error(
      'None of these files is known as a map by its name. Name them after what they are, such as pot_height.png or pot_ao.png.',
    );
  }
  const given: Record<string, object> = {};
  let sides: { width: number; height: number } | null = null;
  for (const { file, role } of known) {
    const { sha256, width, height, name } = await storePicture(file);
    sides ??= { width, height };
    if (width !== sides.width || height !== sides.height) {
      throw new Error(
        `${file.name} has ${width} × ${height} px, another ${sides.width} × ${sides.height}. Bake all maps at one size.`,
      );
    }
    given[role] = { sha256, width, height, name };
  }
  if (sides!.width !== sides!.height) {
    throw new Error(
      `The maps have ${sides!.width} × ${sides!.height} px. Bake them square, for a tile that is.`,
    );
  }
  return { given: given as GivenRefs, ...sides!, files: known.map(({ file }) => file.name) };
}
