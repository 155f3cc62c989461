import type {
  CrateFile,
  CrateNaming,
  Evaluation,
  GivenMap,
  Recipe,
  SourceRef,
  Verdict,
} from '@zesty-tile/core';
import { adviceOf, isEncoded } from '@zesty-tile/core';

export const MANIFEST_VERSION = 1;

export interface ManifestFile {
  file: string;
  maps: string[];
  /** What is in each channel: `albedo.r`, `1 − roughness`, `0.5`. */
  contents: string[];
  format: string;
  kind: 'colour' | 'data';
  encoding: 'sRGB' | 'linear';
  channels: number;
  bits: number;
  /** Where the green of a normal in it points; null where it holds none. */
  normalY: '+Y' | '-Y' | null;
  width: number;
  height: number;
  sha256: string;
  /** The document that holds it, where it is no file of its own. */
  inside: string | null;
  /** How far the file, decoded again, lies from what was meant, in codes of its bits. */
  readBack: { most: number; mean: number };
}

/** `<name>.tile.json`: everything one needs to know to use a crate, or to make it again. */
export interface Manifest {
  version: typeof MANIFEST_VERSION;
  name: string;
  /** Number of the crate. */
  crate: number;
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
  /** What is exported beside or around the pictures: documents, a custom text. */
  texts: { file: string; sha256: string }[];
  recipe: Recipe;
}

/** A picture that has been written, and how. */
export interface ManifestPicture extends Pick<ManifestFile, 'sha256' | 'inside' | 'readBack'> {
  file: CrateFile;
  name: string;
}

/** The manifest of an evaluation whose files have been written with these names and hashes. */
export function manifestOf(
  { tile: name, crate: number }: CrateNaming,
  source: SourceRef & { file: string },
  evaluation: Evaluation,
  written: readonly ManifestPicture[],
  texts: readonly { name: string; sha256: string }[],
): Manifest {
  const { recipe, frame } = evaluation;
  const surface = evaluation.surface!;
  const { depthMm, metallic, f0 } = surface;
  const { crate } = recipe.stations;
  const { given, origin, licence } = recipe.stations.source;
  return {
    version: MANIFEST_VERSION,
    name,
    crate: number,
    profile: crate.profile === 'own' ? (crate.ownProfile?.name ?? 'own') : crate.profile,
    size: frame.size,
    edgeMetres: frame.edgeMetres,
    reliefMm: depthMm,
    reliefShare: depthMm / 1000 / frame.edgeMetres,
    conventions: {
      normalY: frame.green > 0 ? '+Y' : '-Y',
      roughness: 'perceptual; GGX alpha = roughness squared',
      specular: 'F0 colour of metal and all else, sRGB encoded',
      cavity: 'signed; 0.5 is flat, hollows are dark',
    },
    metallic: typeof metallic === 'number' && !surface.isF0Whole ? metallic : null,
    f0: Array.isArray(f0) ? f0 : null,
    source: {
      sha256: source.sha256,
      width: source.width,
      height: source.height,
      file: source.file,
      origin,
      licence,
    },
    given: Object.fromEntries(Object.entries(given).map(([map, ref]) => [map, ref?.sha256])),
    verdicts: Object.fromEntries(
      Object.entries(evaluation.verdicts).map(([station, { remedies = [], ...verdict }]) => [
        station,
        { ...verdict, advice: adviceOf({ ...verdict, remedies }) },
      ]),
    ),
    files: written.map(({ file, name: fileName, sha256, inside, readBack }) => ({
      file: fileName,
      maps: file.maps,
      contents: file.contents,
      format: file.format,
      kind: file.kind,
      encoding: isEncoded(file) ? 'sRGB' : 'linear',
      channels: file.channels,
      bits: file.bits,
      normalY: file.green === null ? null : file.green > 0 ? '+Y' : '-Y',
      width: file.width,
      height: file.height,
      sha256,
      inside,
      readBack,
    })),
    texts: texts.map(({ name: file, sha256 }) => ({ file, sha256 })),
    recipe,
  };
}
