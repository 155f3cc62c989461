import { stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import {
  checkSurroundings,
  encodeForScreen,
  encodeSmall,
  encodeWhole,
  keepNothing,
  readFacts,
  sourceHost,
  threads,
} from '@zesty-tile/codecs';
import {
  albedoOf,
  contentOf,
  Engine,
  litBall,
  luminanceBins,
  mapRaster,
  metallicChannel,
  planeOfChannel,
  Raster,
  type Team,
  WORKING_SIZE,
} from '@zesty-tile/core';
import { crateSet, makeCrate, stageSet } from '@zesty-tile/crates';
import { Piscina } from 'piscina';
import { readBlob } from '../blobs.ts';
import type { CrateProgress } from '../crates/order.ts';
import { problemOf } from '../problems.ts';
import type {
  ContentResult,
  ContentTask,
  CrateResult,
  CrateTask,
  FactsResult,
  FactsTask,
  LookResult,
  LookTask,
  MapsResult,
  MapsTask,
  PixelsResult,
  PixelsTask,
  ScreenResult,
  ScreenTask,
  StoredSource,
  SurroundingsResult,
  SurroundingsTask,
  Task,
  WorkerProblem,
} from './tasks.ts';

/** Share of a crate's time that goes by before files are written. */
const COMPUTING = 0.9;

/** Memory for decoded pictures in all threads together, in bytes. */
const DECODED_BYTES = 2 ** 30;
/** How long a thread waits for work before it drops what it keeps, in ms. */
const IDLE_MS = 15_000;

keepNothing();

const paths = new Map<string, string>();
const host = sourceHost((source) => readBlob(paths.get(source.sha256) ?? ''), {
  cacheBytes: DECODED_BYTES / Math.max(2, availableParallelism()),
});

function know(source: StoredSource) {
  paths.set(source.sha256, source.path);
}

async function facts({ path }: FactsTask): Promise<FactsResult> {
  return { facts: await readFacts(await readBlob(path)) };
}

async function surroundings({ path }: SurroundingsTask): Promise<SurroundingsResult> {
  return { format: await checkSurroundings(await readBlob(path)) };
}

/** A result whose samples are moved to the other thread instead of copied. */
function moved(result: PixelsResult): PixelsResult {
  const wrapped = {
    get [Piscina.transferableSymbol]() {
      return [result.data.buffer];
    },
    get [Piscina.valueSymbol]() {
      return result;
    },
  };
  return Piscina.move(wrapped as never) as unknown as PixelsResult;
}

async function pixels({ source, shortEdge, as }: PixelsTask): Promise<PixelsResult> {
  know(source);
  const { width, height, channels, data } = await host.take(source, shortEdge, as);
  const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  const bits = data instanceof Float32Array ? 32 : data instanceof Uint16Array ? 16 : 8;
  return moved({ width, height, channels, bits, data: bytes });
}

/** Shorter side at which a normal map is asked about. */
const CONTENT_EDGE = 256;

async function content({ source }: ContentTask): Promise<ContentResult> {
  know(source);
  return { content: contentOf(await host.pixels(source, CONTENT_EDGE, 'data')) };
}

const THUMBNAIL = 256;
const SMALL_MAP = 96;
const BALL = 320;
const SMALL_MAPS = ['normal', 'height', 'occlusion', 'roughness', 'specular'] as const;
const LOOK_CACHE_BYTES = 192 * 2 ** 20;

/** Versions of one tile share most of what is computed. */
let lookEngine: Engine | null = null;

async function look({ source, given, recipe }: LookTask): Promise<LookResult> {
  for (const one of [source, ...given]) know(one);
  lookEngine ??= new Engine(host, LOOK_CACHE_BYTES);
  const evaluation = await lookEngine.evaluate({ recipe, source, size: WORKING_SIZE });
  const surface = evaluation.surface!;
  const albedo = albedoOf(surface);
  const ball = litBall(
    {
      ...surface,
      albedo,
      roughness: planeOfChannel(surface.roughness, surface.width * surface.height),
      metallic: metallicChannel(surface),
      green: evaluation.frame.green,
    },
    BALL,
  );
  const maps: LookResult['maps'] = {};
  for (const name of SMALL_MAPS) {
    const map = mapRaster(surface, name);
    if (map) maps[name] = await encodeSmall(map, name, SMALL_MAP);
  }
  return {
    verdicts: evaluation.verdicts as LookResult['verdicts'],
    thumbnail: await encodeSmall(albedo, 'albedo', THUMBNAIL),
    ball: await encodeSmall(ball, 'albedo', BALL),
    maps,
    bins: luminanceBins(albedo),
  };
}

/** Largest size at which a tile is taken into another. */
const MAPS_SIZE = 2048;

async function mapsOf({ source, given, recipe }: MapsTask): Promise<MapsResult> {
  for (const one of [source, ...given]) know(one);
  const size = Math.min(MAPS_SIZE, recipe.stations.square.size);
  const engine = new Engine(host, 0);
  const { surface } = await engine.evaluate({ recipe, source, size, withoutVerdicts: true });
  const { width, height, relief, depthMm, roughness, opacity, emission } = surface!;
  const one = (plane: Float32Array) => encodeWhole(new Raster(width, height, [plane]), 'height');
  return {
    depthMm,
    maps: {
      colour: await encodeWhole(albedoOf(surface!), 'albedo'),
      roughness: await one(planeOfChannel(roughness, width * height)),
      metallic: await one(planeOfChannel(metallicChannel(surface!), width * height)),
      height: await one(relief),
      ...(opacity && { opacity: await one(opacity) }),
      ...(emission && { emission: await encodeWhole(emission, 'albedo') }),
    },
  };
}

async function screen({ source, edge, channel }: ScreenTask): Promise<ScreenResult> {
  return { picture: await encodeForScreen(await readBlob(source.path), edge, channel) };
}

/** Helpers of a thread that makes crates, begun with its first. */
let team: Team | null = null;

async function crate({ source, given, recipe, naming, folder, port }: CrateTask): Promise<CrateResult> {
  for (const one of [source, ...given]) know(one);
  const tell = (message: CrateProgress) => port.postMessage(message);
  const staging = await stageSet(folder);
  try {
    team ??= threads();
    const files: CrateResult['files'] = [];
    await makeCrate(
      new Engine({ ...host, team }, 0),
      {
        recipe,
        source,
        onProgress: (station, done) => tell({ station, done: COMPUTING * done, file: null }),
      },
      naming,
      source,
      async ({ name, sha256, bytes }) => {
        await staging.put(name, bytes);
        files.push({ name, sha256, bytes: bytes.length });
      },
      (file) => {
        const share = (file.index + file.share) / file.count;
        tell({ station: 'writing', done: COMPUTING + (1 - COMPUTING) * share, file });
      },
    );
    // The manifest is written last, and placed last.
    const names = files.map(({ name }) => name);
    await staging.place(names, { replace: true, keep: false });
    return { files };
  } catch (error) {
    await staging.drop();
    throw error;
  } finally {
    // The next crate is of other pictures.
    host.clear();
  }
}

let idle: NodeJS.Timeout | undefined;

/** Runs the garbage collector: a thread without work would not, and its pictures would stay in memory. */
function collectGarbage(): void {
  setFlagsFromString('--expose-gc');
  runInNewContext('gc')();
}

function dropAll(): void {
  host.clear();
  paths.clear();
  lookEngine = null;
  collectGarbage();
}

async function perform(task: Task) {
  switch (task.kind) {
    case 'facts':
      return facts(task);
    case 'surroundings':
      return surroundings(task);
    case 'pixels':
      return pixels(task);
    case 'content':
      return content(task);
    case 'look':
      return look(task);
    case 'maps':
      return mapsOf(task);
    case 'screen':
      return screen(task);
    case 'ping':
      return stat(process.execPath);
    case 'set':
      return crateSet(task.manifest, task.folder);
    case 'crate':
      return crate(task);
  }
}

/** One entry for all heavy work; a problem comes back as data, since errors lose their class on the way. */
export default async function work(task: Task): Promise<object | WorkerProblem> {
  clearTimeout(idle);
  try {
    return await perform(task);
  } catch (error) {
    const problem = problemOf(error);
    if (!problem) throw error;
    const { code, message, hint, field } = problem;
    return { problem: { code, message, hint, field } };
  } finally {
    idle = setTimeout(dropAll, IDLE_MS).unref();
  }
}
