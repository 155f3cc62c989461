import { Problem, type Profile, profileProblems } from '@zesty-tile/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { profile } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf } from '../input.ts';
import { notFound } from '../problems.ts';
import { projectRow } from '../store/projects.ts';

/** @throws Problem `bad_profile` with the first thing that is wrong. */
function soundProfile(value: unknown): Profile {
  const [first] = profileProblems(value);
  if (first) throw new Problem('bad_profile', first, 'Change it and save it again.', 'profile');
  return value as Profile;
}

/** Profiles of crates that are kept for a project. */
export const profileRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const { id } = await projectRow(db, c.req.query('project') ?? '');
      const rows = await db.query.profile.findMany({
        where: and(eq(profile.projectId, id), isNull(profile.deletedAt)),
        orderBy: asc(profile.createdAt),
      });
      // In plain types, for the typed client.
      return c.json({ profiles: rows.map((row) => ({ id: row.id, profile: row.profile as unknown })) });
    })
    .post('/', async (c) => {
      const given = await bodyOf(c, v.strictObject({ projectId: v.string(), profile: v.unknown() }));
      await projectRow(db, given.projectId);
      const sound = soundProfile(given.profile);
      const [row] = await db
        .insert(profile)
        .values({
          id: newId(),
          projectId: given.projectId,
          name: sound.name,
          profile: sound,
          createdAt: new Date(),
        })
        .returning();
      return c.json({ profile: { id: row.id, name: row.name } }, 201);
    })
    .put('/:id', async (c) => {
      const given = await bodyOf(c, v.strictObject({ profile: v.unknown() }));
      const sound = soundProfile(given.profile);
      const rows = await db
        .update(profile)
        .set({ name: sound.name, profile: sound })
        .where(and(eq(profile.id, c.req.param('id')), isNull(profile.deletedAt)))
        .returning({ id: profile.id, name: profile.name });
      if (rows.length === 0) throw notFound('profile');
      return c.json({ profile: rows[0] });
    })
    .route('/', removal(db, profile, 'profile'));
