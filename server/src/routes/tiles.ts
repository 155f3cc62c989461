import { newRecipe, Problem, parseRecipe, proposalSchema } from '@zesty-tile/core';
import { eq } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Crates } from '../crates/crates.ts';
import type { Database } from '../db/open.ts';
import { project, tag, tile } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { bodyOf, nameSchema, RECIPE_BODY, tagSchema } from '../input.ts';
import type { Looks } from '../looks.ts';
import { projectRow } from '../store/projects.ts';
import { newestRevision } from '../store/revisions.ts';
import { sourceRow } from '../store/sources.ts';
import { anyTileRow, duplicateTile, listTiles, makeTile, tagsOf, tileRow } from '../store/tiles.ts';

const proposals = v.pipe(v.array(proposalSchema), v.maxLength(50));

const newTileSchema = v.strictObject({
  projectId: v.string(),
  name: nameSchema,
  sourceSha256: v.string(),
  sourceName: nameSchema,
  /** Where it does not start from the defaults. */
  recipe: v.optional(v.unknown()),
  /** What was proposed when it was set up. */
  proposals: v.optional(proposals),
});

const changedTileSchema = v.strictObject({
  name: v.optional(nameSchema),
  projectId: v.optional(v.string()),
  tags: v.optional(v.pipe(v.array(tagSchema), v.maxLength(30, 'A tile has at most 30 tags.'))),
  /** Folder that a renderer watches; null for none. */
  watched: v.optional(v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(1000)))),
  /** What is still to be looked through of the setup; null for nothing. */
  proposals: v.optional(v.nullable(proposals)),
});

export const tileRoutes = (db: Database, crates: Crates, looks: Looks) =>
  new Hono()
    .get('/', async (c) => c.json({ tiles: await listTiles(db, c.req.query('project')) }))
    .post('/', async (c) => {
      const { recipe, ...given } = await bodyOf(c, newTileSchema, RECIPE_BODY);
      const row = await makeTile(db, given, recipe === undefined ? newRecipe() : parseRecipe(recipe));
      return c.json({ tile: row }, 201);
    })
    .get('/:id', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const { number, recipe, createdAt } = await newestRevision(db, row.id);
      const inProject = await db.query.project.findFirst({ where: eq(project.id, row.projectId) });
      return c.json({
        tile: row,
        project: { id: row.projectId, name: inProject?.name ?? '' },
        source: await sourceRow(db, row.sourceSha256),
        revision: { number, recipe: recipe as unknown as Record<string, unknown>, createdAt },
      });
    })
    .patch('/:id', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const { tags, ...values } = await bodyOf(c, changedTileSchema);
      if (values.projectId) await projectRow(db, values.projectId);
      if (values.watched) values.watched = await crates.watchable(values.watched);
      const changed = { name: row.name, ...values };
      const retagged = tags
        ? [db.delete(tag).where(eq(tag.tileId, row.id)), ...tagsOf(db, row.id, tags)]
        : [];
      await db.batch([db.update(tile).set(changed).where(eq(tile.id, row.id)), ...retagged]);
      return c.json({ tile: await tileRow(db, row.id) });
    })
    .post('/:id/duplicate', async (c) => c.json({ tile: await duplicateTile(db, c.req.param('id')) }, 201))
    .route('/', removal(db, tile, 'tile'))
    .get('/:id/look', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const revision = await newestRevision(db, row.id);
      const look = await looks.of(revision, await sourceRow(db, row.sourceSha256));
      return c.json({ revision: revision.number, ...look });
    })
    .get('/:id/crates', async (c) => {
      const row = await anyTileRow(db, c.req.param('id'));
      return c.json({ crates: await crates.ofTile(row.id) });
    })
    .post('/:id/crates', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      // Puts the files in the tile's watched folder too.
      const refresh = c.req.query('refresh') === 'yes';
      if (refresh && !row.watched) {
        throw new Problem(
          'no_folder',
          'The tile has no folder that a renderer watches.',
          'Name one at the Crate station first.',
        );
      }
      const revision = await newestRevision(db, row.id);
      return c.json({ crate: await crates.start(row, revision, refresh ? row.watched : null) }, 202);
    });
