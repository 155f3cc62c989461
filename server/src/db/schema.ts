import type { Recipe, Verdict } from '@zesty-tile/core';
import { index, integer, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const id = () => text('id').primaryKey();
const moment = (name: string) => integer(name, { mode: 'timestamp_ms' });

export const project = sqliteTable('project', {
  id: id(),
  name: text('name').notNull(),
  createdAt: moment('created_at').notNull(),
});

/** A picture, by the SHA-256 of its file. The file itself is a blob of the same name. */
export const source = sqliteTable('source', {
  sha256: text('sha256').primaryKey(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  format: text('format').notNull(),
  bits: integer('bits').notNull(),
  hasAlpha: integer('has_alpha', { mode: 'boolean' }).notNull(),
  bytes: integer('bytes').notNull(),
  createdAt: moment('created_at').notNull(),
});

export const tile = sqliteTable(
  'tile',
  {
    id: id(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id),
    name: text('name').notNull(),
    sourceSha256: text('source_sha256')
      .notNull()
      .references(() => source.sha256),
    /** Name of the picture's file as it was given. */
    sourceName: text('source_name').notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('tile_by_project').on(table.projectId)],
);

/** How a revision looks and what its stations found, measured by the server once. */
export interface Look {
  verdicts: Record<string, Verdict>;
  /** SHA-256 of the thumbnail's blob (WebP). */
  thumbnail: string;
}

/** Append only: the newest is the present. */
export const recipeRevision = sqliteTable(
  'recipe_revision',
  {
    id: id(),
    tileId: text('tile_id')
      .notNull()
      .references(() => tile.id),
    number: integer('number').notNull(),
    recipe: text('recipe', { mode: 'json' }).$type<Recipe>().notNull(),
    look: text('look', { mode: 'json' }).$type<Look>(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [uniqueIndex('revision_by_number').on(table.tileId, table.number)],
);

export const CRATE_STATES = ['waiting', 'working', 'done', 'failed', 'stopped', 'interrupted'] as const;
export type CrateState = (typeof CRATE_STATES)[number];

export const crateJob = sqliteTable(
  'crate_job',
  {
    id: id(),
    tileId: text('tile_id')
      .notNull()
      .references(() => tile.id),
    /** Counts up for each tile, from 1. */
    number: integer('number').notNull(),
    revision: integer('revision').notNull(),
    /** Start of the file names. */
    name: text('name').notNull(),
    state: text('state', { enum: CRATE_STATES }).notNull(),
    progress: real('progress').notNull(),
    station: text('station'),
    /** What went wrong, in words. */
    message: text('message'),
    createdAt: moment('created_at').notNull(),
    endedAt: moment('ended_at'),
  },
  (table) => [uniqueIndex('crate_by_number').on(table.tileId, table.number)],
);

export const crateFile = sqliteTable(
  'crate_file',
  {
    id: id(),
    jobId: text('job_id')
      .notNull()
      .references(() => crateJob.id),
    name: text('name').notNull(),
    bytes: integer('bytes').notNull(),
    sha256: text('sha256').notNull(),
  },
  (table) => [index('file_by_job').on(table.jobId)],
);
