import { join } from 'node:path';
import { PROFILES } from '@zesty-tile/core';
import { ask, makeTile, smallRecipe } from './client.ts';
import { noise } from './pictures.ts';
import { freePort, startServer } from './process.ts';
import { Random, Score, type Tally, type TrialOptions } from './trial.ts';

/** Texts that break out of what they are put in. */
const HOSTILE_TEXTS = [
  '',
  ' ',
  '\0',
  '..',
  '../../etc/passwd',
  '..\\..\\x',
  '/proc/self/environ',
  '__proto__',
  'constructor',
  'CON',
  'a'.repeat(300),
  '名'.repeat(200),
  '\ud800',
  '\u202e\u2066gnp.exe',
  "'; drop table tile; --",
  '{{#files}}{{#files}}{{name}}{{/files}}{{/files}}',
  '{{>other}}{{=<% %>=}}',
  '{tile}_{map}_{crate}',
  '#{7*7}',
  '<script>alert(1)</script>',
  'tile.json',
  'x.tile.json',
  '%00%2e%2e%2f',
];
const HOSTILE_NUMBERS = [0, -0, -1, 0.5, 1e308, -1e308, 2 ** 31, 2 ** 53, 1e-320, 512, 8192];

function anyValue(random: Random, depth = 0): unknown {
  const kind = random.below(depth > 3 ? 5 : 8);
  if (kind === 0) return null;
  if (kind === 1) return random.below(2) === 0;
  if (kind === 2) return random.pick(HOSTILE_NUMBERS);
  if (kind <= 4) return random.pick(HOSTILE_TEXTS);
  const length = random.below(4);
  if (kind === 5) return Array.from({ length }, () => anyValue(random, depth + 1));
  const keys = Array.from({ length }, () =>
    random.pick([...HOSTILE_TEXTS, 'name', 'id', 'version', 'stations']),
  );
  // As JSON has it: `__proto__` is a key like any other.
  return Object.fromEntries(keys.map((key) => [key, anyValue(random, depth + 1)]));
}

/** A valid value with one part of it replaced, removed or added. */
function bent(value: unknown, random: Random): unknown {
  if (random.below(4) === 0 || typeof value !== 'object' || value === null) return anyValue(random);
  if (Array.isArray(value)) {
    const at = random.below(value.length + 1);
    return [...value.slice(0, at), bent(value[at], random), ...value.slice(at + 1)];
  }
  const entries = Object.entries(value);
  const at = random.below(entries.length + 1);
  if (at === entries.length) return { ...value, [random.pick(HOSTILE_TEXTS)]: anyValue(random) };
  const [key, inner] = entries[at];
  if (random.below(6) === 0) return Object.fromEntries(entries.filter(([other]) => other !== key));
  return { ...value, [key]: bent(inner, random) };
}

interface Route {
  method: string;
  /** With `:id` and the like in it. */
  path: string;
  /** A valid body, where it has one. */
  body?: unknown;
  /** How long its answer may take where it computes a whole tile, in ms. */
  patience?: number;
}

/** A tile of up to 2048 px, all its maps. */
const WHOLE_TILE_MS = 120_000;

/** Every route of the API with a valid body. */
export function routesOf(ids: { tile: string; project: string; source: string }): Route[] {
  const recipe = smallRecipe();
  const profile = { ...PROFILES.packed, name: 'Ours' };
  const lights = {
    sun: { turn: 1, rise: 2 },
    sunStrength: 1,
    lamps: [{ turn: 1, rise: 2, strength: 1, colour: '#ffffff' }],
  };
  const line = {
    id: 'a',
    name: 'A',
    group: 'G',
    kind: 'dielectric',
    reflectance: [0.1, 0.2],
    f0: [0.04, 0.04],
    roughness: [0.5, 0.6],
    swatch: '#888888',
  };
  const named = { name: 'A name' };
  const tile = { projectId: ids.project, name: 'T', sourceSha256: ids.source, sourceName: 'a.png' };
  const removable = (path: string): Route[] => [
    { method: 'DELETE', path: `${path}/:id` },
    { method: 'POST', path: `${path}/:id/restore` },
  ];
  return [
    { method: 'GET', path: '/health' },
    { method: 'GET', path: '/projects' },
    { method: 'POST', path: '/projects', body: named },
    { method: 'PATCH', path: '/projects/:id', body: { name: 'B', density: 512, terrace: { floor: 'x' } } },
    ...removable('/projects'),
    { method: 'POST', path: '/sources', body: {} },
    { method: 'POST', path: '/sources/plain', body: { hex: '#123456', edge: 256 } },
    { method: 'GET', path: '/sources/:id' },
    { method: 'GET', path: '/sources/:id/picture' },
    { method: 'GET', path: '/sources/:id/content' },
    { method: 'GET', path: '/sources/:id/pixels?edge=:number&as=:id' },
    { method: 'GET', path: '/tiles?project=:id' },
    { method: 'POST', path: '/tiles', body: { ...tile, recipe } },
    { method: 'GET', path: '/tiles/:id' },
    { method: 'PATCH', path: '/tiles/:id', body: { name: 'C', tags: ['a', 'b'], watched: null } },
    { method: 'POST', path: '/tiles/:id/duplicate' },
    ...removable('/tiles'),
    { method: 'GET', path: '/tiles/:id/look', patience: WHOLE_TILE_MS },
    { method: 'POST', path: '/tiles/:id/maps', patience: WHOLE_TILE_MS },
    { method: 'GET', path: '/tiles/:id/crates' },
    { method: 'POST', path: '/tiles/:id/crates?refresh=:id' },
    { method: 'GET', path: '/tiles/:id/revisions?before=:number' },
    { method: 'GET', path: '/tiles/:id/revisions/:number' },
    { method: 'GET', path: '/tiles/:id/revisions/:number/look', patience: WHOLE_TILE_MS },
    { method: 'POST', path: '/tiles/:id/revisions', body: { base: 1, recipe, sheets: {} } },
    { method: 'POST', path: '/sheets/find', body: { hashes: [] } },
    { method: 'GET', path: '/tiles/:id/guides' },
    { method: 'POST', path: '/tiles/:id/guides', body: { name: 'G', sourceSha256: ids.source } },
    { method: 'DELETE', path: '/tiles/:id/guides/:id' },
    { method: 'GET', path: '/recipes' },
    { method: 'POST', path: '/recipes', body: { name: 'R', stations: { gauge: { exposure: 0.5 } } } },
    { method: 'PATCH', path: '/recipes/:id', body: named },
    ...removable('/recipes'),
    { method: 'GET', path: '/palettes?project=:id' },
    {
      method: 'POST',
      path: '/palettes',
      body: { projectId: ids.project, name: 'P', colours: [{ name: 'x', hex: '#ffffff' }] },
    },
    { method: 'PUT', path: '/palettes/:id', body: { name: 'P', colours: [] } },
    ...removable('/palettes'),
    { method: 'GET', path: '/charts?project=:id' },
    { method: 'POST', path: '/charts', body: { name: 'Ours', lines: [line] } },
    { method: 'PUT', path: '/charts/:id', body: { name: 'Ours', lines: [line] } },
    ...removable('/charts'),
    { method: 'GET', path: '/profiles?project=:id' },
    { method: 'POST', path: '/profiles', body: { projectId: ids.project, profile } },
    { method: 'PUT', path: '/profiles/:id', body: { profile } },
    ...removable('/profiles'),
    { method: 'GET', path: '/rigs' },
    { method: 'POST', path: '/rigs', body: { name: 'L', lights } },
    ...removable('/rigs'),
    { method: 'GET', path: '/surroundings' },
    { method: 'POST', path: '/surroundings?name=:id', body: {} },
    { method: 'GET', path: '/surroundings/:id/file' },
    ...removable('/surroundings'),
    { method: 'GET', path: '/crates' },
    { method: 'POST', path: '/crates', body: { tiles: [ids.tile] } },
    { method: 'GET', path: '/crates/:id' },
    { method: 'GET', path: '/crates/:id/recipe' },
    { method: 'GET', path: '/crates/:id/files/:id' },
    { method: 'GET', path: '/crates/archive.zip' },
    { method: 'GET', path: '/crates/:id/archive.zip' },
    { method: 'POST', path: '/crates/:id/retry' },
    { method: 'POST', path: '/crates/:id/stop' },
    { method: 'POST', path: '/crates/:id/move', body: { to: 'up' } },
    { method: 'POST', path: '/crates/:id/open', body: { as: 'recipe' } },
    ...removable('/crates'),
    { method: 'GET', path: '/thumbnails/:id' },
  ];
}

/** Bodies that are no objects at all. */
const RAW_BODIES = [
  '',
  '{',
  '[[[[',
  'null',
  '"text"',
  '1e999',
  '{"a":1}garbage',
  '\u0000',
  '['.repeat(50_000),
];

type Ids = Parameters<typeof routesOf>[0];

/** A request to a route: ids that are right more often than not, and a body that is valid, bent, random or no JSON at all. */
function requestTo(route: Route, ids: Ids, random: Random): { path: string; body: string | undefined } {
  const known = Object.values(ids);
  const own = ids[route.path.slice(1).replace(/s?[/?].*$/, '') as keyof Ids] ?? random.pick(known);
  const text = () => random.pick(HOSTILE_TEXTS).replace(/\p{Cs}/gu, '?');
  const id = () =>
    encodeURIComponent(random.below(3) > 0 ? own : random.below(2) ? random.pick(known) : text());
  const path = route.path
    .replaceAll(/:id/g, id)
    .replaceAll(/:number/g, () =>
      String(random.below(2) ? random.pick(HOSTILE_NUMBERS) : 1 + random.below(3)),
    );
  const kind = random.below(10);
  const bend = () => (kind < 6 ? route.body : bent(route.body, random));
  const raw = kind < 1 ? random.pick(RAW_BODIES) : kind < 4 ? anyValue(random) : bend();
  const isSent = route.method !== 'GET' && (route.body !== undefined || kind < 2);
  return { path, body: isSent ? (typeof raw === 'string' ? raw : JSON.stringify(raw)) : undefined };
}

/** What is wrong with an answer, or null. */
function faultOf({ status, body, hung }: Awaited<ReturnType<typeof ask>>): string | null {
  if (hung) return 'no answer in time';
  if (status === null) return String(body);
  if (status >= 500) return `${status} ${JSON.stringify(body)}`;
  if (status >= 400 && !body.error?.message) return `${status} without words`;
  if (status >= 400 && JSON.stringify(body).length > 4000) return 'an answer without bounds';
  return null;
}

/**
 * Sends random JSON, and valid bodies with one part bent, to every route of a real server. Each answer must come within ten
 * seconds, or where a whole tile is computed within two minutes; it may refuse in words, and never fail.
 */
export async function fuzzRoutes({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('random requests to every route');
  const random = new Random(seed);
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  // Crates are put in the queue and never made: how they are made is tried elsewhere.
  const server = await startServer({ data: join(folder, 'data'), port, env: { ZESTY_WORKERS: '0' } });
  const picture = await noise(random, 64, 64).png().toBuffer();
  const tileId = await makeTile(url, picture);
  const { tile } = (await ask(url, 'GET', `/api/tiles/${tileId}`)).body;
  const ids = { tile: tileId, project: tile.projectId, source: tile.sourceSha256 };
  const routes = routesOf(ids);
  try {
    for (let k = 0; k < count && server.isRunning; k++) {
      const route = routes[k % routes.length];
      const { path, body } = requestTo(route, ids, random);
      const answer = await ask(url, route.method, `/api${path}`, body, route.patience);
      const fault = faultOf(answer);
      if (fault) score.note(`${route.method} ${path.slice(0, 120)} ${String(body).slice(0, 200)}: ${fault}`);
      else score.note();
      score.count(answer.status !== null && answer.status < 400 ? 'accepted' : 'refused');
    }
    if (!server.isRunning) score.note(`the server ended: ${server.output}`);
    const { status } = await ask(url, 'GET', '/api/health');
    if (status !== 200) score.note(`health answers ${status}`);
  } finally {
    await server.kill();
  }
  return score.tally();
}
