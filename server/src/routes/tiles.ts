import { newRecipe, Problem, parseRecipe, type Recipe, type Shape, type Verdict } from '@zesty-tile/core';
import { and, asc, eq, isNull, max, sql } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Crates } from '../crates/crates.ts';
import type { Database } from '../db/open.ts';
import { guide, project, recipeRevision, tag, tile } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema, RECIPE_BODY, tagSchema } from '../input.ts';
import { type Looks, setLook } from '../looks.ts';
import { projectRow } from './projects.ts';
import { removal } from './removal.ts';
import { sourceRow } from './sources.ts';
import { anyTileRow, newestRevision, tileRow } from './tile-row.ts';

const newTileSchema = v.strictObject({
  projectId: v.string(),
  name: nameSchema,
  sourceSha256: v.string(),
  sourceName: nameSchema,
  /** Where it does not start from the defaults. */
  recipe: v.optional(v.unknown()),
});

const changedTileSchema = v.strictObject({
  name: v.optional(nameSchema),
  projectId: v.optional(v.string()),
  tags: v.optional(v.pipe(v.array(tagSchema), v.maxLength(30, 'A tile has at most 30 tags.'))),
  /** Folder that a renderer watches; null for none. */
  watched: v.optional(v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(1000)))),
});

interface NewTile {
  projectId: string;
  name: string;
  sourceSha256: string;
  sourceName: string;
}

/** Makes a tile with its first revision. */
export async function makeTile(
  db: Database,
  given: NewTile,
  recipe: Recipe = newRecipe(),
  tags: string[] = [],
) {
  await projectRow(db, given.projectId);
  await sourceRow(db, given.sourceSha256);
  const id = newId();
  const createdAt = new Date();
  // In one call: nothing else may write between the parts of it.
  const [[row]] = await db.batch([
    db
      .insert(tile)
      .values({ id, ...given, createdAt })
      .returning(),
    db.insert(recipeRevision).values({ id: newId(), tileId: id, number: 1, recipe, createdAt }),
    ...tagsOf(db, id, tags),
  ]);
  return row;
}

/** What writes the tags of a tile, each once. */
const tagsOf = (db: Database, tileId: string, names: readonly string[]) =>
  names.length > 0 ? [db.insert(tag).values([...new Set(names)].map((name) => ({ tileId, name })))] : [];

/** A tile like another: the same picture, recipe, look, tags and guide pictures, under a new name. */
async function duplicateTile(db: Database, id: string) {
  const { projectId, name, sourceSha256, sourceName } = await tileRow(db, id);
  const { recipe, look } = await newestRevision(db, id);
  const tags = await db.query.tag.findMany({ where: eq(tag.tileId, id) });
  const guides = await db.query.guide.findMany({ where: eq(guide.tileId, id) });
  const given = { projectId, name: `${name.slice(0, 110)} copy`, sourceSha256, sourceName };
  const made = await makeTile(
    db,
    given,
    recipe,
    tags.map((one) => one.name),
  );
  if (look) await setLook(db, (await newestRevision(db, made.id)).id, look);
  if (guides.length > 0) {
    await db.insert(guide).values(guides.map((one) => ({ ...one, id: newId(), tileId: made.id })));
  }
  return made;
}

/** A look in plain types, for the typed client. */
interface KnownLook {
  verdicts: Record<string, Verdict>;
  thumbnail: string;
  ball: string;
  maps: Record<string, string>;
}

/** Every tile (of one project) with its newest revision and tags, in three queries however many there are. */
async function listTiles(db: Database, projectId: string | undefined) {
  const newest = db
    .select({ tileId: recipeRevision.tileId, number: max(recipeRevision.number).as('newest_number') })
    .from(recipeRevision)
    .groupBy(recipeRevision.tileId)
    .as('newest');
  const rows = await db
    .select({
      id: tile.id,
      projectId: tile.projectId,
      name: tile.name,
      createdAt: tile.createdAt,
      // Whole recipes and luminance bins are large, and nothing of them is shown in a list.
      size: sql<number>`json_extract(${recipeRevision.recipe}, '$.stations.square.size')`,
      shape: sql<Shape | null>`json_extract(${recipeRevision.recipe}, '$.stations.square.shape')`,
      edgeMetres: sql<number>`json_extract(${recipeRevision.recipe}, '$.stations.square.edgeMetres')`,
      look: sql<string | null>`json_remove(${recipeRevision.look}, '$.bins')`,
      revision: recipeRevision.number,
      changedAt: recipeRevision.createdAt,
    })
    .from(tile)
    .innerJoin(project, and(eq(project.id, tile.projectId), isNull(project.deletedAt)))
    .innerJoin(newest, eq(newest.tileId, tile.id))
    .innerJoin(
      recipeRevision,
      and(eq(recipeRevision.tileId, tile.id), eq(recipeRevision.number, newest.number)),
    )
    .where(and(isNull(tile.deletedAt), projectId ? eq(tile.projectId, projectId) : undefined))
    .orderBy(asc(tile.createdAt));
  const tags = new Map<string, string[]>();
  for (const { tileId, name } of await db.select().from(tag).orderBy(asc(tag.name))) {
    tags.set(tileId, [...(tags.get(tileId) ?? []), name]);
  }
  return rows.map(({ shape, look, ...row }) => ({
    ...row,
    tags: tags.get(row.id) ?? [],
    shape: shape ?? '1:1',
    look: look === null ? null : (JSON.parse(look) as KnownLook),
  }));
}

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
