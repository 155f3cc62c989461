import { parseSaved } from '@zesty-tile/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { savedRecipe } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema, RECIPE_BODY } from '../input.ts';
import { notFound } from '../problems.ts';

/** Recipes saved for other tiles. */
export const recipeRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const rows = await db.query.savedRecipe.findMany({
        where: isNull(savedRecipe.deletedAt),
        orderBy: asc(savedRecipe.name),
      });
      const recipes = rows.map(({ id, name, recipe, createdAt }) => ({
        id,
        name,
        recipe: parseSaved(recipe) as unknown as Record<string, unknown>,
        createdAt,
      }));
      return c.json({ recipes });
    })
    .post('/', async (c) => {
      const given = await bodyOf(c, v.strictObject({ name: nameSchema, recipe: v.unknown() }), RECIPE_BODY);
      const recipe = parseSaved(given.recipe);
      const [row] = await db
        .insert(savedRecipe)
        .values({ id: newId(), name: given.name, recipe, createdAt: new Date() })
        .returning();
      return c.json({ recipe: { id: row.id, name: row.name } }, 201);
    })
    .patch('/:id', async (c) => {
      const { name } = await bodyOf(c, v.strictObject({ name: nameSchema }));
      const rows = await db
        .update(savedRecipe)
        .set({ name })
        .where(and(eq(savedRecipe.id, c.req.param('id')), isNull(savedRecipe.deletedAt)))
        .returning({ id: savedRecipe.id, name: savedRecipe.name });
      if (rows.length === 0) throw notFound('recipe');
      return c.json({ recipe: rows[0] });
    })
    .route('/', removal(db, savedRecipe, 'recipe'));
