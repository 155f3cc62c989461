import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import type { Blobs } from './blobs.ts';
import type { Crates } from './crates/crates.ts';
import type { CrateQueue } from './crates/queue.ts';
import type { Database } from './db/open.ts';
import type { Looks } from './looks.ts';
import { guard } from './network/guard.ts';
import { securityHeaders } from './network/headers.ts';
import { tokenGuard } from './network/token.ts';
import type { Pool } from './pool/pool.ts';
import { answerError, notFound } from './problems.ts';
import { chartRoutes } from './routes/charts.ts';
import { crateRoutes } from './routes/crates.ts';
import { finishedRoutes } from './routes/finished.ts';
import { guideRoutes } from './routes/guides.ts';
import { paletteRoutes } from './routes/palettes.ts';
import { profileRoutes } from './routes/profiles.ts';
import { projectRoutes } from './routes/projects.ts';
import { recipeRoutes } from './routes/recipes.ts';
import { revisionRoutes } from './routes/revisions.ts';
import { rigRoutes } from './routes/rigs.ts';
import { sheetRoutes } from './routes/sheets.ts';
import { sourceRoutes } from './routes/sources.ts';
import { surroundingsRoutes } from './routes/surroundings.ts';
import { tileRoutes } from './routes/tiles.ts';

export interface Parts {
  db: Database;
  blobs: Blobs;
  pool: Pool;
  crates: Crates;
  looks: Looks;
  queue: CrateQueue;
  host: string;
  /** What requests must carry; null where only this machine can reach the server. */
  token: string | null;
  /** Folder of the built interface, where there is one. */
  web: string | null;
  log(error: unknown): void;
}

const api = ({ db, blobs, pool, crates, looks, queue }: Parts) =>
  new Hono()
    .get('/health', async (c) => {
      const { answers, running, waiting } = await pool.health();
      const health = {
        ok: answers && queue.isThere,
        pool: { answers, running, waiting },
        queue: queue.isThere,
      };
      return c.json(health, health.ok ? 200 : 503);
    })
    .route('/projects', projectRoutes(db))
    .route('/sheets', sheetRoutes(db))
    .route('/sources', sourceRoutes(db, blobs, pool))
    .route('/tiles', tileRoutes(db, crates, looks))
    .route('/tiles', revisionRoutes(db, looks))
    .route('/tiles', finishedRoutes(db, blobs, pool))
    .route('/tiles', guideRoutes(db))
    .route('/recipes', recipeRoutes(db))
    .route('/palettes', paletteRoutes(db))
    .route('/charts', chartRoutes(db))
    .route('/profiles', profileRoutes(db))
    .route('/rigs', rigRoutes(db))
    .route('/surroundings', surroundingsRoutes(db, blobs, pool))
    .route('/crates', crateRoutes(db, blobs, pool, crates))
    .get('/thumbnails/:sha256', async (c) =>
      c.body(await blobs.stream(c.req.param('sha256')), 200, {
        'Content-Type': 'image/webp',
        'Cache-Control': 'private, max-age=31536000, immutable',
      }),
    )
    .all('*', () => {
      throw notFound('address');
    });

/** The whole server as one handler. */
export function createApp(parts: Parts) {
  const app = new Hono();
  app.use(securityHeaders);
  app.use(guard(parts.host));
  if (parts.token) app.use(tokenGuard(parts.token));
  app.onError((error, c) => answerError(error, c, parts.log));
  const routes = app.route('/api', api(parts));
  if (parts.web) {
    const root = parts.web;
    app.use(
      '/assets/*',
      serveStatic({
        root,
        onFound: (_path, c) => c.header('Cache-Control', 'public, max-age=31536000, immutable'),
      }),
    );
    app.use('*', serveStatic({ root }));
    // Every other address is one of the interface's own routes.
    app.get('*', serveStatic({ root, path: 'index.html' }));
  }
  return routes;
}

/** Types of the API, for the typed client. */
export type App = ReturnType<typeof createApp>;
