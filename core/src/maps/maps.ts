/** What a map is, whatever tile it is of. */
interface MapFacts {
  title: string;
  /** Colour is exported through the sRGB curve; data never is. */
  kind: 'colour' | 'data';
  planes: 1 | 3;
  /** The station after which it is complete. */
  station: 'gauge' | 'relief' | 'finish';
}

const colour = (title: string, station: MapFacts['station'] = 'finish'): MapFacts => ({
  title,
  kind: 'colour',
  planes: 3,
  station,
});
const data = (title: string, station: MapFacts['station'] = 'finish'): MapFacts => ({
  title,
  kind: 'data',
  planes: 1,
  station,
});

/** Every map a tile has. */
export const MAPS = {
  albedo: colour('Albedo', 'gauge'),
  normal: { ...data('Normal', 'relief'), planes: 3 },
  height: data('Height', 'relief'),
  occlusion: data('Occlusion'),
  cavity: data('Cavity', 'relief'),
  roughness: data('Roughness'),
  gloss: data('Gloss'),
  specular: colour('Specular'),
  metallic: data('Metallic'),
  diffuse: colour('Diffuse'),
  opacity: data('Opacity'),
  emission: colour('Emission'),
  dielectric: colour('F0 of what is no metal'),
} satisfies Record<string, MapFacts>;

export type MapName = keyof typeof MAPS;
export const MAP_NAMES = Object.keys(MAPS) as MapName[];
export const factsOfMap = (map: MapName): MapFacts => MAPS[map];

/** Planes of a map: 3 of colours and normals, else 1. */
export const planesOf = (map: MapName): 1 | 3 => MAPS[map].planes as 1 | 3;
