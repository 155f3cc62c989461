import type { StationName } from '@zesty-tile/core';
import type { Manifest } from '@zesty-tile/crates';
import { and, eq, gt } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type CrateVerdict, crateFile, crateJob } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { loggable, problemOf } from '../problems.ts';
import { crateFolder, namingOf, readManifest } from './make.ts';
import type { CrateEnd, CrateFileRow } from './order.ts';
import type { WatchedFolders } from './watched.ts';

type CrateJob = typeof crateJob.$inferSelect;

/** Writes down how crates ended; those that a renderer watches are put in its folder first. */
export class CrateEndings {
  readonly #shared: string;
  readonly #db: Database;
  readonly #watched: WatchedFolders;
  readonly #log: (error: unknown) => void;

  constructor(shared: string, db: Database, watched: WatchedFolders, log: (error: unknown) => void) {
    this.#shared = shared;
    this.#db = db;
    this.#watched = watched;
    this.#log = log;
  }

  async note(job: CrateJob, end: CrateEnd): Promise<void> {
    if (end.state === 'stopped') await this.#set(job, { state: 'stopped', message: 'Stopped on request.' });
    else if (end.state === 'failed') await this.#set(job, { state: 'failed', message: end.message });
    else if (job.folder === null) await this.#setDone(job, end.files);
    else {
      const { folder } = job;
      await this.#watched.inTurn(folder, () => this.#refresh(job, folder, end.files));
    }
  }

  /** Puts a crate in a renderer's folder, unless a newer one of its tile is there, and notes its end. */
  async #refresh(job: CrateJob, folder: string, files: CrateFileRow[]): Promise<void> {
    const newer = await this.#db.query.crateJob.findFirst({
      where: and(
        eq(crateJob.tileId, job.tileId),
        eq(crateJob.folder, folder),
        eq(crateJob.state, 'done'),
        gt(crateJob.number, job.number),
      ),
    });
    if (newer) {
      const message = `Crate ${newer.number} is newer and in the folder already; it was left there.`;
      await this.#setDone(job, files, message);
      return;
    }
    try {
      const names = files.map(({ name }) => name);
      await this.#watched.refresh(crateFolder(this.#shared, job.id), names, folder);
    } catch (error) {
      const problem = problemOf(error);
      if (!problem) this.#log(loggable(error));
      const why = problem ? `${problem.message} ${problem.hint}` : 'The server log has details.';
      const message = `The crate is complete in its own place, but not in the folder of the renderer. ${why}`;
      await this.#set(job, { state: 'failed', message });
      return;
    }
    await this.#setDone(job, files);
  }

  async #setDone(job: CrateJob, files: CrateFileRow[], message: string | null = null): Promise<void> {
    const manifest = await readManifest(crateFolder(this.#shared, job.id), namingOf(job));
    const ended = { state: 'done', progress: 1, verdict: verdictOf(manifest), message } as const;
    await this.#db.batch([
      this.#db.delete(crateFile).where(eq(crateFile.jobId, job.id)),
      this.#db.insert(crateFile).values(files.map((file) => ({ id: newId(), jobId: job.id, ...file }))),
      this.#db
        .update(crateJob)
        .set({ ...ended, endedAt: new Date() })
        .where(eq(crateJob.id, job.id)),
    ]);
  }

  async #set(job: CrateJob, values: Pick<CrateJob, 'state' | 'message'>): Promise<void> {
    await this.#db
      .update(crateJob)
      .set({ ...values, endedAt: new Date() })
      .where(eq(crateJob.id, job.id));
  }
}

/** What the stations found, in brief. */
function verdictOf({ verdicts }: Manifest): CrateVerdict {
  const of = (state: 'wrong' | 'look') =>
    Object.entries(verdicts)
      .filter(([, verdict]) => verdict.state === state)
      .map(([name]) => name as StationName);
  return { wrong: of('wrong'), look: of('look') };
}
