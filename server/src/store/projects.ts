import { and, eq, isNull } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { project } from '../db/schema.ts';
import { notFound } from '../problems.ts';

/** The row of a project that is not deleted. @throws Problem `not_found`. */
export async function projectRow(db: Database, id: string) {
  const row = await db.query.project.findFirst({ where: and(eq(project.id, id), isNull(project.deletedAt)) });
  if (!row) throw notFound('project');
  return row;
}
