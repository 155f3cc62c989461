import { expect } from 'chai';
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
    const files = {
      hdr: new TextEncoder().encode('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n'),
      exr: new Uint8Array([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]),
      picture: new Uint8Array([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
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
    expect(body.error.message).to.equal('notes.txt is no picture that can stand all round.');
  });
});
