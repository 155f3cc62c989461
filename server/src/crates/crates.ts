import { EventEmitter } from 'node:events';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { hasField, Problem, planCrate, profileOf, type Recipe, safeName } from '@zesty-tile/core';
import type { Manifest } from '@zesty-tile/crates';
import { asc, eq, inArray, max, min } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type CrateState, crateFile, crateJob, type tile } from '../db/schema.ts';
import { inserted } from '../db/taken.ts';
import { newId } from '../ids.ts';
import { loggable, notFound, problemOf } from '../problems.ts';
import { CrateEndings } from './endings.ts';
import { cratesOfTile, newestCrates } from './listed.ts';
import { crateFiles, crateFolder, namingOf, readManifest } from './make.ts';
import { AGAIN_MS, News } from './news.ts';
import type { CrateEnd, CrateProgress } from './order.ts';
import { orderOf } from './order-of.ts';
import { type CrateQueue, type QueueListener, queueAway } from './queue.ts';
import { type CrateJob, GOING, hasEnded } from './states.ts';
import { WatchedFolders } from './watched.ts';

/** A crate as it stands this moment. */
export type CrateNow = CrateJob & Pick<CrateProgress, 'file'>;

/** A crate whose server went away so often while it was made is not begun again by itself. */
const MOST_ATTEMPTS = 3;
/** The place of the first crate: there is room before it, too. */
const FIRST_PLACE = 1_000_000;

/** Where a crate is moved to in the queue. */
export const MOVES = ['first', 'up', 'down'] as const;
export type Move = (typeof MOVES)[number];

const notReady = (state: CrateState, cannot: string) =>
  new Problem('not_ready', `The crate is ${state}; ${cannot}.`, 'Reload and try again.');

export interface CratesParts {
  /** Folder of the crates, which others may share. */
  shared: string;
  /** Folder of this server's own data. */
  data: string;
  db: Database;
  queue: CrateQueue;
  log(error: unknown): void;
}

/** Crates: made by a queue, kept under their number, never overwritten. */
export class Crates implements QueueListener {
  readonly shared: string;
  #db: Database;
  #queue: CrateQueue;
  #progress = new Map<string, CrateProgress>();
  #events = new EventEmitter({ captureRejections: false }).setMaxListeners(0);
  #log: (error: unknown) => void;

  readonly #watched: WatchedFolders;
  readonly #endings: CrateEndings;
  readonly #news: News;
  /** Crates on their way to the queue. */
  readonly #adding = new Set<string>();
  #isClosed = false;

  constructor({ shared, data, db, queue, log }: CratesParts) {
    this.shared = shared;
    this.#watched = new WatchedFolders([data, shared]);
    this.#endings = new CrateEndings(shared, db, this.#watched, log);
    this.#news = new News(log);
    this.#db = db;
    this.#queue = queue;
    this.#log = log;
  }

  /** Takes up what was waiting or under way when the server went away, then begins. */
  async begin(): Promise<void> {
    await mkdir(join(this.shared, 'crates'), { recursive: true });
    await this.#queue.begin(this);
    await this.reconcile();
  }

  /**
   * Brings the crates that have not ended in line with the queue: those it lost are added again, those that ended meanwhile are
   * noted. One that cannot be resumed is marked failed and holds up nothing else.
   */
  async reconcile(): Promise<void> {
    const going = await this.#db.query.crateJob.findMany({
      where: inArray(crateJob.state, GOING),
      orderBy: asc(crateJob.place),
    });
    for (const job of going) {
      try {
        await this.#resume(job);
      } catch (error) {
        await this.#giveUp(job.id, error);
      }
    }
  }

  async #resume(job: CrateJob): Promise<void> {
    // On its way to the queue, or its end is being written down.
    if (this.#adding.has(job.id) || this.#news.isWriting(job.id)) return;
    const known = await this.#queue.known(job.id);
    if (known === 'waiting' || known === 'working') return;
    const files = known ? null : await crateFiles(this.folderOf(job.id), namingOf(job));
    if (known) await this.#end(job.id, known);
    else if (files) await this.#end(job.id, { state: 'done', files });
    else if (job.attempts >= MOST_ATTEMPTS) {
      await this.#set(job.id, {
        state: 'interrupted',
        message: `The server stopped ${job.attempts} times while this crate was being made. Run it again.`,
        endedAt: new Date(),
      });
    } else await this.#add(job);
  }

  /** Marks a crate as failed for a reason in words; where even that cannot be written, it is tried again a little later. */
  async #giveUp(id: string, error: unknown): Promise<void> {
    const problem = problemOf(error);
    // The queue is taken up again when it is back.
    if (problem?.code === 'queue_away') return;
    if (!problem) this.#log(loggable(error));
    const why = problem ? `${problem.message} ${problem.hint}` : 'The server log has details.';
    const message = `The crate could not be started. ${why}`;
    await this.#set(id, { state: 'failed', message, endedAt: new Date() }).catch((full) => {
      this.#log(loggable(full));
      setTimeout(() => this.#isClosed || this.returned(), AGAIN_MS).unref();
    });
  }

  folderOf(id: string): string {
    return crateFolder(this.shared, id);
  }

  /** Puts a crate of a tile's recipe in the queue. `folder` is one that a renderer watches, to be put in as well. */
  async start(
    of: typeof tile.$inferSelect,
    { number: revision, recipe }: { number: number; recipe: Recipe },
    folder: string | null = null,
  ): Promise<CrateJob> {
    if (folder && hasField(recipe.stations.crate.names, 'crate')) {
      throw new Problem(
        'bad_names',
        'The names of the files hold the number of the crate, so a renderer would not find them again.',
        'Remove {crate} from the pattern of the names.',
      );
    }
    const { stations } = recipe;
    const name = safeName(of.name) || 'tile';
    const job = await inserted(async () => {
      const [last] = await this.#db
        .select({ number: max(crateJob.number) })
        .from(crateJob)
        .where(eq(crateJob.tileId, of.id));
      const number = (last?.number ?? 0) + 1;
      // What cannot be named is refused before anything is made.
      planCrate(stations.crate, [], stations.square, { tile: name, crate: number });
      const [row] = await this.#db
        .insert(crateJob)
        .values({
          id: newId(),
          tileId: of.id,
          number,
          revision,
          name,
          profile: profileOf(stations.crate).name,
          folder,
          state: 'waiting',
          progress: 0,
          place: await this.#lastPlace(),
          createdAt: new Date(),
        })
        .returning();
      return row;
    });
    try {
      await this.#add(job);
    } catch (error) {
      if (problemOf(error)?.code !== 'queue_away') {
        await this.#giveUp(job.id, error);
        throw error;
      }
      await this.#set(job.id, {
        message: 'The queue does not answer; this crate starts when it is back.',
      });
    }
    return this.get(job.id);
  }

  /** A place behind all others. */
  async #lastPlace(): Promise<number> {
    const [end] = await this.#db.select({ place: max(crateJob.place) }).from(crateJob);
    return Math.max(FIRST_PLACE, (end?.place ?? 0) + 1);
  }

  async #add(job: CrateJob): Promise<void> {
    this.#adding.add(job.id);
    try {
      await this.#set(job.id, { state: 'waiting', message: null, endedAt: null, progress: 0 });
      await this.#queue.add(await orderOf(this.#db, job), job.place);
    } finally {
      this.#adding.delete(job.id);
    }
  }

  /** Resolves once all news is written down. */
  close(): Promise<void> {
    this.#isClosed = true;
    return this.#news.close();
  }

  started(id: string): void {
    this.#news.write(id, () => this.#begun(id));
  }

  async #begun(id: string): Promise<void> {
    const job = await this.#db.query.crateJob.findFirst({ where: eq(crateJob.id, id) });
    if (job?.state === 'waiting') await this.#set(id, { state: 'working', attempts: job.attempts + 1 });
  }

  moved(id: string, progress: CrateProgress): void {
    // What is told late, or by a worker that took over, never goes back.
    if ((this.#progress.get(id)?.done ?? 0) > progress.done) return;
    this.#progress.set(id, progress);
    this.#events.emit(id);
  }

  returned(): void {
    void this.reconcile().catch((error) => this.#log(loggable(error)));
  }

  ended(id: string, end: CrateEnd): void {
    this.#news.write(id, () => this.#end(id, end));
  }

  async #end(id: string, end: CrateEnd): Promise<void> {
    const job = await this.#db.query.crateJob.findFirst({ where: eq(crateJob.id, id) });
    // A crate of another server that shares the queue, or one whose end is known.
    if (!job || hasEnded(job)) return;
    this.#progress.delete(id);
    await this.#endings.note(job, end);
    this.#events.emit(id);
  }

  async #set(id: string, values: Partial<CrateJob>): Promise<void> {
    await this.#db.update(crateJob).set(values).where(eq(crateJob.id, id));
    this.#events.emit(id);
  }

  /** A job as it stands this moment. @throws Problem `not_found`. */
  async get(id: string): Promise<CrateNow> {
    const job = await this.#db.query.crateJob.findFirst({ where: eq(crateJob.id, id) });
    if (!job) throw notFound('crate');
    return this.#now(job);
  }

  #now(job: CrateJob): CrateNow {
    const progress = this.#progress.get(job.id);
    if (!progress || hasEnded(job)) return { ...job, file: null };
    return { ...job, progress: progress.done, station: progress.station, file: progress.file };
  }

  async ofTile(tileId: string): Promise<CrateNow[]> {
    const jobs = await cratesOfTile(this.#db, tileId);
    return jobs.map((job) => this.#now(job));
  }

  /** The newest crates of all tiles, with the tiles' names. */
  async all(): Promise<(CrateNow & { tile: { id: string; name: string } })[]> {
    const rows = await newestCrates(this.#db);
    return rows.map(({ job, tile: of }) => ({ ...this.#now(job), tile: of }));
  }

  files(id: string) {
    return this.#db.query.crateFile.findMany({ where: eq(crateFile.jobId, id), orderBy: crateFile.name });
  }

  /** The manifest of a finished crate. @throws Problem `not_ready` where there is none. */
  async manifest(id: string): Promise<Manifest> {
    return readManifest(this.folderOf(id), namingOf(await this.get(id)));
  }

  /** Path of one file of a finished crate. @throws Problem `not_found` for any name that is not in it. */
  async filePath(id: string, name: string): Promise<string> {
    const found = (await this.files(id)).find((file) => file.name === name);
    if (!found) throw notFound('file in this crate');
    return join(this.folderOf(id), found.name);
  }

  async stop(id: string): Promise<CrateNow> {
    const job = await this.get(id);
    if (hasEnded(job)) throw notReady(job.state, 'there is nothing to stop');
    await this.#queue.stop(id);
    return this.get(id);
  }

  /** Makes a crate that came to nothing again, of the same revision and under its number. */
  async retry(id: string): Promise<CrateNow> {
    const job = await this.get(id);
    if (!hasEnded(job) || job.state === 'done') throw notReady(job.state, 'there is nothing to run again');
    if (!this.#queue.isThere) throw queueAway();
    const place = await this.#lastPlace();
    await this.#set(id, { place, attempts: 0 });
    await this.#add({ ...job, place });
    return this.get(id);
  }

  /** Moves a waiting crate before another, after it, or before all. */
  async move(id: string, to: Move): Promise<CrateNow> {
    const job = await this.get(id);
    if (job.state !== 'waiting') throw notReady(job.state, 'only one that waits can be moved');
    const waiting = await this.#db.query.crateJob.findMany({
      where: eq(crateJob.state, 'waiting'),
      orderBy: asc(crateJob.place),
    });
    if (to === 'first') {
      const [first] = await this.#db.select({ place: min(crateJob.place) }).from(crateJob);
      await this.#place(id, (first?.place ?? FIRST_PLACE) - 1);
      return this.get(id);
    }
    const at = waiting.findIndex((one) => one.id === id);
    const other = waiting[at + (to === 'up' ? -1 : 1)];
    if (other) {
      await this.#place(id, other.place);
      await this.#place(other.id, job.place);
    }
    return this.get(id);
  }

  async #place(id: string, place: number): Promise<void> {
    await this.#set(id, { place });
    await this.#queue.place(id, place);
  }

  /** Calls back whenever a job moves on; returns how to end that. */
  watch(id: string, moved: () => void): () => void {
    this.#events.on(id, moved);
    return () => this.#events.off(id, moved);
  }

  /** A folder that a renderer watches, as it may be kept with a tile. @throws Problem where it cannot be used. */
  watchable(folder: string): Promise<string> {
    return this.#watched.usable(folder);
  }
}
