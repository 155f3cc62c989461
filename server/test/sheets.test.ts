import { detachSheets, parseRecipe, type Recipe, sheetsIn } from '@zesty-tile/core';
import { expect } from 'chai';
import { and, eq } from 'drizzle-orm';
import { recipeRevision, strokeSheet } from '../src/db/schema.ts';
import { startServer, type TestServer } from './client.ts';

const heal = (k: number) => ({
  kind: 'heal' as const,
  points: [
    [k / 1000, 0.2],
    [k / 1000, 0.4],
  ] as [number, number][],
  radius: 0.02,
  softness: 0.3,
  opacity: 1,
  offset: [0.2, 0.1] as [number, number],
});

describe('stroke sheets in the store', () => {
  let server: TestServer;
  let id = '';
  before(async () => {
    server = await startServer();
    ({ id } = await server.makeTile());
  });
  after(() => server.end());

  const newest = async (): Promise<{ number: number; recipe: Recipe }> => {
    const { number, recipe } = (await server.ask('GET', `/api/tiles/${id}`)).body.revision;
    return { number, recipe: parseRecipe(recipe) };
  };
  const save = async (strokes: number): Promise<number> => {
    const { number, recipe } = await newest();
    const repairs = Array.from({ length: strokes }, (_, k) => heal(k));
    const join = { ...recipe.stations.join, repairs };
    const changed = { ...recipe, stations: { ...recipe.stations, join } };
    const { status } = await server.ask('POST', `/api/tiles/${id}/revisions`, {
      base: number,
      recipe: changed,
    });
    expect(status).to.equal(201);
    return number + 1;
  };
  const sheets = async () => (await server.store.db.select().from(strokeSheet)).length;

  it('a revision stores no stroke itself, and is whole when it is asked for', async () => {
    const number = await save(70);
    const [row] = await server.store.db
      .select()
      .from(recipeRevision)
      .where(and(eq(recipeRevision.tileId, id), eq(recipeRevision.number, number)));
    expect(JSON.stringify(row.recipe)).to.not.include('"radius"');
    expect((await newest()).recipe.stations.join.repairs).to.deep.equal(
      Array.from({ length: 70 }, (_, k) => heal(k)),
    );
    expect(await sheets()).to.equal(3);
  });

  it('one more stroke stores one more sheet, and earlier versions keep theirs', async () => {
    const number = await save(71);
    expect(await sheets()).to.equal(4);
    const { body } = await server.ask('GET', `/api/tiles/${id}/revisions/${number - 1}`);
    expect(body.revision.recipe.stations.join.repairs).to.have.length(70);
    const { body: listed } = await server.ask('GET', `/api/tiles/${id}/revisions`);
    expect(listed.revisions[0].changes).to.have.length(1);
    const { body: copy } = await server.ask('POST', `/api/tiles/${id}/duplicate`);
    const { body: other } = await server.ask('GET', `/api/tiles/${copy.tile.id}`);
    expect(other.revision.recipe.stations.join.repairs).to.have.length(71);
    expect(await sheets()).to.equal(4);
  });

  it('a revision may name sheets that are stored, and bring only what is new', async () => {
    const { number, recipe } = await newest();
    const repairs = Array.from({ length: 72 }, (_, k) => heal(k));
    const join = { ...recipe.stations.join, repairs };
    const changed = parseRecipe({ ...recipe, stations: { ...recipe.stations, join } });
    const { stored, sheets: all } = detachSheets(changed);
    const [last, ...others] = [...all.keys()].reverse();
    const at = `/api/tiles/${id}/revisions`;
    const without = await server.ask('POST', at, { base: number, recipe: stored });
    expect([without.status, without.body.error.code]).to.deep.equal([422, 'sheets_missing']);
    const one = { [last]: all.get(last) };
    const saved = await server.ask('POST', at, { base: number, recipe: stored, sheets: one });
    expect(saved.status).to.equal(201);
    expect((await newest()).recipe).to.deep.equal(changed);
    const { body } = await server.ask('POST', '/api/sheets/find', { hashes: [...others, 'f'.repeat(32)] });
    expect(Object.keys(body.sheets).sort()).to.deep.equal([...others].sort());
    expect(body.sheets[others[0]]).to.deep.equal(all.get(others[0]));
    const wrong = await server.ask('POST', '/api/sheets/find', { hashes: ['../x'] });
    expect(wrong.status).to.equal(422);
    expect(wrong.body.error.message).to.include('32 hexadecimal digits');
  });

  it('a sheet is stored by what it holds, whatever hash it is sent under', async () => {
    const { number, recipe } = await newest();
    const { stored } = detachSheets(recipe);
    const claimed = sheetsIn(stored)[0];
    const forged = [heal(900)];
    const at = `/api/tiles/${id}/revisions`;
    await server.ask('POST', at, { base: number, recipe: stored, sheets: { [claimed]: forged } });
    const { body } = await server.ask('POST', '/api/sheets/find', { hashes: [claimed] });
    expect(body.sheets[claimed]).to.have.length(32);
    expect((await newest()).recipe.stations.join.repairs[0]).to.deep.equal(heal(900));
    await save(71);
  });

  it('a revision that was stored whole, as earlier versions did, opens', async () => {
    const { number, recipe } = await newest();
    const { masks: _masks, ...rest } = recipe;
    const gauge = { ...recipe.stations.gauge, zones: [] };
    const earlier = { ...rest, version: 1, stations: { ...recipe.stations, gauge } };
    await server.store.db.insert(recipeRevision).values({
      id: 'earlier',
      tileId: id,
      number: number + 1,
      recipe: earlier as never,
      createdAt: new Date(),
    });
    expect((await newest()).recipe).to.deep.equal(recipe);
  });

  it('strokes that are missing from the store are said to be, with what to do', async () => {
    await server.store.db.delete(strokeSheet);
    await server.store.db.delete(recipeRevision).where(eq(recipeRevision.id, 'earlier'));
    const { status, body } = await server.ask('GET', `/api/tiles/${id}`);
    expect(status).to.be.within(400, 599);
    expect(body.error.code).to.equal('sheet_gone');
    expect(body.error.hint).to.include('earlier version');
  });
});
