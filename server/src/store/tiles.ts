import { newRecipe, type Recipe, type SetupProposal, type Shape, type Verdict } from '@zesty-tile/core';
import { and, asc, eq, isNull, max, sql } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { guide, project, recipeRevision, tag, tile } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { notFound } from '../problems.ts';
import { setLook } from './looks.ts';
import { projectRow } from './projects.ts';
import { newestRevision, revisionStatements } from './revisions.ts';
import { sourceRow } from './sources.ts';

/** The row of a tile that is not deleted. @throws Problem `not_found`. */
export async function tileRow(db: Database, id: string) {
  const row = await db.query.tile.findFirst({ where: and(eq(tile.id, id), isNull(tile.deletedAt)) });
  if (!row) throw notFound('tile');
  return row;
}

/** The row of a tile, deleted or not: its crates stay. @throws Problem `not_found`. */
export async function anyTileRow(db: Database, id: string) {
  const row = await db.query.tile.findFirst({ where: eq(tile.id, id) });
  if (!row) throw notFound('tile');
  return row;
}

interface NewTile {
  projectId: string;
  name: string;
  sourceSha256: string;
  sourceName: string;
  proposals?: SetupProposal[];
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
    ...revisionStatements(db, id, 1, recipe),
    ...tagsOf(db, id, tags),
  ]);
  return row;
}

/** What writes the tags of a tile, each once. */
export const tagsOf = (db: Database, tileId: string, names: readonly string[]) =>
  names.length > 0 ? [db.insert(tag).values([...new Set(names)].map((name) => ({ tileId, name })))] : [];

/** A tile like another: the same picture, recipe, look, tags and guide pictures, under a new name. */
export async function duplicateTile(db: Database, id: string) {
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
export async function listTiles(db: Database, projectId: string | undefined) {
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
