import { type ChartLine, chartProblems, type OwnChart, Problem } from '@zesty-tile/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { type Context, Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { chart, tile } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { bodyOf } from '../input.ts';
import { notFound } from '../problems.ts';
import { newestRevision } from '../store/revisions.ts';

/** A sound chart from a request. @throws Problem that names the line and what is wrong with it. */
async function chartFrom(c: Context): Promise<OwnChart> {
  const value = await bodyOf(c, v.unknown());
  const problems = chartProblems(value);
  if (problems.length > 0) {
    throw new Problem(
      'bad_chart',
      problems.slice(0, 3).join(' '),
      'Correct it and try again; nothing was changed.',
    );
  }
  return value as OwnChart;
}

/** Ids of the lines that a project's tiles are compared with, most used first; of own charts the lines' own ids. */
async function usedLines(db: Database, projectId: string): Promise<string[]> {
  const tiles = await db.query.tile.findMany({
    where: and(eq(tile.projectId, projectId), isNull(tile.deletedAt)),
    columns: { id: true },
  });
  const counts = new Map<string, number>();
  for (const { id } of tiles) {
    const { gauge, finish } = (await newestRevision(db, id)).recipe.stations;
    const choices: { line: string; ownLine: ChartLine | null }[] = [
      gauge,
      finish,
      ...gauge.zoneTones,
      ...finish.zoneFinish,
    ];
    const lines = choices.map(({ line, ownLine }) => (line === 'own' ? ownLine?.id : line));
    for (const line of new Set(lines)) {
      if (line && line !== 'none') counts.set(line, (counts.get(line) ?? 0) + 1);
    }
  }
  return [...counts].sort((a, b) => b[1] - a[1]).map(([line]) => line);
}

/** Custom charts. */
export const chartRoutes = (db: Database) =>
  new Hono()
    .get('/', async (c) => {
      const rows = await db.query.chart.findMany({
        where: isNull(chart.deletedAt),
        orderBy: asc(chart.createdAt),
      });
      const project = c.req.query('project');
      return c.json({
        charts: rows.map(({ id, name, lines }) => ({ id, name, lines })),
        used: project ? await usedLines(db, project) : [],
      });
    })
    .post('/', async (c) => {
      const given = await chartFrom(c);
      const [row] = await db
        .insert(chart)
        .values({ id: newId(), ...given, createdAt: new Date() })
        .returning();
      return c.json({ chart: { id: row.id, name: row.name, lines: row.lines } }, 201);
    })
    .put('/:id', async (c) => {
      const given = await chartFrom(c);
      const rows = await db
        .update(chart)
        .set(given)
        .where(and(eq(chart.id, c.req.param('id')), isNull(chart.deletedAt)))
        .returning({ id: chart.id, name: chart.name, lines: chart.lines });
      if (rows.length === 0) throw notFound('chart');
      return c.json({ chart: rows[0] });
    })
    .route('/', removal(db, chart, 'chart'));
