import type { OtherTile } from '@zesty-tile/core';
import { Hono } from 'hono';
import type { Blobs } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import type { Pool } from '../pool/pool.ts';
import { newestRevision } from '../store/revisions.ts';
import { givenSources, sourceRow, storeSource } from '../store/sources.ts';
import { tileRow } from '../store/tiles.ts';

/** A finished tile as pictures in the store, so that a coat of another tile can be made of it. */
export const finishedRoutes = (db: Database, blobs: Blobs, pool: Pool) =>
  new Hono().post('/:id/maps', async (c) => {
    const row = await tileRow(db, c.req.param('id'));
    const { recipe, number } = await newestRevision(db, row.id);
    const picture = await sourceRow(db, row.sourceSha256);
    const made = await pool.maps({
      source: { ...picture, path: blobs.path(picture.sha256) },
      given: givenSources(blobs, recipe),
      recipe,
    });
    const maps: OtherTile['maps'] = {};
    for (const [name, bytes] of Object.entries(made.maps)) {
      const { sha256, width, height } = await storeSource(db, blobs, pool, bytes);
      maps[name as keyof typeof maps] = { sha256, width, height };
    }
    const { edgeMetres } = recipe.stations.square;
    const other: OtherTile = {
      tileId: row.id,
      name: row.name,
      revision: number,
      edgeMetres,
      depthMm: made.depthMm,
      maps,
    };
    return c.json({ other }, 201);
  });
