import type { MapName } from '../../maps/maps.ts';
import { Problem } from '../../problem.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Values } from '../../settings/kinds.ts';
import { type Shape, sidesOf } from '../../tile/shape.ts';
import { hasField, MANIFEST_SUFFIX, MOST_NAME_BYTES, patternName, suffixProblem } from './names.ts';
import type { DOCUMENTS, Format, Profile, ProfileFile } from './profile.ts';
import { filesWithout, PROFILES, type ProfileName } from './profiles.ts';
import type { settings } from './settings.ts';
import { templateNestingProblem } from './template.ts';

export type CrateSettings = Values<typeof settings>;

/** The profile in effect; the dials of the height and the normal set those files of a built-in one. */
export function profileOf(chosen: CrateSettings): Profile {
  if (chosen.profile === 'own') return chosen.ownProfile ?? PROFILES.separate;
  const { files, ...rest } = PROFILES[chosen.profile as ProfileName];
  return {
    ...rest,
    files: files.map((file) => {
      if (file.ending === 'height')
        return { ...file, size: chosen.heightSize as ProfileFile['size'], softMm: chosen.heightSoftMm };
      if (file.ending === 'normal' && rest.document !== 'gltf') return { ...file, bits: chosen.normalBits };
      return file.occlusion > 0 ? { ...file, occlusion: chosen.colourOcclusion } : file;
    }),
  };
}

const EXTENSIONS: Record<Format, string> = {
  png: 'png',
  tiff: 'tif',
  jpeg: 'jpg',
  webp: 'webp',
  tga: 'tga',
  exr: 'exr',
  ktx2: 'ktx2',
};

/** No file of a ladder is smaller. */
const LEAST_EDGE = 16;

/** A picture that will be exported. */
export interface PlannedPicture extends Sides {
  file: ProfileFile;
  /** Place on the ladder, 0 the largest. */
  rung: number;
  name: string;
}

/** Everything that a crate will hold, by name. */
export interface CratePlan {
  pictures: PlannedPicture[];
  /** A document for each rung of the ladder. */
  documents: { kind: Exclude<(typeof DOCUMENTS)[number], 'none'>; rung: number; name: string }[];
  /** The pictures stand inside the documents. */
  isEmbedded: boolean;
  /** The custom text, where there is one. */
  text: string | null;
  manifest: string;
  /** All files that are written, the manifest last. */
  names: string[];
}

/** What a crate is called by: its tile's name, safe on every system, and its number. */
export interface CrateNaming {
  tile: string;
  crate: number;
}

/** Start of the names of all that a crate holds besides its pictures. */
const baseName = (pattern: string, { tile, crate }: CrateNaming): string =>
  hasField(pattern, 'crate') ? `${tile}_${crate}` : tile;

/** Name of a crate's manifest, by the pattern of its file names. */
export const manifestName = (pattern: string, naming: CrateNaming): string =>
  `${baseName(pattern, naming)}.${MANIFEST_SUFFIX}`;

/** Both names that the manifest of a crate may have, where the pattern of its file names is not known. */
export const manifestNames = (naming: CrateNaming): string[] =>
  ['{crate}', ''].map((pattern) => manifestName(pattern, naming));

/** @throws Problem `bad_text` where the text beside the pictures cannot be written. */
function checkText({ text }: CrateSettings): void {
  if (!text) return;
  const problem = suffixProblem(text.ending) ?? templateNestingProblem(text.text);
  if (problem) {
    throw new Problem(
      'bad_text',
      `The text beside the pictures: ${problem}`,
      'Change it at the Crate station.',
    );
  }
}

/** @throws Problem `name_too_long`, `name_clash` where files cannot have these names. */
function checkNames(names: readonly string[]): void {
  const encoder = new TextEncoder();
  const seen = new Set<string>();
  for (const name of names) {
    if (encoder.encode(name).length > MOST_NAME_BYTES) {
      throw new Problem(
        'name_too_long',
        `The file name “${name.slice(0, 40)}…” has more than ${MOST_NAME_BYTES} bytes.`,
        'Shorten the pattern of the names, a suffix in the profile, or the name of the tile.',
      );
    }
    const key = name.normalize('NFC').toLowerCase();
    if (seen.has(key)) {
      throw new Problem(
        'name_clash',
        `Two files of the crate would be called “${name}”.`,
        'Change the pattern of the names, or a suffix in the profile.',
      );
    }
    seen.add(key);
  }
}

/**
 * Names, sizes and places of all files of a crate. `missing` are maps that the tile does not have.
 * @throws Problem `name_clash` where two files would have one name, `name_too_long`, `bad_text`.
 */
export function planCrate(
  chosen: CrateSettings,
  missing: readonly MapName[],
  { size, shape }: { size: number; shape: Shape },
  { tile, crate }: CrateNaming,
): CratePlan {
  checkText(chosen);
  const profile = profileOf(chosen);
  // Where one pattern represents several sizes, they are told apart at its end.
  const isLadder = chosen.ladder > 1;
  const pattern = isLadder && !hasField(chosen.names, 'size') ? `${chosen.names}_{size}` : chosen.names;
  const files = filesWithout(profile, missing);
  const pictures: PlannedPicture[] = [];
  for (let rung = 0; rung < chosen.ladder; rung++) {
    for (const file of files) {
      const edge = (file.size === 0 ? size : Math.min(size, file.size)) / 2 ** rung;
      if (edge < LEAST_EDGE && rung > 0) continue;
      const name = patternName(pattern, { tile, map: file.ending, size: edge, crate });
      pictures.push({
        file,
        rung,
        ...sidesOf(shape, edge),
        name: `${name}.${EXTENSIONS[file.format]}`,
      });
    }
  }
  const base = baseName(chosen.names, { tile, crate });
  const { document } = profile;
  const rungs = [...new Set(pictures.map(({ rung }) => rung))];
  const documents =
    document === 'none'
      ? []
      : rungs.map((rung) => ({
          kind: document,
          rung,
          name: `${base}${isLadder ? `_${size / 2 ** rung}` : ''}.${document === 'gltf' ? 'glb' : 'mtlx'}`,
        }));
  const isEmbedded = document === 'gltf';
  const text = chosen.text ? `${base}.${chosen.text.ending}` : null;
  const manifest = manifestName(chosen.names, { tile, crate });
  const names = [
    ...(isEmbedded ? [] : pictures.map(({ name }) => name)),
    ...documents.map(({ name }) => name),
    ...(text ? [text] : []),
    manifest,
  ];
  checkNames(names);
  return { pictures, documents, isEmbedded, text, manifest, names };
}
