import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { openDatabase } from '../src/db/open.ts';
import { crateJob } from '../src/db/schema.ts';
import { startServer } from './client.ts';
import { follow, smallRecipe } from './crating.ts';

describe('after a crash', () => {
  it('what was under way is taken up again, half-written files are gone, and what was whole is found', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'zesty-crash-'));
    try {
      const first = await startServer(folder);
      const tile = await first.makeTile('Cut off');
      await first.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
      const { id: made } = (await first.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
      await follow(first, made);
      await first.end();
      // As a kill would leave it: one cut off in the middle, one whole whose end was not noted, one that failed thrice.
      const { db, close } = await openDatabase(folder);
      const row = { tileId: tile.id, revision: 2, name: 'Cut off', progress: 0.4, createdAt: new Date() };
      await db.insert(crateJob).values([
        { id: 'cut', number: 2, state: 'working', attempts: 1, place: 1, ...row },
        { id: 'hopeless', number: 3, state: 'working', attempts: 3, place: 2, ...row },
      ]);
      await db.update(crateJob).set({ state: 'working' }).where(eq(crateJob.id, made));
      close();
      const part = join(folder, 'crates', 'cut', `.zesty-${hostname()}-999999-${randomUUID()}.part`);
      await mkdir(part, { recursive: true });
      await writeFile(join(part, 'a_albedo.png'), 'half');

      const again = await startServer(folder);
      const told = await follow(again, 'cut');
      expect(told.at(-1)).to.include({ state: 'done', number: 2, attempts: 2 });
      const files = await readdir(join(folder, 'crates', 'cut'));
      expect(files.filter((name) => name.startsWith('.'))).to.deep.equal([]);
      expect(files).to.include('Cut off.tile.json');
      expect((await again.ask('GET', `/api/crates/${made}`)).body.crate.state).to.equal('done');
      const { crate } = (await again.ask('GET', '/api/crates/hopeless')).body;
      expect(crate.state).to.equal('interrupted');
      expect(crate.message).to.match(/stopped 3 times.*Run it again/);
      await again.end();
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
});
