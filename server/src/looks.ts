import type { Blobs } from './blobs.ts';
import type { Database } from './db/open.ts';
import type { Look, source } from './db/schema.ts';
import type { Pool } from './pool/pool.ts';
import { setLook } from './store/looks.ts';
import type { Revision } from './store/revisions.ts';
import { givenSources } from './store/sources.ts';

/** Thumbnails and verdicts of revisions: measured once by a worker, then kept with the revision. */
export class Looks {
  #db: Database;
  #blobs: Blobs;
  #pool: Pool;
  #underWay = new Map<string, Promise<Look>>();

  constructor(db: Database, blobs: Blobs, pool: Pool) {
    this.#db = db;
    this.#blobs = blobs;
    this.#pool = pool;
  }

  async of(revision: Revision, picture: typeof source.$inferSelect): Promise<Look> {
    // A look that was measured before it had all that belongs to one is measured again.
    if (revision.look?.bins && (await this.#blobs.has(revision.look.thumbnail))) return revision.look;
    const known = this.#underWay.get(revision.id);
    if (known) return known;
    const making = this.#make(revision, picture).finally(() => this.#underWay.delete(revision.id));
    this.#underWay.set(revision.id, making);
    return making;
  }

  async #make(revision: Revision, picture: typeof source.$inferSelect): Promise<Look> {
    const { verdicts, thumbnail, ball, maps, bins } = await this.#pool.look({
      source: { ...picture, path: this.#blobs.path(picture.sha256) },
      given: givenSources(this.#blobs, revision.recipe),
      recipe: revision.recipe,
    });
    const look: Look = {
      verdicts,
      thumbnail: await this.#blobs.put(thumbnail),
      ball: await this.#blobs.put(ball),
      maps: {},
      bins,
    };
    for (const [map, bytes] of Object.entries(maps)) look.maps[map] = await this.#blobs.put(bytes);
    await setLook(this.#db, revision.id, look);
    return look;
  }
}
