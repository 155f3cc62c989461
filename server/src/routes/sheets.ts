import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { bodyOf } from '../input.ts';
import { MOST_SHEETS, storedSheets } from '../store/recipes.ts';

const wantedSchema = v.strictObject({
  hashes: v.pipe(
    v.array(v.pipe(v.string(), v.regex(/^[0-9a-f]{32}$/, 'A sheet is named by 32 hexadecimal digits.'))),
    v.maxLength(MOST_SHEETS, `At most ${MOST_SHEETS} sheets are given at once.`),
  ),
});

/** Strokes by the hashes of their sheets, for recipes that a browser kept without them. */
export const sheetRoutes = (db: Database) =>
  new Hono().post('/find', async (c) => {
    const { hashes } = await bodyOf(c, wantedSchema);
    return c.json({ sheets: Object.fromEntries(await storedSheets(db, hashes)) });
  });
