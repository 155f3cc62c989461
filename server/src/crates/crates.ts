import { EventEmitter } from 'node:events';
import { mkdir, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Problem, type Recipe } from '@zesty-tile/core';
import { desc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type CrateState, crateFile, crateJob, tile } from '../db/schema.ts';
import { newId } from '../ids.ts';
import type { Pool } from '../pool/pool.ts';
import type { CrateProgress, StoredSource } from '../pool/tasks.ts';
import { notFound, problemOf } from '../problems.ts';

export type CrateJob = typeof crateJob.$inferSelect;

interface Running {
  progress: CrateProgress;
  abort: AbortController;
}

/** So many crates are listed at once. */
const LISTED = 200;

const ENDED: CrateState[] = ['done', 'failed', 'stopped', 'interrupted'];

export const hasEnded = (job: CrateJob): boolean => ENDED.includes(job.state);

/** Crates: made one after the other in a worker, kept under their number, never overwritten. */
export class Crates {
  readonly folder: string;
  #db: Database;
  #pool: Pool;
  #running = new Map<string, Running>();
  #events = new EventEmitter({ captureRejections: false }).setMaxListeners(0);
  #log: (error: unknown) => void;

  constructor(data: string, db: Database, pool: Pool, log: (error: unknown) => void) {
    this.folder = join(data, 'crates');
    this.#db = db;
    this.#pool = pool;
    this.#log = log;
  }

  /** After a crash: what was under way is marked as interrupted, half-written folders are removed. */
  async recover(): Promise<void> {
    await mkdir(this.folder, { recursive: true });
    await this.#db
      .update(crateJob)
      .set({
        state: 'interrupted',
        message: 'The server stopped while this crate was being made. Run it again.',
        endedAt: new Date(),
      })
      .where(inArray(crateJob.state, ['waiting', 'working']));
    for (const name of await readdir(this.folder)) {
      if (name.endsWith('.part')) await rm(join(this.folder, name), { recursive: true, force: true });
    }
  }

  /** Starts a crate of a tile's recipe; it goes on by itself. */
  async start(
    of: typeof tile.$inferSelect,
    name: string,
    revision: number,
    recipe: Recipe,
    source: StoredSource,
    given: StoredSource[],
  ): Promise<CrateJob> {
    const last = await this.#db.query.crateJob.findFirst({
      where: eq(crateJob.tileId, of.id),
      orderBy: desc(crateJob.number),
    });
    const [job] = await this.#db
      .insert(crateJob)
      .values({
        id: newId(),
        tileId: of.id,
        number: (last?.number ?? 0) + 1,
        revision,
        name,
        state: 'waiting',
        progress: 0,
        createdAt: new Date(),
      })
      .returning();
    this.#running.set(job.id, { progress: { station: 'source', done: 0 }, abort: new AbortController() });
    this.#make(job, recipe, { ...source, file: of.sourceName }, given).catch(this.#log);
    return job;
  }

  async #make(
    job: CrateJob,
    recipe: Recipe,
    source: StoredSource & { file: string },
    given: StoredSource[],
  ): Promise<void> {
    const running = this.#running.get(job.id)!;
    const part = join(this.folder, `${job.id}.part`);
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (progress: CrateProgress) => {
      running.progress = progress;
      this.#events.emit(job.id);
    });
    let ending: Partial<CrateJob>;
    try {
      await mkdir(part, { recursive: true });
      await this.#set(job.id, { state: 'working' });
      const { files } = await this.#pool.crate(
        { source, given, recipe, name: job.name, folder: part, port: port2 },
        running.abort.signal,
      );
      await rename(part, join(this.folder, job.id));
      await this.#db.insert(crateFile).values(files.map((file) => ({ id: newId(), jobId: job.id, ...file })));
      ending = { state: 'done', progress: 1 };
    } catch (error) {
      await rm(part, { recursive: true, force: true });
      if (running.abort.signal.aborted) ending = { state: 'stopped', message: 'Stopped on request.' };
      else {
        const problem = problemOf(error);
        if (!problem) this.#log(error);
        const message = problem
          ? `${problem.message} ${problem.hint}`
          : 'The work failed; the server’s log says more.';
        ending = { state: 'failed', message };
      }
    } finally {
      port1.close();
      this.#running.delete(job.id);
    }
    await this.#set(job.id, { ...ending, endedAt: new Date() });
  }

  async #set(id: string, values: Partial<CrateJob>): Promise<void> {
    await this.#db.update(crateJob).set(values).where(eq(crateJob.id, id));
    this.#events.emit(id);
  }

  /** A job as it stands this moment. @throws Problem `not_found`. */
  async get(id: string): Promise<CrateJob> {
    const job = await this.#db.query.crateJob.findFirst({ where: eq(crateJob.id, id) });
    if (!job) throw notFound('crate');
    return this.#now(job);
  }

  #now(job: CrateJob): CrateJob {
    const running = this.#running.get(job.id);
    if (!running || hasEnded(job)) return job;
    return { ...job, progress: running.progress.done, station: running.progress.station };
  }

  async ofTile(tileId: string): Promise<CrateJob[]> {
    const jobs = await this.#db.query.crateJob.findMany({
      where: eq(crateJob.tileId, tileId),
      orderBy: desc(crateJob.number),
    });
    return jobs.map((job) => this.#now(job));
  }

  /** The newest crates of all tiles, with the tiles' names. */
  async all(): Promise<(CrateJob & { tile: { id: string; name: string } })[]> {
    const rows = await this.#db
      .select({ job: crateJob, tile: { id: tile.id, name: tile.name } })
      .from(crateJob)
      .innerJoin(tile, eq(tile.id, crateJob.tileId))
      .orderBy(desc(crateJob.createdAt))
      .limit(LISTED);
    return rows.map(({ job, tile: of }) => ({ ...this.#now(job), tile: of }));
  }

  files(id: string) {
    return this.#db.query.crateFile.findMany({ where: eq(crateFile.jobId, id), orderBy: crateFile.name });
  }

  /** Path of one file of a finished crate. @throws Problem `not_found` for any name that is not in it. */
  async filePath(id: string, name: string): Promise<string> {
    const found = (await this.files(id)).find((file) => file.name === name);
    if (!found) throw notFound('file in this crate');
    return join(this.folder, id, found.name);
  }

  async stop(id: string): Promise<CrateJob> {
    const running = this.#running.get(id);
    if (!running) {
      const job = await this.get(id);
      throw new Problem(
        'not_ready',
        `The crate is ${job.state}; there is nothing to stop.`,
        'Start it again if you need it.',
      );
    }
    running.abort.abort();
    return this.get(id);
  }

  /** Calls back whenever a job moves on; returns how to end that. */
  watch(id: string, moved: () => void): () => void {
    this.#events.on(id, moved);
    return () => this.#events.off(id, moved);
  }
}
