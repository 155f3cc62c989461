import { and, asc, count, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { project, tile } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';
import { projectRow } from '../store/projects.ts';

const named = v.strictObject({ name: nameSchema });

const MOST_PARTS = 24;

const tileName = v.pipe(
  v.string('A tile is named by its id.'),
  v.maxLength(40, 'A tile’s id is at most 40 characters.'),
);

const changes = v.strictObject({
  name: v.optional(nameSchema),
  terrace: v.optional(
    v.pipe(
      v.record(
        v.pipe(v.string(), v.regex(/^[a-z]{1,20}$/, 'A part of the terrace is named by small letters.')),
        v.union([
          tileName,
          v.strictObject({
            tile: v.nullable(tileName),
            metres: v.nullable(
              v.pipe(
                v.number('An edge on the terrace is a number of metres.'),
                v.minValue(0.01, 'An edge on the terrace is at least 1 cm.'),
                v.maxValue(100, 'An edge on the terrace is at most 100 m.'),
              ),
            ),
            turns: v.picklist([0, 1, 2, 3], 'Quarter turns are 0 to 3.'),
          }),
        ]),
      ),
      v.check(
        (laid) => Object.keys(laid).length <= MOST_PARTS,
        `The terrace has at most ${MOST_PARTS} parts.`,
      ),
    ),
  ),
  density: v.optional(
    v.nullable(
      v.pipe(
        v.number('A texel density is a number.'),
        v.minValue(1, 'A texel density is at least 1 px per metre.'),
        v.maxValue(100_000, 'A texel density is at most 100 000 px per metre.'),
      ),
    ),
  ),
});

export const projectRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const projects = await db
        .select({
          id: project.id,
          name: project.name,
          density: project.density,
          terrace: project.terrace,
          tiles: count(tile.id),
        })
        .from(project)
        .leftJoin(tile, and(eq(tile.projectId, project.id), isNull(tile.deletedAt)))
        .where(isNull(project.deletedAt))
        .groupBy(project.id)
        .orderBy(asc(project.createdAt));
      return c.json({ projects });
    })
    .post('/', async (c) => {
      const { name } = await bodyOf(c, named);
      const [made] = await db
        .insert(project)
        .values({ id: newId(), name, createdAt: new Date() })
        .returning();
      return c.json(
        { project: { id: made.id, name: made.name, density: null, terrace: null, tiles: 0 } },
        201,
      );
    })
    .patch('/:id', async (c) => {
      const row = await projectRow(db, c.req.param('id'));
      const { name = row.name, density = row.density, terrace = row.terrace } = await bodyOf(c, changes);
      await db.update(project).set({ name, density, terrace }).where(eq(project.id, row.id));
      return c.json({ project: { id: row.id, name, density, terrace } });
    })
    .route('/', removal(db, project, 'project'));
