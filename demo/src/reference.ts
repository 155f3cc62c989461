import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { sha256Of, sourceHost, threads } from '@zesty-tile/codecs';
import { assignSetting, contentKey, Engine, parseRecipe, type SourceRef } from '@zesty-tile/core';
import { makeCrate } from '@zesty-tile/crates';
import { demoPicture } from './generate.ts';
import { DEMO_IDS, DEMO_WIDTH, type DemoId } from './sources.ts';

const FOLDER = new URL('../reference/', import.meta.url);
const RECIPES = new URL('recipes/', FOLDER);

/** Where the committed hashes are stored. */
export const REFERENCE_FILE = fileURLToPath(new URL('hashes.json', FOLDER));

/** Longer edges, in pixels, at which every case is baked. */
export const REFERENCE_SIZES = [512, 1024] as const;

/** A recipe on a demo picture, stored in the recipe version it was written in. */
export interface ReferenceCase {
  name: string;
  picture: DemoId;
  recipe: unknown;
}

/** SHA-256 of each file of a crate by its name, and a hash of each station's verdict. */
export interface ReferenceHashes {
  files: Record<string, string>;
  verdicts: Record<string, string>;
}

/** The stored cases: every demo tile, and recipes that between them use every feature. */
export async function referenceCases(): Promise<ReferenceCase[]> {
  const files = (await readdir(RECIPES)).filter((file) => file.endsWith('.json')).sort();
  return Promise.all(
    files.map(async (file) => ({
      name: file.replace(/\.json$/, ''),
      ...JSON.parse(await readFile(new URL(file, RECIPES), 'utf8')),
    })),
  );
}

let pictures: Promise<Map<string, string>> | null = null;

/** Paths of the demo pictures by the SHA-256 of their bytes. */
function demoPictures(): Promise<Map<string, string>> {
  pictures ??= Promise.all(
    DEMO_IDS.map(async (id) => {
      const path = demoPicture(id);
      return [
        createHash('sha256')
          .update(await readFile(path))
          .digest('hex'),
        path,
      ] as const;
    }),
  ).then((entries) => new Map(entries));
  return pictures;
}

async function readPicture({ sha256 }: SourceRef): Promise<Uint8Array> {
  const path = (await demoPictures()).get(sha256);
  if (!path) throw new Error(`No demo picture has the hash ${sha256}; the demo pictures have changed.`);
  return readFile(path);
}

/**
 * Bakes a case at each of some sizes and hashes what comes out. The manifest is not a file to compare: it contains the
 * recipe, whose version may change while the maps do not.
 */
export async function bakeReference(
  { name, picture, recipe: stored }: ReferenceCase,
  sizes: readonly number[] = REFERENCE_SIZES,
): Promise<Record<string, ReferenceHashes>> {
  const recipe = parseRecipe(stored);
  const [sha256] = [...(await demoPictures())].find(([, path]) => path === demoPicture(picture))!;
  const source = { sha256, width: DEMO_WIDTH, height: (DEMO_WIDTH * 3) / 4 };
  const team = threads();
  const engine = new Engine({ ...sourceHost(readPicture), team }, 2 ** 30);
  const bake = async (size: number): Promise<ReferenceHashes> => {
    const files: ReferenceHashes['files'] = {};
    const { manifest } = await makeCrate(
      engine,
      { recipe: assignSetting(recipe, 'square.size', String(size)), source },
      { tile: name, crate: 1 },
      { ...source, file: `limonaia-${picture}.jpg` },
      async (file) => {
        if (!file.name.endsWith('.tile.json')) files[file.name] = sha256Of(file.bytes);
      },
    );
    const verdicts = Object.entries(manifest.verdicts).map(([station, verdict]) => [
      station,
      contentKey(verdict),
    ]);
    return { files, verdicts: Object.fromEntries(verdicts) };
  };
  try {
    const made: Record<string, ReferenceHashes> = {};
    for (const size of sizes) made[`${name} at ${size}`] = await bake(size);
    return made;
  } finally {
    await team.end();
  }
}
