import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { exrFile } from '../../codecs/test/exr-file.ts';
import { waveNormals } from '../../codecs/test/normals.ts';
import { picture } from '../../codecs/test/pictures.ts';
import { startServer } from './client.ts';

describe('given maps on the server', () => {
  let server: Awaited<ReturnType<typeof startServer>>;

  before(async () => {
    server = await startServer();
  });

  after(() => server.end());

  it('says where the green of a stored normal map points, and what is none', async () => {
    for (const way of ['up', 'down'] as const) {
      const { body } = await server.upload(await waveNormals(way), 'n.png');
      const found = await server.ask('GET', `/api/sources/${body.source.sha256}/content`);
      expect(found.body.content.green).to.include({ isNormal: true, points: way });
    }
    const grey = sharp({ create: { width: 64, height: 64, channels: 3, background: '#777' } });
    const { body } = await server.upload(await grey.png().toBuffer());
    const found = await server.ask('GET', `/api/sources/${body.source.sha256}/content`);
    expect(found.body.content.green.isNormal).to.equal(false);
    expect((await server.ask('GET', '/api/sources/none/content')).status).to.equal(404);
  });

  it('hands out the floats of an OpenEXR file, and averages data as it stands', async () => {
    const file = exrFile(64, 64, { R: (x) => (x % 2) * 4, G: () => 0.5, B: () => 0.25 });
    const { body } = await server.upload(file, 'sky.exr');
    expect(body.source).to.include({ format: 'OpenEXR', bits: 32, width: 64 });
    const answer = await fetch(`${server.url}/api/sources/${body.source.sha256}/pixels?edge=32&as=data`);
    const header = JSON.parse(answer.headers.get('X-Pixels') ?? '{}');
    expect(header).to.include({ width: 32, height: 32, channels: 3, bits: 32 });
    const floats = new Float32Array(await answer.arrayBuffer());
    expect(Array.from(floats.subarray(0, 3))).to.deep.equal([2, 0.5, 0.25]);
    const screen = await fetch(`${server.url}/api/sources/${body.source.sha256}/picture`);
    expect((await sharp(Buffer.from(await screen.arrayBuffer())).metadata()).format).to.equal('webp');
  });

  it('makes a picture of one colour, and refuses what is no colour or size', async () => {
    const { status, body } = await server.ask('POST', '/api/sources/plain', { hex: '#8a7f70', edge: 512 });
    expect(status).to.equal(201);
    expect(body.source).to.include({ width: 512, height: 512, bits: 8 });
    for (const [wrong, field] of [
      [{ hex: 'brown', edge: 512 }, 'hex'],
      [{ hex: '#8a7f70', edge: 500 }, 'edge'],
    ] as const) {
      const refused = await server.ask('POST', '/api/sources/plain', wrong);
      expect(refused.status).to.equal(422);
      expect(refused.body.error.field).to.equal(field);
    }
  });

  it('crates a tile with its given maps, and says plainly when the file of one is gone', async () => {
    const { body: colour } = await server.upload(await picture(128, 128).png().toBuffer());
    const { body: normal } = await server.upload(await waveNormals('down'), 'wall_normal.png');
    const { body: made } = await server.ask('POST', '/api/projects', { name: 'Sets' });
    const recipe = newRecipe();
    const { sha256, width, height } = normal.source;
    recipe.stations.square.size = 256;
    recipe.stations.source = {
      ...recipe.stations.source,
      given: { normal: { sha256, width, height, name: 'wall_normal.png' } },
      givenGreen: 'down',
    };
    const make = async () => {
      const { body } = await server.ask('POST', '/api/tiles', {
        projectId: made.project.id,
        name: 'Set',
        sourceSha256: colour.source.sha256,
        sourceName: 'wall_albedo.png',
        recipe,
      });
      return body.tile.id as string;
    };
    const id = await make();
    const look = await server.ask('GET', `/api/tiles/${id}/look`);
    expect(look.status).to.equal(200);
    recipe.stations.source.given.normal!.sha256 = 'a'.repeat(64);
    const gone = await server.ask('GET', `/api/tiles/${await make()}/look`);
    expect(gone.status).to.equal(410);
    expect(gone.body.error.message).to.match(/\w/);
    recipe.stations.source.given.normal!.sha256 = '../../etc/passwd';
    const wrong = await server.ask('POST', '/api/tiles', {
      projectId: made.project.id,
      name: 'Set',
      sourceSha256: colour.source.sha256,
      sourceName: 'wall_albedo.png',
      recipe,
    });
    expect(wrong.status).to.equal(422);
    expect(wrong.body.error.message).to.match(/64 hexadecimal digits/);
  });

  it('met no error of its own', () => {
    expect(server.errors).to.deep.equal([]);
  });
});
