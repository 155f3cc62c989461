import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ZESTY = fileURLToPath(new URL('../bin/zesty.mjs', import.meta.url));

/** Runs `zesty` as a user would, and gives back its exit code and what it said. */
export function zesty(...args: string[]): Promise<{ code: number | null; out: string; err: string }> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [ZESTY, ...args]);
    let out = '';
    let err = '';
    child.stdout.on('data', (data) => {
      out += data;
    });
    child.stderr.on('data', (data) => {
      err += data;
    });
    child.once('error', reject);
    child.once('close', (code) => resolve({ code, out, err }));
  });
}

/** Runs a piece of work in a folder that is gone afterwards. */
export async function inFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'zesty-cli-'));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
