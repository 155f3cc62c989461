import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { expect } from 'chai';
import { picture } from '../../codecs/test/pictures.ts';
import { smallDisk } from '../../torture/src/small-disk.ts';
import { openDatabase } from '../src/db/open.ts';
import { crateJob } from '../src/db/schema.ts';
import { startServer } from './client.ts';
import { follow, smallRecipe } from './crating.ts';

const LONG_AGO = new Date(2020, 1, 1);

describe('the start of the server', () => {
  let folder = '';
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-start-'));
  });
  afterEach(() => rm(folder, { recursive: true, force: true }));

  const partsIn = async (path: string) =>
    (await readdir(path, { recursive: true })).filter((name) => name.endsWith('.part'));

  it('goes through with crates that cannot be resumed: they are marked failed, the others are made', async () => {
    const first = await startServer(folder);
    const tile = await first.makeTile('Resumed');
    await first.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
    await first.end();
    const { db, close } = await openDatabase(folder);
    const row = {
      tileId: tile.id,
      name: 'Resumed',
      state: 'working',
      progress: 0,
      createdAt: new Date(),
    } as const;
    await db.insert(crateJob).values([
      { id: 'no-such-revision', number: 1, revision: 99, place: 1, ...row },
      { id: 'sound', number: 2, revision: 2, place: 2, ...row },
    ]);
    close();
    const again = await startServer(folder);
    try {
      const { crate } = (await again.ask('GET', '/api/crates/no-such-revision')).body;
      expect(crate.state).to.equal('failed');
      expect(crate.message).to.match(/could not be started.*no such version/);
      expect((await follow(again, 'sound')).at(-1)).to.include({ state: 'done' });
    } finally {
      await again.end();
    }
  });

  it('takes the manifest of a crate by its exact name, whatever else lies beside it', async () => {
    const first = await startServer(folder);
    const tile = await first.makeTile('Exact');
    await first.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
    const { id } = (await first.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
    await follow(first, id);
    await first.end();
    // As a text with such a suffix would have been written by an earlier version.
    await writeFile(join(folder, 'crates', id, 'Exact.a.tile.json'), 'not JSON');
    const { db, close } = await openDatabase(folder);
    await db.update(crateJob).set({ state: 'working' });
    close();
    const again = await startServer(folder);
    try {
      const { crate } = (await again.ask('GET', `/api/crates/${id}`)).body;
      expect(crate.state).to.equal('done');
      expect((await again.ask('GET', `/api/crates/${id}/recipe`)).status).to.equal(200);
    } finally {
      await again.end();
    }
  });

  it('sweeps parts of uploads and crates, and stored files that nothing refers to; all else stays', async () => {
    const first = await startServer(folder);
    const tile = await first.makeTile('Swept');
    await first.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
    const { body: look } = await first.ask('GET', `/api/tiles/${tile.id}/look`);
    const bytes = await picture(64, 64).png().toBuffer();
    const { body } = await first.upload(bytes);
    await first.end();
    const orphan = sha256Of(new Uint8Array([1, 2, 3]));
    const blob = (sha256: string) => join(folder, 'blobs', sha256.slice(0, 2), sha256.slice(2));
    const everything = [orphan, body.source.sha256, look.thumbnail, look.ball, ...Object.values(look.maps)];
    await mkdir(join(blob(orphan), '..'), { recursive: true });
    await writeFile(blob(orphan), new Uint8Array([1, 2, 3]));
    for (const sha256 of everything) await utimes(blob(sha256 as string), LONG_AGO, LONG_AGO);
    const foreign = `.zesty-another.host-1-${randomUUID()}.part`;
    await writeFile(join(folder, 'blobs', 'incoming', foreign), 'half');
    await mkdir(join(folder, 'crates', 'x', foreign), { recursive: true });
    await writeFile(join(folder, 'crates', 'x', foreign, 'a.png'), 'half');
    expect(await partsIn(folder)).to.have.length(2);

    const again = await startServer(folder);
    await again.end();
    expect(await partsIn(folder)).to.deep.equal([]);
    for (const sha256 of everything) {
      const isThere = await readFile(blob(sha256 as string)).then(
        () => true,
        () => false,
      );
      expect(isThere, sha256 as string).to.equal(sha256 !== orphan);
    }
  });

  it('is refused to a second server over the same data, in words; after the first it goes through', async () => {
    const first = await startServer(folder);
    const refused = await startServer(folder).then(
      () => expect.fail('it started'),
      (error) => error,
    );
    expect(refused.code).to.equal('in_use');
    expect(refused.message).to.include(folder);
    await first.end();
    await (await startServer(folder)).end();
  });

  it('goes through on a full disk: what was saved is read, what cannot be saved is said, and room heals it', async function () {
    const disk = await smallDisk(folder, 64);
    if (!disk) this.skip();
    try {
      const data = join(disk.path, 'data');
      const first = await startServer(data);
      const tile = await first.makeTile('Full');
      await first.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
      const { id } = (await first.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
      await follow(first, id);
      await first.end();
      await disk.fill();
      const again = await startServer(data);
      try {
        const { body } = await again.ask('GET', `/api/tiles/${tile.id}`);
        expect(body.revision.number).to.equal(2);
        expect((await again.ask('GET', `/api/crates/${id}/recipe`)).status).to.equal(200);
        await disk.fill();
        const upload = await again.upload(await picture(2000, 2000).png().toBuffer());
        expect([upload.status, upload.body.error.code]).to.deep.equal([507, 'disk_full']);
        expect(upload.body.error.message).to.equal('The disk is full; nothing was changed.');
        const saves = [];
        for (let base = 2; base < 400 && saves.at(-1)?.status !== 507; base++)
          saves.push(
            await again.ask('POST', `/api/tiles/${tile.id}/revisions`, { base, recipe: smallRecipe() }),
          );
        expect([saves.at(-1)?.status, saves.at(-1)?.body.error.code]).to.deep.equal([507, 'disk_full']);
        // Each save that was acknowledged is there.
        const kept = 1 + saves.length;
        expect((await again.ask('GET', `/api/tiles/${tile.id}`)).body.revision.number).to.equal(kept);
        await disk.empty();
        const healed = await again.ask('POST', `/api/tiles/${tile.id}/revisions`, {
          base: kept,
          recipe: smallRecipe(),
        });
        expect(healed.status).to.equal(201);
        expect(await partsIn(data)).to.deep.equal([]);
      } finally {
        await again.end();
      }
    } finally {
      disk.unmount();
    }
  });
});
