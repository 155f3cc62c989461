import { newRecipe, parseRecipe, type Recipe, safeName } from '@zesty-tile/core';
import { and, asc, desc, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import type { Crates } from '../crates/crates.ts';
import type { Database } from '../db/open.ts';
import { project, recipeRevision, tile } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';
import type { Looks } from '../looks.ts';
import { notFound } from '../problems.ts';
import { sourceRow } from './sources.ts';

const newTileSchema = v.strictObject({
  projectId: v.string(),
  name: nameSchema,
  sourceSha256: v.string(),
  sourceName: nameSchema,
});

const newRevisionSchema = v.strictObject({
  /** The revision the change was made on. */
  base: v.pipe(v.number(), v.integer()),
  recipe: v.unknown(),
});

/** The row of a tile. @throws Problem `not_found`. */
async function tileRow(db: Database, id: string) {
  const row = await db.query.tile.findFirst({ where: eq(tile.id, id) });
  if (!row) throw notFound('tile');
  return row;
}

/** The newest revision of a tile. */
export async function newestRevision(db: Database, tileId: string) {
  const row = await db.query.recipeRevision.findFirst({
    where: eq(recipeRevision.tileId, tileId),
    orderBy: desc(recipeRevision.number),
  });
  if (!row) throw notFound('revision');
  return row;
}

/** Makes a tile with its first revision. */
export async function makeTile(
  db: Database,
  given: v.InferOutput<typeof newTileSchema>,
  recipe: Recipe = newRecipe(),
) {
  const inProject = await db.query.project.findFirst({ where: eq(project.id, given.projectId) });
  if (!inProject) throw notFound('project');
  await sourceRow(db, given.sourceSha256);
  return db.transaction(async (tx) => {
    const [row] = await tx
      .insert(tile)
      .values({ id: newId(), ...given, createdAt: new Date() })
      .returning();
    await tx
      .insert(recipeRevision)
      .values({ id: newId(), tileId: row.id, number: 1, recipe, createdAt: new Date() });
    return row;
  });
}

/** True where an insert failed because the number is taken already. */
function isTaken(error: unknown): boolean {
  const seen = [error, (error as { cause?: unknown })?.cause];
  return seen.some((e) => e instanceof Error && /UNIQUE constraint failed/.test(e.message));
}

export const tileRoutes = (db: Database, blobs: Blobs, crates: Crates, looks: Looks) =>
  new Hono()
    .get('/', async (c) => {
      const wanted = c.req.query('project');
      const rows = await db
        .select()
        .from(tile)
        .where(wanted ? eq(tile.projectId, wanted) : undefined)
        .orderBy(asc(tile.createdAt));
      const tiles = await Promise.all(
        rows.map(async (row) => {
          const { number, recipe } = await newestRevision(db, row.id);
          const { size, edgeMetres } = recipe.stations.square;
          return { ...row, revision: number, size, edgeMetres };
        }),
      );
      return c.json({ tiles });
    })
    .post('/', async (c) => {
      const row = await makeTile(db, await bodyOf(c, newTileSchema));
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
    .get('/:id/revisions', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const revisions = await db
        .select({ number: recipeRevision.number, createdAt: recipeRevision.createdAt })
        .from(recipeRevision)
        .where(eq(recipeRevision.tileId, row.id))
        .orderBy(desc(recipeRevision.number));
      return c.json({ revisions });
    })
    .get('/:id/revisions/:number', async (c) => {
      const found = await db.query.recipeRevision.findFirst({
        where: and(
          eq(recipeRevision.tileId, c.req.param('id')),
          eq(recipeRevision.number, Number(c.req.param('number'))),
        ),
      });
      if (!found) throw notFound('revision');
      const { number, recipe, createdAt } = found;
      return c.json({
        revision: { number, recipe: recipe as unknown as Record<string, unknown>, createdAt },
      });
    })
    .post('/:id/revisions', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const given = await bodyOf(c, newRevisionSchema);
      const recipe = parseRecipe(given.recipe);
      const newest = await newestRevision(db, row.id);
      const conflict = async () => {
        const { number } = await newestRevision(db, row.id);
        const message =
          'This tile was changed in another window since you opened it; both versions are kept.';
        const hint = 'Take the other version, or save yours on top of it.';
        return c.json({ error: { code: 'conflict', message, hint }, newest: number }, 409);
      };
      if (given.base !== newest.number) return conflict();
      try {
        const number = newest.number + 1;
        await db
          .insert(recipeRevision)
          .values({ id: newId(), tileId: row.id, number, recipe, createdAt: new Date() });
        return c.json({ revision: { number } }, 201);
      } catch (error) {
        if (isTaken(error)) return conflict();
        throw error;
      }
    })
    .get('/:id/look', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const revision = await newestRevision(db, row.id);
      const { verdicts, thumbnail } = await looks.of(revision, await sourceRow(db, row.sourceSha256));
      return c.json({ revision: revision.number, thumbnail, verdicts });
    })
    .get('/:id/crates', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      return c.json({ crates: await crates.ofTile(row.id) });
    })
    .post('/:id/crates', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const { number, recipe } = await newestRevision(db, row.id);
      const picture = await sourceRow(db, row.sourceSha256);
      const name = safeName(row.name) || 'tile';
      const source = { ...picture, path: blobs.path(picture.sha256) };
      return c.json({ crate: await crates.start(row, name, number, recipe, source) }, 202);
    });
