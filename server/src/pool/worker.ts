import { join } from 'node:path';
import { encodeCrate, encodeThumbnail, sourceHost, writeWhole } from '@zesty-tile/codecs';
import { Engine, WORKING_SIZE } from '@zesty-tile/core';
import { readBlob } from '../blobs.ts';
import { problemOf } from '../problems.ts';
import type {
  CrateProgress,
  CrateResult,
  CrateTask,
  LookResult,
  LookTask,
  PixelsResult,
  PixelsTask,
  StoredSource,
  WorkerProblem,
} from './tasks.ts';

/** Share of a crate's time that goes by before files are written. */
const COMPUTING = 0.9;

const paths = new Map<string, string>();
const host = sourceHost((source) => readBlob(paths.get(source.sha256) ?? ''));

function know(source: StoredSource) {
  paths.set(source.sha256, source.path);
}

async function pixels({ source, shortEdge }: PixelsTask): Promise<PixelsResult> {
  know(source);
  const { width, height, channels, data } = await host.pixels(source, shortEdge, 'colour');
  const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return { width, height, channels, bits: data instanceof Uint16Array ? 16 : 8, data: bytes };
}

async function look({ source, recipe }: LookTask): Promise<LookResult> {
  know(source);
  const { outputs, verdicts } = await new Engine(host, 0).evaluate({ recipe, source, size: WORKING_SIZE });
  const thumbnail = await encodeThumbnail(outputs.gauge!.albedo);
  return { verdicts, thumbnail };
}

async function crate({ source, recipe, name, folder, port }: CrateTask): Promise<CrateResult> {
  know(source);
  const tell = (message: CrateProgress) => port.postMessage(message);
  const evaluation = await new Engine(host, 0).evaluate({
    recipe,
    source,
    onProgress: (station, done) => tell({ station, done: COMPUTING * done }),
  });
  const files: CrateResult['files'] = [];
  const count = (evaluation.outputs.crate?.files.length ?? 0) + 1;
  const manifest = await encodeCrate(evaluation, name, source, async (file) => {
    await writeWhole(join(folder, file.name), file.bytes);
    files.push({ name: file.name, sha256: file.sha256, bytes: file.bytes.length });
    tell({ station: 'writing', done: COMPUTING + ((1 - COMPUTING) * files.length) / count });
  });
  return { manifest, files };
}

/** One entry for all heavy work; a problem comes back as data, since errors lose their class on the way. */
export default async function work(
  task: PixelsTask | LookTask | CrateTask,
): Promise<PixelsResult | LookResult | CrateResult | WorkerProblem> {
  try {
    if (task.kind === 'pixels') return await pixels(task);
    if (task.kind === 'look') return await look(task);
    return await crate(task);
  } catch (error) {
    const problem = problemOf(error);
    if (!problem) throw error;
    const { code, message, hint, field } = problem;
    return { problem: { code, message, hint, field } };
  }
}
