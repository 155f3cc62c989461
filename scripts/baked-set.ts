import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demoPicture } from '@zesty-tile/demo';

const ZESTY = fileURLToPath(new URL('../cli/bin/zesty.mjs', import.meta.url));

/** How often the process is asked for its peak. */
const ASKED_MS = 200;

/** A complete set made by `zesty bake` in a process of its own: ms, and the most memory it held at once. */
export async function bakedSet(size: number): Promise<{ ms: number; bytes: number }> {
  const out = await mkdtemp(join(tmpdir(), 'zesty-set-'));
  const began = performance.now();
  const args = ['bake', demoPicture('pamments'), '--out', out, '--size', String(size), '--quiet'];
  const child = spawn(process.execPath, [ZESTY, ...args], { stdio: ['ignore', 'ignore', 'inherit'] });
  let bytes = 0;
  const asking = setInterval(async () => {
    const status = await readFile(`/proc/${child.pid}/status`, 'utf8').catch(() => '');
    bytes = Math.max(bytes, 1024 * Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0));
  }, ASKED_MS);
  try {
    const code = await new Promise((resolve) => child.on('exit', resolve));
    if (code !== 0) throw new Error(`zesty bake ended with ${code}.`);
    return { ms: performance.now() - began, bytes };
  } finally {
    clearInterval(asking);
    await rm(out, { recursive: true, force: true });
  }
}
