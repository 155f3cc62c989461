import { and, desc, eq, isNull } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { crateJob, tile } from '../db/schema.ts';

/** The most crates that are listed at once. */
const LISTED = 200;

/** The crates of a tile that were not deleted, newest first. */
export const cratesOfTile = (db: Database, tileId: string) =>
  db.query.crateJob.findMany({
    where: and(eq(crateJob.tileId, tileId), isNull(crateJob.deletedAt)),
    orderBy: desc(crateJob.number),
  });

/** The newest crates of all tiles, with the tiles' names. */
export const newestCrates = (db: Database) =>
  db
    .select({ job: crateJob, tile: { id: tile.id, name: tile.name } })
    .from(crateJob)
    .innerJoin(tile, eq(tile.id, crateJob.tileId))
    .where(isNull(crateJob.deletedAt))
    .orderBy(desc(crateJob.createdAt))
    .limit(LISTED);
