import { newRecipe, parseRecipe, sectionsToSave } from '@zesty-tile/core';
import { expect } from 'chai';
import { picture } from '../../codecs/test/pictures.ts';
import { startServer, type TestServer } from './client.ts';

describe('the Yard’s API', () => {
  let server: TestServer;
  let projectId = '';
  let tileId = '';
  before(async () => {
    server = await startServer();
    const { body } = await server.ask('POST', '/api/projects', { name: 'Terraces' });
    projectId = body.project.id;
    const { body: given } = await server.upload(await picture(400, 320).png().toBuffer());
    const { body: made } = await server.ask('POST', '/api/tiles', {
      projectId,
      name: 'First',
      sourceSha256: given.source.sha256,
      sourceName: 'first.png',
      recipe: { ...newRecipe(), stations: { square: { size: 256, edgeMetres: 2 } } },
    });
    tileId = made.tile.id;
  });
  after(() => server.end());

  const tiles = async (project = projectId) =>
    (await server.ask('GET', `/api/tiles?project=${project}`)).body.tiles as {
      id: string;
      name: string;
      tags: string[];
    }[];

  it('a tile starts with the recipe it is given, and a wrong one is refused by name', async () => {
    const { body } = await server.ask('GET', `/api/tiles/${tileId}`);
    expect(body.revision.recipe.stations.square).to.include({ size: 256, edgeMetres: 2 });
    const { sourceSha256, sourceName } = body.tile;
    const wrong = { ...newRecipe(), stations: { square: { size: 1000 } } };
    const refused = await server.ask('POST', '/api/tiles', {
      projectId,
      name: 'x',
      sourceSha256,
      sourceName,
      recipe: wrong,
    });
    expect(refused.status).to.equal(422);
    expect(refused.body.error.message).to.include('square.size');
    expect(await tiles()).to.have.length(1);
  });

  it('renames, tags and moves a tile; tags are lower case and stand once', async () => {
    const { body: other } = await server.ask('POST', '/api/projects', { name: 'Walls' });
    const change = (values: object) => server.ask('PATCH', `/api/tiles/${tileId}`, values);
    expect((await change({ name: '  Second   name ' })).body.tile.name).to.equal('Second name');
    await change({ tags: ['Ground', 'ground ', 'north side'] });
    expect((await tiles())[0]).to.deep.include({ name: 'Second name', tags: ['ground', 'north side'] });
    await change({ tags: ['wall'] });
    expect((await tiles())[0].tags).to.deep.equal(['wall']);
    await change({ projectId: other.project.id });
    expect(await tiles()).to.deep.equal([]);
    expect(await tiles(other.project.id)).to.have.length(1);
    expect((await change({ projectId: 'none' })).status).to.equal(404);
    expect((await change({ tags: [''] })).status).to.equal(422);
    expect((await change({ colour: 'red' })).status).to.equal(422);
    await change({ projectId });
  });

  it('deletes softly: gone from every list and address, and back by one request', async () => {
    expect((await server.ask('DELETE', `/api/tiles/${tileId}`)).status).to.equal(200);
    expect(await tiles()).to.deep.equal([]);
    expect((await server.ask('GET', `/api/tiles/${tileId}`)).status).to.equal(404);
    expect((await server.ask('GET', `/api/tiles/${tileId}/crates`)).body.crates).to.deep.equal([]);
    expect((await server.ask('GET', '/api/tiles/none/crates')).status).to.equal(404);
    expect((await server.ask('GET', '/api/projects')).body.projects[0].tiles).to.equal(0);
    await server.ask('POST', `/api/tiles/${tileId}/restore`);
    expect((await tiles())[0]).to.deep.include({ id: tileId, tags: ['wall'] });
    await server.ask('DELETE', `/api/projects/${projectId}`);
    const { body } = await server.ask('GET', '/api/projects');
    expect(body.projects.map(({ name }: { name: string }) => name)).to.deep.equal(['Walls']);
    expect((await server.ask('GET', '/api/tiles')).body.tiles).to.deep.equal([]);
    expect((await server.ask('PATCH', `/api/projects/${projectId}`, { name: 'x' })).status).to.equal(404);
    await server.ask('POST', `/api/projects/${projectId}/restore`);
    expect(await tiles()).to.have.length(1);
    expect((await server.ask('DELETE', '/api/tiles/none')).status).to.equal(404);
  });

  it('keeps what was proposed for a tile until it is looked through; what is no proposal is refused', async () => {
    const proposal = {
      id: 'size',
      station: 'square',
      title: 'Size 256 px',
      reason: 'The photo’s shorter side has 320 px.',
      settings: [{ station: 'square', key: 'size', before: 1024, after: 256 }],
    };
    const change = (proposals: unknown) => server.ask('PATCH', `/api/tiles/${tileId}`, { proposals });
    const kept = async () => (await server.ask('GET', `/api/tiles/${tileId}`)).body.tile.proposals;
    expect(await kept()).to.equal(null);
    expect((await change([proposal])).status).to.equal(200);
    expect(await kept()).to.deep.equal([proposal]);
    for (const wrong of [[{ ...proposal, station: 'attic' }], [{ ...proposal, more: 1 }], 'none'])
      expect((await change(wrong)).status).to.equal(422);
    expect(await kept()).to.deep.equal([proposal]);
    expect((await change(null)).status).to.equal(200);
    expect(await kept()).to.equal(null);
  });

  it('duplicates a tile with recipe, tags and guides; the copy goes its own way', async () => {
    const { body: given } = await server.upload(await picture(120, 90).png().toBuffer());
    const guide = { name: 'aim.png', sourceSha256: given.source.sha256 };
    await server.ask('POST', `/api/tiles/${tileId}/guides`, guide);
    const { body } = await server.ask('POST', `/api/tiles/${tileId}/duplicate`);
    const copy = body.tile.id;
    expect(body.tile.name).to.equal('Second name copy');
    expect((await tiles()).find(({ id }) => id === copy)?.tags).to.deep.equal(['wall']);
    const { body: pinned } = await server.ask('GET', `/api/tiles/${copy}/guides`);
    expect(pinned.guides).to.have.length(1);
    await server.ask('DELETE', `/api/tiles/${copy}/guides/${pinned.guides[0].id}`);
    expect((await server.ask('GET', `/api/tiles/${tileId}/guides`)).body.guides).to.have.length(1);
    const [one, two] = await Promise.all(
      [tileId, copy].map(async (id) => (await server.ask('GET', `/api/tiles/${id}`)).body.revision.recipe),
    );
    expect(two).to.deep.equal(one);
    await server.ask('DELETE', `/api/tiles/${copy}`);
  });

  it('a guide picture is shown upright and small, without loss', async () => {
    const { body: given } = await server.upload(await picture(2000, 1500).png().toBuffer());
    const response = await fetch(`${server.url}/api/sources/${given.source.sha256}/picture`);
    expect(response.headers.get('content-type')).to.equal('image/webp');
    const { default: sharp } = await import('sharp');
    const { width, height } = await sharp(new Uint8Array(await response.arrayBuffer())).metadata();
    expect([width, height]).to.deep.equal([1024, 768]);
  });

  it('lists versions a page at a time, with what each changed in words', async () => {
    let recipe = parseRecipe((await server.ask('GET', `/api/tiles/${tileId}`)).body.revision.recipe);
    for (let k = 1; k <= 44; k++) {
      const gauge = { ...recipe.stations.gauge, exposure: k / 50 };
      recipe = { ...recipe, stations: { ...recipe.stations, gauge } };
      const { status } = await server.ask('POST', `/api/tiles/${tileId}/revisions`, { base: k, recipe });
      expect(status).to.equal(201);
    }
    const { body: page } = await server.ask('GET', `/api/tiles/${tileId}/revisions`);
    expect(page.revisions).to.have.length(40);
    expect(page.more).to.equal(true);
    expect(page.revisions[0]).to.deep.include({
      number: 45,
      changes: ['Gauge: Exposure 0.86 stops → 0.88 stops'],
    });
    const { body: rest } = await server.ask('GET', `/api/tiles/${tileId}/revisions?before=6`);
    expect(rest.revisions.map(({ number }: { number: number }) => number)).to.deep.equal([5, 4, 3, 2, 1]);
    expect(rest.more).to.equal(false);
    expect(rest.revisions[4].changes).to.deep.equal([]);
    const { body: look } = await server.ask('GET', `/api/tiles/${tileId}/revisions/1/look`);
    expect((await fetch(`${server.url}/api/thumbnails/${look.thumbnail}`)).status).to.equal(200);
    expect((await server.ask('GET', `/api/tiles/${tileId}/revisions/99/look`)).status).to.equal(404);
  });

  it('a look holds a lit ball and the maps, and stands in the list afterwards', async () => {
    const { body } = await server.ask('GET', `/api/tiles/${tileId}/look`);
    expect(Object.keys(body.maps)).to.deep.equal(['normal', 'height', 'occlusion', 'roughness', 'specular']);
    for (const sha256 of [body.ball, body.thumbnail, ...(Object.values(body.maps) as string[])]) {
      expect((await fetch(`${server.url}/api/thumbnails/${sha256}`)).status).to.equal(200);
    }
    const [{ look }] = (await server.ask('GET', `/api/tiles?project=${projectId}`)).body.tiles;
    expect(look.ball).to.equal(body.ball);
  });

  it('keeps recipes for other tiles, without what belongs to a picture', async () => {
    const recipe = sectionsToSave(newRecipe(), ['gauge', 'finish']);
    const { body, status } = await server.ask('POST', '/api/recipes', { name: 'Plain', recipe });
    expect(status).to.equal(201);
    const { id } = body.recipe;
    await server.ask('PATCH', `/api/recipes/${id}`, { name: 'Plain and dry' });
    const list = async () => (await server.ask('GET', '/api/recipes')).body.recipes;
    expect((await list())[0]).to.deep.include({ name: 'Plain and dry', recipe });
    // Of an earlier version it was the stations alone.
    const earlier = { gauge: { exposure: 0.5, zones: [] } };
    await server.ask('POST', '/api/recipes', { name: 'Earlier', recipe: earlier });
    const [found] = (await list()).filter(({ name }: { name: string }) => name === 'Earlier');
    expect(found.recipe).to.deep.equal({ version: 2, masks: [], stations: { gauge: { exposure: 0.5 } } });
    await server.ask('DELETE', `/api/recipes/${found.id}`);
    await server.ask('DELETE', `/api/recipes/${id}`);
    expect(await list()).to.deep.equal([]);
    expect((await server.ask('PATCH', `/api/recipes/${id}`, { name: 'x' })).status).to.equal(404);
    await server.ask('POST', `/api/recipes/${id}/restore`);
    expect(await list()).to.have.length(1);
    const bound = await server.ask('POST', '/api/recipes', {
      name: 'x',
      recipe: { version: 2, stations: { square: { centreX: 0.2 } } },
    });
    expect(bound.body.error.message).to.include('belongs to one picture');
  });

  it('keeps palettes of a project; a colour that is none is refused with its place', async () => {
    const make = (colours: unknown) =>
      server.ask('POST', '/api/palettes', { projectId, name: 'Noon', colours });
    const { body } = await make([{ name: 'lemon', hex: '#D9C23A' }]);
    expect(body.palette.colours).to.deep.equal([{ name: 'lemon', hex: '#d9c23a' }]);
    const wrong = await make([{ name: 'lemon', hex: 'yellow' }]);
    expect(wrong.status).to.equal(422);
    expect(wrong.body.error.field).to.equal('colours.0.hex');
    const changed = { name: 'Dusk', colours: [] };
    await server.ask('PUT', `/api/palettes/${body.palette.id}`, changed);
    const list = async () => (await server.ask('GET', `/api/palettes?project=${projectId}`)).body.palettes;
    expect(await list()).to.deep.equal([{ id: body.palette.id, ...changed }]);
    await server.ask('DELETE', `/api/palettes/${body.palette.id}`);
    expect(await list()).to.deep.equal([]);
    expect((await server.ask('GET', '/api/palettes?project=none')).status).to.equal(404);
  });

  it('lists the crates of all tiles with their names', async () => {
    await server.ask('POST', `/api/tiles/${tileId}/crates`);
    const { body } = await server.ask('GET', '/api/crates');
    expect(body.crates).to.have.length(1);
    expect(body.crates[0]).to.deep.include({ number: 1, tile: { id: tileId, name: 'Second name' } });
    await server.ask('POST', `/api/crates/${body.crates[0].id}/stop`);
  });

  it('met no error of its own', () => {
    expect(server.errors).to.deep.equal([]);
  });
});
