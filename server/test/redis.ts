import { type ChildProcess, spawn } from 'node:child_process';

/** Resolves with the first words of a process's output that match. */
export const said = (child: ChildProcess, words: RegExp) =>
  new Promise<void>((resolve, reject) => {
    let text = '';
    const listen = (chunk: Buffer) => {
      text += chunk;
      if (words.test(text)) resolve();
    };
    child.stdout?.on('data', listen);
    child.stderr?.on('data', listen);
    child.once('exit', () => reject(new Error(`It ended before it said ${words}: ${text}`)));
  });

/** A Redis that keeps nothing on disk, once it answers. */
export async function startRedis(port: number, folder: string): Promise<ChildProcess> {
  const redis = spawn('redis-server', ['--port', String(port), '--save', '', '--dir', folder]);
  await said(redis, /Ready to accept connections/);
  return redis;
}
