import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { startServer } from './client.ts';

describe('a finished tile for another one', () => {
  let server: Awaited<ReturnType<typeof startServer>>;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());

  it('is stored as pictures of 16 bits, with its size, depth and coats', async () => {
    const { id } = await server.makeTile('Wall');
    const recipe = newRecipe();
    recipe.stations.square.size = 256;
    recipe.stations.square.edgeMetres = 0.8;
    const coat = {
      id: 'paint',
      name: 'Paint',
      outputs: [
        { by: 'constant', channel: 'colour', colour: '#406080' },
        { by: 'constant', channel: 'opacity', amount: 0.25 },
      ],
    };
    const coats = { stack: [coat], groups: [] };
    const saved = await server.ask('POST', `/api/tiles/${id}/revisions`, {
      base: 1,
      recipe: { ...recipe, stations: { ...recipe.stations, coats } },
    });
    expect(saved.status).to.equal(201);
    const { status, body } = await server.ask('POST', `/api/tiles/${id}/maps`);
    expect(status).to.equal(201);
    const { other } = body;
    expect(other).to.include({ tileId: id, name: 'Wall', edgeMetres: 0.8 });
    expect(other.depthMm).to.be.above(0);
    expect(Object.keys(other.maps).sort()).to.deep.equal([
      'colour',
      'height',
      'metallic',
      'opacity',
      'roughness',
    ]);
    const pixels = async (map: string) => {
      const answer = await fetch(
        `${server.url}/api/sources/${other.maps[map].sha256}/pixels?edge=256&as=data`,
      );
      expect(JSON.parse(answer.headers.get('X-Pixels') ?? '{}')).to.include({ width: 256, bits: 16 });
      return new Uint16Array(await answer.arrayBuffer());
    };
    const colour = await pixels('colour');
    expect([...colour.subarray(0, 3)].map((code) => Math.round(code / 257))).to.deep.equal([
      0x40, 0x60, 0x80,
    ]);
    expect((await pixels('opacity'))[0] / 65535).to.be.closeTo(0.25, 1e-4);
  });

  it('is refused where there is no such tile', async () => {
    expect((await server.ask('POST', '/api/tiles/none/maps')).status).to.equal(404);
  });

  it('stays as it was when the tile goes on: the same maps are the same files', async () => {
    const { id } = await server.makeTile('Floor');
    const [first, second] = [
      await server.ask('POST', `/api/tiles/${id}/maps`),
      await server.ask('POST', `/api/tiles/${id}/maps`),
    ];
    expect(second.body.other).to.deep.equal(first.body.other);
    const picture = await fetch(`${server.url}/api/sources/${first.body.other.maps.colour.sha256}/picture`);
    expect((await sharp(Buffer.from(await picture.arrayBuffer())).metadata()).width).to.be.above(200);
  });
});
