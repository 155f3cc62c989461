import { type GivenRefs, newRecipe, parseRecipe, type Recipe, UNCHANGED } from '@zesty-tile/core';
import type { Manifest } from '@zesty-tile/crates';
import type { Blobs } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import { inserted } from '../db/taken.ts';
import type { Pool } from '../pool/pool.ts';
import { addRevision, newestNumber } from '../store/revisions.ts';
import { storeSource } from '../store/sources.ts';
import { anyTileRow, makeTile, tileRow } from '../store/tiles.ts';
import type { CrateJob } from './states.ts';

/** Makes the recipe of a crate the newest of its tile: those before it stay. Gives the tile. */
export async function openRecipe(db: Database, tileId: string, manifest: Manifest): Promise<string> {
  const row = await tileRow(db, tileId);
  const recipe = parseRecipe(manifest.recipe);
  await inserted(async () => {
    const number = await newestNumber(db, row.id);
    await addRevision(db, row.id, number + 1, recipe);
  });
  return row.id;
}

/** A recipe that leaves a set as it is: it tiles already, and its values are calibrated. */
function recipeOf(manifest: Manifest, given: GivenRefs, givenGreen: 'up' | 'down'): Recipe {
  const { square, join, relief, source } = parseRecipe(manifest.recipe).stations;
  const plain = newRecipe();
  const { stations } = plain;
  const { size, shape, edgeMetres } = square;
  return parseRecipe({
    ...plain,
    stations: {
      ...stations,
      source: {
        ...stations.source,
        given,
        givenGreen,
        origin: source.origin,
        licence: source.licence,
      },
      square: { ...stations.square, ...UNCHANGED.square, size, shape, edgeMetres },
      even: { ...stations.even, ...UNCHANGED.even },
      join: { ...stations.join, ...UNCHANGED.join, axes: join.axes },
      gauge: { ...stations.gauge, ...UNCHANGED.gauge },
      relief: { ...stations.relief, depthMm: relief.depthMm, normalY: relief.normalY },
    },
  });
}

/** Makes a new tile of the maps in a crate's files, beside the one they came from. Gives the tile. */
export async function openSet(
  db: Database,
  blobs: Blobs,
  pool: Pool,
  job: CrateJob,
  manifest: Manifest,
  folder: string,
): Promise<string> {
  const row = await anyTileRow(db, job.tileId);
  const { colour, of, given, green } = await pool.set({ manifest, folder });
  const store = (bytes: Uint8Array) => storeSource(db, blobs, pool, bytes);
  const base = await store(colour);
  const refs: GivenRefs = {};
  for (const [map, bytes] of Object.entries(given) as [keyof GivenRefs, Uint8Array][]) {
    const { sha256, width, height } = await store(bytes);
    refs[map] = { sha256, width, height, name: `${job.name} ${job.number} ${map}` };
  }
  const name = `${row.name.slice(0, 100)}, crate ${job.number}`;
  const sourceName = `${job.name} ${job.number} ${of}`;
  const made = await makeTile(
    db,
    { projectId: row.projectId, name, sourceSha256: base.sha256, sourceName },
    recipeOf(manifest, refs, green),
  );
  return made.id;
}
