import { type ChildProcess, type SpawnOptions, spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const SERVER = `${ROOT}server/src/main.ts`;
const ZESTY = `${ROOT}cli/bin/zesty.mjs`;

/** A port that nothing listens on. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** A process that is under trial. */
export class Subject {
  readonly child: ChildProcess;
  readonly #ended: Promise<void>;
  #output = '';

  constructor(command: string, args: readonly string[], options: SpawnOptions = {}) {
    this.child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
    const hear = (chunk: Buffer) => {
      this.#output = (this.#output + chunk).slice(-4000);
    };
    this.child.stdout?.on('data', hear);
    this.child.stderr?.on('data', hear);
    this.#ended = new Promise((resolve) => this.child.once('exit', () => resolve()));
  }

  get output(): string {
    return this.#output;
  }

  get isRunning(): boolean {
    return this.child.exitCode === null && this.child.signalCode === null;
  }

  /** Resolves once its output has these words. @throws Error where it ends before. */
  async said(words: RegExp): Promise<void> {
    while (!words.test(this.#output)) {
      if (!this.isRunning) throw new Error(`It ended before it said ${words}: ${this.#output}`);
      await Promise.race([this.#ended, new Promise((resolve) => this.child.stdout?.once('data', resolve))]);
    }
  }

  ended(): Promise<void> {
    return this.#ended;
  }

  async kill(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    if (this.isRunning) this.child.kill(signal);
    await this.#ended;
  }

  /** Memory of the process as the system counts it, in bytes: now, and the most it ever had. */
  async memory(): Promise<{ now: number; most: number }> {
    const status = await readFile(`/proc/${this.child.pid}/status`, 'utf8').catch(() => '');
    const of = (name: string) => 1024 * Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0);
    return { now: of('VmRSS'), most: of('VmHWM') };
  }
}

export interface ServerOptions {
  data: string;
  port: number;
  env?: Record<string, string>;
}

/** A real server in a process of its own, once it listens. */
export async function startServer({ data, port, env = {} }: ServerOptions): Promise<Subject> {
  const subject = new Subject(process.execPath, ['--import', 'tsx', SERVER], {
    cwd: ROOT,
    env: { ...process.env, ZESTY_DATA: data, ZESTY_PORT: String(port), ZESTY_LOG: 'error', ...env },
  });
  await subject.said(/Zesty Tile is ready/);
  return subject;
}

/** The command line, at work. */
export const startZesty = (args: readonly string[]): Subject =>
  new Subject(process.execPath, [ZESTY, ...args], { cwd: ROOT });

export async function startRedis(port: number, folder: string): Promise<Subject> {
  const redis = new Subject('redis-server', ['--port', String(port), '--save', '', '--dir', folder]);
  await redis.said(/Ready to accept connections/);
  return redis;
}
