import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { TUFF } from '../../core/test/chart-line.ts';
import { startServer, type TestServer } from './client.ts';

const line = TUFF;

describe('charts', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());
  const all = async (project = '') =>
    (await server.ask('GET', `/api/charts?project=${project}`)).body as {
      charts: { id: string; name: string; lines: object[] }[];
      used: string[];
    };

  it('are made, changed, deleted and brought back', async () => {
    const { status, body } = await server.ask('POST', '/api/charts', { name: 'Ours', lines: [line] });
    expect(status).to.equal(201);
    const { id } = body.chart;
    const other = { ...line, id: 'marl', name: 'Marl', swatch: '#aabbcc' };
    await server.ask('PUT', `/api/charts/${id}`, { name: 'Ours, longer', lines: [line, other] });
    expect((await all()).charts).to.deep.equal([{ id, name: 'Ours, longer', lines: [line, other] }]);
    await server.ask('DELETE', `/api/charts/${id}`);
    expect((await all()).charts).to.deep.equal([]);
    expect((await server.ask('PUT', `/api/charts/${id}`, { name: 'x', lines: [] })).status).to.equal(404);
    await server.ask('POST', `/api/charts/${id}/restore`);
    expect((await all()).charts).to.have.length(1);
  });

  it('with a band upside down, or no list, are refused in words and change nothing', async () => {
    const before = await all();
    const wrong = { ...line, roughness: [0.9, 0.7] };
    const { status, body } = await server.ask('POST', '/api/charts', { name: 'Wrong', lines: [wrong] });
    expect(status).to.equal(422);
    expect(body.error.message).to.equal('“Tuff”, roughness: A band needs its lower value first.');
    expect((await server.ask('POST', '/api/charts', { name: 'No list' })).status).to.equal(422);
    expect((await server.ask('POST', '/api/charts', [])).status).to.equal(422);
    expect(await all()).to.deep.equal(before);
  });

  it('a project holds the texel density that its game wants and what lies on its terrace, and refuses what is none', async () => {
    const { body } = await server.ask('POST', '/api/projects', { name: 'Walls' });
    const { id } = body.project;
    const density = async () =>
      (await server.ask('GET', '/api/projects')).body.projects.find((one: { id: string }) => one.id === id);
    expect((await density()).density).to.equal(null);
    await server.ask('PATCH', `/api/projects/${id}`, { density: 512 });
    await server.ask('PATCH', `/api/projects/${id}`, { name: 'North walls' });
    expect(await density()).to.include({ name: 'North walls', density: 512 });
    const { status } = await server.ask('PATCH', `/api/projects/${id}`, { density: 0 });
    expect(status).to.equal(422);
    await server.ask('PATCH', `/api/projects/${id}`, { terrace: { floor: 'a-tile' } });
    expect(await density()).to.deep.include({ density: 512, terrace: { floor: 'a-tile' } });
    const laid = { tile: null, metres: 1.5, turns: 3 };
    await server.ask('PATCH', `/api/projects/${id}`, { terrace: { floor: 'a-tile', wall: laid } });
    expect(await density()).to.deep.include({ terrace: { floor: 'a-tile', wall: laid } });
    for (const wrong of [{ ...laid, turns: 4 }, { ...laid, metres: 0 }, { tile: 'a-tile' }]) {
      const { status } = await server.ask('PATCH', `/api/projects/${id}`, { terrace: { wall: wrong } });
      expect(status).to.equal(422);
    }
    const refused = await server.ask('PATCH', `/api/projects/${id}`, { terrace: { 'no part': 'a-tile' } });
    expect(refused.status).to.equal(422);
    await server.ask('PATCH', `/api/projects/${id}`, { density: null });
    expect((await density()).density).to.equal(null);
  });

  it('the lines that a project’s tiles use come with the most used first, own ones too', async () => {
    const { id } = await server.makeTile();
    const { body } = await server.ask('GET', `/api/tiles/${id}`);
    const { projectId } = body.tile;
    expect((await all(projectId)).used).to.deep.equal([]);
    const recipe = newRecipe();
    recipe.stations.gauge.line = 'slate';
    recipe.stations.finish.line = 'own';
    recipe.stations.finish.ownLine = line as never;
    recipe.stations.gauge.zoneTones = [
      { zone: 'a', line: 'slate', ownLine: null, exposure: 0, contrast: 1 },
      { zone: 'b', line: 'moss', ownLine: null, exposure: 0, contrast: 1 },
    ];
    await server.ask('POST', `/api/tiles/${id}/revisions`, { base: body.revision.number, recipe });
    await server.ask('POST', `/api/tiles/${id}/duplicate`, {});
    const { used } = await all(projectId);
    expect([...used].sort()).to.deep.equal(['moss', 'slate', 'tuff']);
  });
});
