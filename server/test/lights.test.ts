import { expect } from 'chai';
import { exrFile } from '../../codecs/test/exr-file.ts';
import { hdrFile, noisyJpeg, picture } from '../../codecs/test/pictures.ts';
import { startServer, type TestServer } from './client.ts';

const SUN = { turn: 312, rise: 42 };
const LAMP = { turn: 60, rise: 30, colour: '#ffd9a0', strength: 1.5 };

describe('lights of the lit view', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());

  it('are kept as rigs, deleted and brought back', async () => {
    const lights = { sun: SUN, sunStrength: 0.5, lamps: [LAMP] };
    const { status, body } = await server.ask('POST', '/api/rigs', { name: ' Lantern ', lights });
    expect(status).to.equal(201);
    const { id } = body.rig;
    const all = async () => (await server.ask('GET', '/api/rigs')).body.rigs;
    expect(await all()).to.deep.equal([{ id, name: 'Lantern', lights }]);
    await server.ask('DELETE', `/api/rigs/${id}`);
    expect(await all()).to.deep.equal([]);
    await server.ask('POST', `/api/rigs/${id}/restore`);
    expect(await all()).to.have.length(1);
    await server.ask('DELETE', `/api/rigs/${id}`);
  });

  for (const [words, lamps, message] of [
    ['five lamps', [LAMP, LAMP, LAMP, LAMP, LAMP], /At most 4 lights/],
    ['a colour that is none', [{ ...LAMP, colour: 'red' }], /#rrggbb/],
    ['a strength below nothing', [{ ...LAMP, strength: -1 }], /at least 0/],
    ['a lamp under the ground', [{ ...LAMP, rise: -5 }], /at least 0/],
  ] as const) {
    it(`a rig with ${words} is refused in words`, async () => {
      const { status, body } = await server.ask('POST', '/api/rigs', {
        name: 'Wrong',
        lights: { sun: SUN, sunStrength: 1, lamps },
      });
      expect(status).to.equal(422);
      expect(body.error.message).to.match(message);
      expect((await server.ask('GET', '/api/rigs')).body.rigs).to.deep.equal([]);
    });
  }
});

describe('surroundings of one’s own', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());
  const send = async (name: string, bytes: Uint8Array<ArrayBuffer>) => {
    const answer = await fetch(`${server.url}/api/surroundings?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      body: bytes,
    });
    return { status: answer.status, body: await answer.json() };
  };

  it('are known by what they hold, given back to the byte, deleted and brought back', async () => {
    const files: Record<string, Uint8Array<ArrayBuffer>> = {
      hdr: hdrFile(8, 4),
      exr: new Uint8Array(exrFile(64, 32, { R: () => 1, G: () => 2, B: () => 3 })),
      picture: new Uint8Array(await picture(64, 32).png().toBuffer()),
    };
    for (const [format, bytes] of Object.entries(files)) {
      const { status, body } = await send(`A ${format}`, bytes);
      expect(status).to.equal(201);
      expect(body.surroundings).to.include({ name: `A ${format}`, format });
      const file = await fetch(`${server.url}/api/surroundings/${body.surroundings.id}/file`);
      expect(new Uint8Array(await file.arrayBuffer())).to.deep.equal(bytes);
    }
    const all = async () => (await server.ask('GET', '/api/surroundings')).body.surroundings;
    const [{ id }] = await all();
    await server.ask('DELETE', `/api/surroundings/${id}`);
    expect(await all()).to.have.length(2);
    expect((await fetch(`${server.url}/api/surroundings/${id}/file`)).status).to.equal(404);
    await server.ask('POST', `/api/surroundings/${id}/restore`);
    expect(await all()).to.have.length(3);
  });

  it('that are no picture are refused in words', async () => {
    const { status, body } = await send('notes.txt', new TextEncoder().encode('a text'));
    expect(status).to.equal(422);
    expect(body.error.message).to.equal('The file is not a picture that can surround the view.');
  });

  it('are read whole before they are accepted, and what is refused leaves the same bytes of another row alone', async () => {
    const whole = await noisyJpeg();
    const cut = new Uint8Array(whole.subarray(0, whole.length / 2));
    expect((await send('cut', cut)).body.error.code).to.equal('damaged');
    for (const bytes of [hdrFile(8, 4).subarray(0, -5), hdrFile(64, 32, true).subarray(0, -5)]) {
      expect((await send('cut', new Uint8Array(bytes))).body.error.code).to.equal('damaged');
    }
    expect((await send('packed', hdrFile(64, 32, true))).status).to.equal(201);
    // Accepted as surroundings, refused as a source: the file stays.
    const hdr = hdrFile(32, 16);
    const { body } = await send('sky', hdr);
    expect((await server.upload(hdr)).body.error.code).to.equal('not_a_picture');
    const file = await fetch(`${server.url}/api/surroundings/${body.surroundings.id}/file`);
    expect(new Uint8Array(await file.arrayBuffer())).to.deep.equal(hdr);
  });
});
