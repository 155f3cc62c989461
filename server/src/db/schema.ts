import type {
  ChartLine,
  LuminanceBins,
  Profile,
  SavedRecipe,
  SetupProposal,
  StationName,
  StoredRecipe,
  Verdict,
} from '@zesty-tile/core';
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const id = () => text('id').primaryKey();
const moment = (name: string) => integer(name, { mode: 'timestamp_ms' });

/** A tile on a part of the terrace: its id, `this` for the open one, null for what the part is usually made of. */
interface TerraceLaying {
  tile: string | null;
  metres: number | null;
  turns: 0 | 1 | 2 | 3;
}

export const project = sqliteTable('project', {
  id: id(),
  name: text('name').notNull(),
  /** Texel density that the game wants, in px per metre; null where none is. */
  density: real('density'),
  /** What is on parts of the terrace in the lit view, by the part's name; earlier versions kept the tile's id alone. Null where nothing was chosen yet. */
  terrace: text('terrace', { mode: 'json' }).$type<Record<string, string | TerraceLaying>>(),
  createdAt: moment('created_at').notNull(),
  /** Deleting is soft, so that it can be undone. */
  deletedAt: moment('deleted_at'),
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
    /** Folder of a renderer that is crated again on request; null where there is none. */
    watched: text('watched'),
    /** What was proposed when the tile was set up, while it is to be looked through; null where nothing is. */
    proposals: text('proposals', { mode: 'json' }).$type<SetupProposal[]>(),
    createdAt: moment('created_at').notNull(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [index('tile_by_project').on(table.projectId)],
);

const tileId = () =>
  text('tile_id')
    .notNull()
    .references(() => tile.id);

export const tag = sqliteTable('tag', { tileId: tileId(), name: text('name').notNull() }, (table) => [
  primaryKey({ columns: [table.tileId, table.name] }),
]);

/** A picture pinned beside a tile's Floor. Never part of the result. */
export const guide = sqliteTable(
  'guide',
  {
    id: id(),
    tileId: tileId(),
    sourceSha256: text('source_sha256')
      .notNull()
      .references(() => source.sha256),
    name: text('name').notNull(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [index('guide_by_tile').on(table.tileId)],
);

/** A named colour, sRGB as #rrggbb. */
export interface PaletteColour {
  name: string;
  hex: string;
}

export const palette = sqliteTable(
  'palette',
  {
    id: id(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id),
    name: text('name').notNull(),
    colours: text('colours', { mode: 'json' }).$type<PaletteColour[]>().notNull(),
    createdAt: moment('created_at').notNull(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [index('palette_by_project').on(table.projectId)],
);

/** A chart of reference values of the user's own, for all projects. */
export const chart = sqliteTable('chart', {
  id: id(),
  name: text('name').notNull(),
  lines: text('lines', { mode: 'json' }).$type<ChartLine[]>().notNull(),
  createdAt: moment('created_at').notNull(),
  deletedAt: moment('deleted_at'),
});

/** A light far away: clockwise from the top of the view, and its height, in degrees. */
export interface RigLight {
  turn: number;
  rise: number;
}

/** How the lit view is lit. */
export interface RigLights {
  sun: RigLight;
  sunStrength: number;
  lamps: (RigLight & { colour: string; strength: number })[];
}

/** Lights of the lit view under a name. */
export const rig = sqliteTable('rig', {
  id: id(),
  name: text('name').notNull(),
  lights: text('lights', { mode: 'json' }).$type<RigLights>().notNull(),
  createdAt: moment('created_at').notNull(),
  deletedAt: moment('deleted_at'),
});

/** A 360° picture of the user's own to stand around the lit view; the file itself is a blob. */
export const surroundings = sqliteTable('surroundings', {
  id: id(),
  name: text('name').notNull(),
  sha256: text('sha256').notNull(),
  format: text('format').$type<'hdr' | 'exr' | 'picture'>().notNull(),
  createdAt: moment('created_at').notNull(),
  deletedAt: moment('deleted_at'),
});

/** Which files a crate has and what is in their channels, kept for a project. */
export const profile = sqliteTable(
  'profile',
  {
    id: id(),
    projectId: text('project_id')
      .notNull()
      .references(() => project.id),
    name: text('name').notNull(),
    profile: text('profile', { mode: 'json' }).$type<Profile>().notNull(),
    createdAt: moment('created_at').notNull(),
    deletedAt: moment('deleted_at'),
  },
  (table) => [index('profile_by_project').on(table.projectId)],
);

/** Chosen sections of a recipe, kept under a name for other tiles. */
export const savedRecipe = sqliteTable('saved_recipe', {
  id: id(),
  name: text('name').notNull(),
  /** In rows of earlier versions the stations alone: read it by `parseSaved`. */
  recipe: text('stations', { mode: 'json' }).$type<SavedRecipe>().notNull(),
  createdAt: moment('created_at').notNull(),
  deletedAt: moment('deleted_at'),
});

/** How a revision looks and what its stations found, measured by the server once. */
export interface Look {
  verdicts: Record<string, Verdict>;
  /** SHA-256 of a WebP blob: the albedo. */
  thumbnail: string;
  /** The same: a ball lit under all maps. */
  ball: string;
  /** The same: each map, small. */
  maps: Record<string, string>;
  /** Of the albedo. */
  bins: LuminanceBins;
}

/** Strokes that recipes refer to, by the hash of their data. */
export const strokeSheet = sqliteTable('stroke_sheet', {
  hash: text('hash').primaryKey(),
  strokes: text('strokes', { mode: 'json' }).$type<unknown[]>().notNull(),
});

/** Append only: the newest is the present. */
export const recipeRevision = sqliteTable(
  'recipe_revision',
  {
    id: id(),
    tileId: tileId(),
    number: integer('number').notNull(),
    /** Its strokes are on sheets of their own, and it may be of an earlier version: read it by `store/recipes.ts`. */
    recipe: text('recipe', { mode: 'json' }).$type<StoredRecipe>().notNull(),
    look: text('look', { mode: 'json' }).$type<Look>(),
    createdAt: moment('created_at').notNull(),
  },
  (table) => [uniqueIndex('revision_by_number').on(table.tileId, table.number)],
);

export const CRATE_STATES = ['waiting', 'working', 'done', 'failed', 'stopped', 'interrupted'] as const;
export type CrateState = (typeof CRATE_STATES)[number];

/** What the stations of a crate found, in brief. */
export interface CrateVerdict {
  wrong: StationName[];
  look: StationName[];
}

export const crateJob = sqliteTable(
  'crate_job',
  {
    id: id(),
    tileId: tileId(),
    /** Counts up for each tile, from 1. */
    number: integer('number').notNull(),
    revision: integer('revision').notNull(),
    /** Start of the file names. */
    name: text('name').notNull(),
    /** Name of its profile. */
    profile: text('profile').notNull().default(''),
    /** Whom is served first: the least. */
    place: integer('place').notNull().default(0),
    /** How often the work was begun. */
    attempts: integer('attempts').notNull().default(0),
    /** Folder of a renderer that it is put in too, replacing what it held. */
    folder: text('folder'),
    verdict: text('verdict', { mode: 'json' }).$type<CrateVerdict>(),
    state: text('state', { enum: CRATE_STATES }).notNull(),
    progress: real('progress').notNull(),
    station: text('station'),
    /** What went wrong, in words. */
    message: text('message'),
    createdAt: moment('created_at').notNull(),
    endedAt: moment('ended_at'),
    deletedAt: moment('deleted_at'),
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
