import { asc, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { rig } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';

const MOST_LAMPS = 4;

const within = (low: number, high: number, what: string) =>
  v.pipe(
    v.number(`${what} is a number.`),
    v.minValue(low, `${what} is at least ${low}.`),
    v.maxValue(high, `${what} is at most ${high}.`),
  );
const direction = { turn: within(0, 360, 'The turn'), rise: within(0, 90, 'The height') };
const strength = within(0, 20, 'The strength');

const rigSchema = v.strictObject({
  name: nameSchema,
  lights: v.strictObject({
    sun: v.strictObject(direction),
    sunStrength: strength,
    lamps: v.pipe(
      v.array(
        v.strictObject({
          ...direction,
          strength,
          colour: v.pipe(
            v.string('A light’s colour is a text.'),
            v.regex(/^#[0-9a-f]{6}$/i, 'A light’s colour is written as #rrggbb.'),
          ),
        }),
      ),
      v.maxLength(MOST_LAMPS, `At most ${MOST_LAMPS} lights are allowed besides the sun.`),
    ),
  }),
});

/** Lights of the lit view that are kept under names, for all projects. */
export const rigRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const rows = await db.query.rig.findMany({ where: isNull(rig.deletedAt), orderBy: asc(rig.createdAt) });
      return c.json({ rigs: rows.map(({ id, name, lights }) => ({ id, name, lights })) });
    })
    .post('/', async (c) => {
      const given = await bodyOf(c, rigSchema);
      const [row] = await db
        .insert(rig)
        .values({ id: newId(), ...given, createdAt: new Date() })
        .returning();
      return c.json({ rig: { id: row.id, name: row.name, lights: row.lights } }, 201);
    })
    .route('/', removal(db, rig, 'rig'));
