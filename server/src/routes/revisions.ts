import {
  attachSheets,
  changesBetween,
  changeWords,
  Problem,
  parseRecipe,
  type Recipe,
  SECTION_WORDS,
  type Sheet,
  sheetsIn,
  valueWords,
} from '@zesty-tile/core';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { isTaken } from '../db/taken.ts';
import { bodyOf, RECIPE_BODY } from '../input.ts';
import type { Looks } from '../looks.ts';
import { MOST_SHEETS, storedSheets } from '../store/recipes.ts';
import {
  addRevision,
  newestNumber,
  type Revision,
  revisionRow,
  revisionsBefore,
} from '../store/revisions.ts';
import { sourceRow } from '../store/sources.ts';
import { tileRow } from '../store/tiles.ts';

/** So many are listed at a time. */
const PAGE = 40;

const newRevisionSchema = v.strictObject({
  /** The revision the change was made on. */
  base: v.pipe(v.number(), v.integer()),
  /** Whole, or with strokes named by the hashes of their sheets. */
  recipe: v.unknown(),
  /** Those of the sheets that the store may not have, by their hashes. */
  sheets: v.optional(v.record(v.string(), v.array(v.unknown())), {}),
});

/** @throws Problem `sheets_missing` where sheets are neither stored nor sent along. */
async function wholeRecipe(
  db: Database,
  { recipe, sheets }: v.InferOutput<typeof newRevisionSchema>,
): Promise<Recipe> {
  const sent = new Map(Object.entries(sheets));
  const named = sheetsIn(recipe);
  if (named.length > MOST_SHEETS) {
    const hint = 'Remove some of the strokes by hand, then save it again.';
    throw new Problem('bad_input', `The recipe names more than ${MOST_SHEETS} sheets.`, hint, 'recipe');
  }
  const stored = await storedSheets(
    db,
    named.filter((hash) => !sent.has(hash)),
  );
  const find = (hash: string): Sheet => {
    const sheet = sent.get(hash) ?? stored.get(hash);
    if (sheet) return sheet;
    throw new Problem(
      'sheets_missing',
      'Strokes that the recipe names are not stored here.',
      'Send it again with all its strokes.',
      'sheets',
    );
  };
  return parseRecipe(attachSheets(recipe, find));
}

/** What was changed since the revision before, in words. */
function wordsOf(revision: Revision, before: Revision | undefined): string[] {
  if (!before) return [];
  return changesBetween(before.recipe, revision.recipe).map(
    (change) =>
      `${SECTION_WORDS[change.section]}: ${changeWords(change)} ${valueWords(change.setting, change.from)} → ${valueWords(change.setting, change.to)}`,
  );
}

/** The versions of a tile's recipe. Addresses start with the tile's. */
export const revisionRoutes = (db: Database, looks: Looks) => {
  return new Hono()
    .get('/:id/revisions', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const before = Number(c.req.query('before') ?? Number.POSITIVE_INFINITY);
      const all = await revisionsBefore(db, row.id, before, PAGE + 1);
      const revisions = all.slice(0, PAGE).map((revision, k) => ({
        number: revision.number,
        createdAt: revision.createdAt,
        changes: wordsOf(revision, all[k + 1]),
      }));
      return c.json({ revisions, more: all.length > PAGE });
    })
    .get('/:id/revisions/:number', async (c) => {
      const { number, recipe, createdAt } = await revisionRow(
        db,
        c.req.param('id'),
        Number(c.req.param('number')),
      );
      return c.json({
        revision: { number, recipe: recipe as unknown as Record<string, unknown>, createdAt },
      });
    })
    .get('/:id/revisions/:number/look', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const revision = await revisionRow(db, row.id, Number(c.req.param('number')));
      const { thumbnail, verdicts } = await looks.of(revision, await sourceRow(db, row.sourceSha256));
      return c.json({ revision: revision.number, thumbnail, verdicts });
    })
    .post('/:id/revisions', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const given = await bodyOf(c, newRevisionSchema, RECIPE_BODY);
      const recipe = await wholeRecipe(db, given);
      const newest = await newestNumber(db, row.id);
      const conflict = async () => {
        const number = await newestNumber(db, row.id);
        const message =
          'This tile was changed in another window since you opened it; both versions are kept.';
        const hint = 'Take the other version, or save yours on top of it.';
        return c.json({ error: { code: 'conflict', message, hint }, newest: number }, 409);
      };
      if (given.base !== newest) return conflict();
      try {
        const number = newest + 1;
        await addRevision(db, row.id, number, recipe);
        return c.json({ revision: { number } }, 201);
      } catch (error) {
        if (isTaken(error)) return conflict();
        throw error;
      }
    });
};
