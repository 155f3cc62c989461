import { MAPS, type MapName, planesOf } from '../../maps/maps.ts';
import type { Channel, Profile, ProfileFile } from './profile.ts';

export const PROFILE_NAMES = [
  'separate',
  'packed',
  'specular-gloss',
  'normal-gloss',
  'two-maps',
  'gltf',
  'materialx',
] as const;
export type ProfileName = (typeof PROFILE_NAMES)[number];

/** Every plane of a map, in order. */
const whole = (map: MapName): Channel[] =>
  ([0, 1, 2] as const).slice(0, planesOf(map)).map((plane) => ({ map, plane, turned: false }));

const file = (ending: string, channels: Channel[], more: Partial<ProfileFile> = {}): ProfileFile => ({
  ending,
  format: 'png',
  bits: 8,
  kind: 'map' in channels[0] ? MAPS[channels[0].map].kind : 'data',
  channels,
  size: 0,
  softMm: 0,
  green: 'recipe',
  occlusion: 0,
  ...more,
});

/** A map as a file of its own. */
const alone = (map: MapName, more: Partial<ProfileFile> = {}): ProfileFile => file(map, whole(map), more);
const grey = (map: MapName): Channel => ({ map, plane: 0, turned: false });

const height = alone('height', { bits: 16 });
const tail = [alone('specular'), alone('cavity'), alone('opacity'), alone('emission'), height];

/** The built-in profiles, each with its files in the order they are written. */
export const PROFILES: Record<ProfileName, Profile> = {
  separate: {
    name: 'Separate maps',
    files: [
      alone('albedo'),
      alone('normal'),
      alone('occlusion'),
      alone('roughness'),
      alone('metallic'),
      ...tail,
    ],
    document: 'none',
  },
  packed: {
    name: 'Packed occlusion, roughness, metallic',
    files: [
      alone('albedo'),
      alone('normal'),
      file('occlusion-roughness-metallic', [grey('occlusion'), grey('roughness'), grey('metallic')]),
      ...tail,
    ],
    document: 'none',
  },
  'specular-gloss': {
    name: 'Diffuse, specular, gloss',
    files: [
      alone('diffuse'),
      alone('specular'),
      alone('gloss'),
      alone('normal'),
      alone('occlusion'),
      ...tail.filter(({ ending }) => ending !== 'specular'),
    ],
    document: 'none',
  },
  'normal-gloss': {
    name: 'Gloss in the normal’s alpha',
    files: [
      alone('diffuse'),
      alone('specular'),
      file('normal-gloss', [...whole('normal'), grey('gloss')]),
      alone('occlusion'),
      ...tail.filter(({ ending }) => ending !== 'specular'),
    ],
    document: 'none',
  },
  'two-maps': {
    name: 'Colour with occlusion in it, and normal',
    files: [file('colour', [...whole('albedo'), grey('opacity')], { occlusion: 0.5 }), alone('normal')],
    document: 'none',
  },
  gltf: {
    name: 'glTF binary, tile on a slab',
    files: [
      file('colour', [...whole('albedo'), grey('opacity')]),
      alone('normal', { green: 'up' }),
      file('occlusion-roughness-metallic', [grey('occlusion'), grey('roughness'), grey('metallic')]),
      alone('emission'),
      alone('dielectric'),
    ],
    document: 'gltf',
  },
  materialx: {
    name: 'MaterialX with its pictures',
    files: [
      alone('albedo'),
      alone('normal', { green: 'up' }),
      alone('roughness'),
      alone('metallic'),
      alone('occlusion'),
      alone('opacity'),
      alone('emission'),
      alone('dielectric'),
      height,
    ],
    document: 'materialx',
  },
};

/** Maps that a file reads, each once, in the order of its channels; occlusion too where it is in the colour. */
export function mapsOf({ channels, occlusion }: ProfileFile): MapName[] {
  const maps = channels.flatMap((channel) => ('map' in channel ? [channel.map] : []));
  return [...new Set([...maps, ...(occlusion > 0 ? (['occlusion'] as const) : [])])];
}

/** What is in each channel, briefly: `albedo.r`, `1 − roughness`, `0.5`. */
export const contentsOf = ({ channels }: ProfileFile): string[] =>
  channels.map((channel) => {
    if (!('map' in channel)) return String(channel.value);
    const { map, plane, turned } = channel;
    const part = planesOf(map) === 1 ? map : `${map}.${(map === 'normal' ? 'xyz' : 'rgb')[plane]}`;
    return turned ? `1 − ${part}` : part;
  });

/**
 * The files of a profile that a tile without some maps has: what would hold nothing else is left out, and an
 * alpha that there is none for is 1 all over; so is occlusion that would be in a colour.
 */
export function filesWithout(profile: Profile, missing: readonly MapName[]): ProfileFile[] {
  const isMissing = (channel: Channel) => 'map' in channel && missing.includes(channel.map);
  return profile.files.flatMap((one) => {
    if (one.channels.slice(0, 3).some(isMissing)) return [];
    const hasAlpha = one.channels[3] !== undefined && !isMissing(one.channels[3]);
    const channels = hasAlpha ? one.channels : one.channels.slice(0, 3);
    return [{ ...one, channels, occlusion: missing.includes('occlusion') ? 0 : one.occlusion }];
  });
}
