import type { MapName } from './maps.ts';

export const PROFILE_NAMES = ['separate', 'packed', 'specular-gloss'] as const;
export type ProfileName = (typeof PROFILE_NAMES)[number];

/** One file of a profile. Either one whole map, or one map for each channel. */
export interface ProfileFile {
  /** What stands behind the tile's name. */
  ending: string;
  bits: 8 | 16;
  maps: [MapName] | [MapName, MapName, MapName];
}

const shared: ProfileFile[] = [
  { ending: 'albedo', bits: 8, maps: ['albedo'] },
  { ending: 'normal', bits: 8, maps: ['normal'] },
];

const tail: ProfileFile[] = [
  { ending: 'specular', bits: 8, maps: ['specular'] },
  { ending: 'cavity', bits: 8, maps: ['cavity'] },
  { ending: 'opacity', bits: 8, maps: ['opacity'] },
  { ending: 'height', bits: 16, maps: ['height'] },
];

/** The files of each profile, in the order they are written. */
export const PROFILES: Record<ProfileName, ProfileFile[]> = {
  separate: [
    ...shared,
    { ending: 'occlusion', bits: 8, maps: ['occlusion'] },
    { ending: 'roughness', bits: 8, maps: ['roughness'] },
    { ending: 'metallic', bits: 8, maps: ['metallic'] },
    ...tail,
  ],
  packed: [
    ...shared,
    {
      ending: 'occlusion-roughness-metallic',
      bits: 8,
      maps: ['occlusion', 'roughness', 'metallic'],
    },
    ...tail,
  ],
  'specular-gloss': [
    { ending: 'diffuse', bits: 8, maps: ['diffuse'] },
    { ending: 'specular', bits: 8, maps: ['specular'] },
    { ending: 'gloss', bits: 8, maps: ['gloss'] },
    { ending: 'normal', bits: 8, maps: ['normal'] },
    { ending: 'occlusion', bits: 8, maps: ['occlusion'] },
    ...tail.filter(({ ending }) => ending !== 'specular'),
  ],
};
