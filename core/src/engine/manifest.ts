import type { SourceRef } from '../pixels.ts';
import type { CrateFile } from '../stations/crate/station.ts';
import type { GivenMap } from '../stations/given.ts';
import type { Verdict } from '../verdict.ts';
import type { Evaluation } from './evaluation.ts';
import type { Recipe } from './recipe.ts';

export const MANIFEST_VERSION = 1;

export interface ManifestFile {
  file: string;
  maps: string[];
  /** What stands in each channel: `albedo.r`, `1 − roughness`, `0.5`. */
  contents: string[];
  format: string;
  kind: 'colour' | 'data';
  encoding: 'sRGB' | 'linear';
  channels: number;
  bits: number;
  width: number;
  height: number;
  sha256: string;
  /** How far the file, decoded again, lies from what was meant, in codes of its bits. */
  readBack: { most: number; mean: number };
}

/** `<name>.tile.json`: everything one needs to know to use a crate, or to make it again. */
export interface Manifest {
  version: typeof MANIFEST_VERSION;
  name: string;
  profile: string;
  size: number;
  edgeMetres: number;
  reliefMm: number;
  /** Depth of the height map as a share of the edge. */
  reliefShare: number;
  conventions: { normalY: '+Y' | '-Y'; roughness: string; specular: string; cavity: string };
  /** Null where it is not one value for the whole tile. */
  metallic: number | null;
  f0: number[] | null;
  source: SourceRef & { file: string; origin: string; licence: string };
  /** SHA-256 of each map that was given instead of derived. */
  given: Partial<Record<GivenMap, string>>;
  verdicts: Record<string, Verdict>;
  files: ManifestFile[];
  recipe: Recipe;
}

/** The manifest of an evaluation whose files have been written with these names and hashes. */
export function manifestOf(
  name: string,
  source: SourceRef & { file: string },
  evaluation: Evaluation,
  written: { file: CrateFile; name: string; sha256: string; readBack: ManifestFile['readBack'] }[],
): Manifest {
  const { recipe, frame, outputs } = evaluation;
  const { relief, crate } = recipe.stations;
  const { finish } = outputs;
  const { given, origin, licence } = recipe.stations.source;
  return {
    version: MANIFEST_VERSION,
    name,
    profile: crate.profile === 'own' ? (crate.ownProfile?.name ?? 'own') : crate.profile,
    size: frame.size,
    edgeMetres: frame.edgeMetres,
    reliefMm: relief.depthMm,
    reliefShare: relief.depthMm / 1000 / frame.edgeMetres,
    conventions: {
      normalY: relief.normalY === 'up' ? '+Y' : '-Y',
      roughness: 'perceptual; GGX alpha = roughness squared',
      specular: 'F0 colour of metal and all else, sRGB encoded',
      cavity: 'signed; 0.5 is flat, hollows are dark',
    },
    metallic: typeof finish?.metallic === 'number' && !finish.isTruth ? finish.metallic : null,
    f0: finish && Array.isArray(finish.f0) ? finish.f0 : null,
    source: {
      sha256: source.sha256,
      width: source.width,
      height: source.height,
      file: source.file,
      origin,
      licence,
    },
    given: Object.fromEntries(Object.entries(given).map(([map, ref]) => [map, ref?.sha256])),
    verdicts: evaluation.verdicts,
    files: written.map(({ file, name: fileName, sha256, readBack }) => ({
      file: fileName,
      maps: file.maps,
      contents: file.contents,
      format: file.format,
      kind: file.kind,
      encoding: file.kind === 'colour' ? 'sRGB' : 'linear',
      channels: file.channels,
      bits: file.bits,
      width: file.width,
      height: file.height,
      sha256,
      readBack,
    })),
    recipe,
  };
}
