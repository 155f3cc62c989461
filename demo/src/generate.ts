import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { EXTRA, EXTRA_IDS } from './extra.ts';
import { LANTERN } from './objects/lantern.ts';
import { DEMO_IDS, type DemoId, makeSource } from './sources.ts';

const OUT = fileURLToPath(new URL('../out', import.meta.url));

/** Where the picture of a demo source, or one beside them, lies once it is made. */
export const demoPicture = (id: string): string => join(OUT, `limonaia-${id}.jpg`);

/** Writes the object that is painted by its parts; its file. */
export async function writeLantern(): Promise<string> {
  await mkdir(OUT, { recursive: true });
  const file = join(OUT, 'limonaia-lantern.obj');
  await writeFile(file, LANTERN.obj);
  return file;
}

async function makePicture(id: string): Promise<void> {
  const { samples, width, height } = EXTRA[id]?.() ?? makeSource(id as DemoId);
  await mkdir(OUT, { recursive: true });
  const part = `${demoPicture(id)}.${process.pid}.part`;
  await sharp(samples, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 94, chromaSubsampling: '4:4:4' })
    .toFile(part);
  await rename(part, demoPicture(id));
}

function inOwnProcess(id: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', 'tsx', fileURLToPath(import.meta.url), id], {
      stdio: 'inherit',
    });
    child.once('error', reject);
    child.once('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(`The picture ${id} was not made.`)),
    );
  });
}

/** Makes the demo pictures that are not there yet, as many at once as there are cores. */
export async function makeMissingPictures(
  ids: readonly string[] = [...DEMO_IDS, ...EXTRA_IDS],
): Promise<void> {
  const missing = ids.filter((id) => !existsSync(demoPicture(id)));
  if (missing.length === 0) return;
  console.log(
    `Making ${missing.length} demo pictures (about ${Math.ceil((missing.length * 22) / availableParallelism())} s) …`,
  );
  const lanes = Array.from({ length: availableParallelism() }, async () => {
    for (let id = missing.shift(); id; id = missing.shift()) await inOwnProcess(id);
  });
  await Promise.all(lanes);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await makePicture(process.argv[2]);
