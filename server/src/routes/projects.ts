import { asc, count, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { project, tile } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';

export const projectRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const projects = await db
        .select({ id: project.id, name: project.name, tiles: count(tile.id) })
        .from(project)
        .leftJoin(tile, eq(tile.projectId, project.id))
        .groupBy(project.id)
        .orderBy(asc(project.createdAt));
      return c.json({ projects });
    })
    .post('/', async (c) => {
      const { name } = await bodyOf(c, v.strictObject({ name: nameSchema }));
      const [made] = await db
        .insert(project)
        .values({ id: newId(), name, createdAt: new Date() })
        .returning();
      return c.json({ project: { id: made.id, name: made.name, tiles: 0 } }, 201);
    });
