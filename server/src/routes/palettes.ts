import { and, asc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { palette } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';
import { notFound } from '../problems.ts';
import { projectRow } from '../store/projects.ts';

const colourSchema = v.strictObject({
  name: v.pipe(
    v.string('A colour’s name is a text.'),
    v.maxLength(60, 'A colour’s name has at most 60 characters.'),
  ),
  hex: v.pipe(
    v.string('A colour is written as #rrggbb.'),
    v.toLowerCase(),
    v.regex(/^#[0-9a-f]{6}$/, 'A colour is written as #rrggbb.'),
  ),
});

const paletteSchema = v.strictObject({
  name: nameSchema,
  colours: v.pipe(
    v.array(colourSchema, 'A palette holds a list of colours.'),
    v.maxLength(256, 'A palette holds at most 256 colours.'),
  ),
});

/** Palettes of a project. */
export const paletteRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const { id } = await projectRow(db, c.req.query('project') ?? '');
      const rows = await db.query.palette.findMany({
        where: and(eq(palette.projectId, id), isNull(palette.deletedAt)),
        orderBy: asc(palette.createdAt),
      });
      return c.json({ palettes: rows.map(({ id, name, colours }) => ({ id, name, colours })) });
    })
    .post('/', async (c) => {
      const given = await bodyOf(c, v.strictObject({ ...paletteSchema.entries, projectId: v.string() }));
      await projectRow(db, given.projectId);
      const [row] = await db
        .insert(palette)
        .values({ id: newId(), ...given, createdAt: new Date() })
        .returning();
      return c.json({ palette: { id: row.id, name: row.name, colours: row.colours } }, 201);
    })
    .put('/:id', async (c) => {
      const given = await bodyOf(c, paletteSchema);
      const rows = await db
        .update(palette)
        .set(given)
        .where(and(eq(palette.id, c.req.param('id')), isNull(palette.deletedAt)))
        .returning({ id: palette.id, name: palette.name, colours: palette.colours });
      if (rows.length === 0) throw notFound('palette');
      return c.json({ palette: rows[0] });
    })
    .route('/', removal(db, palette, 'palette'));
