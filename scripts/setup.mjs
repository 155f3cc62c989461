import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Runs a command with its output shown; ends the program with its code where it fails. */
export function run(command, args, { mayFail = false, env = {} } = {}) {
  const { status, error } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  if (error) console.error(`${command} could not be started: ${error.message}`);
  const code = status ?? 1;
  if (code !== 0 && !mayFail) process.exit(code);
  return code;
}

/** Installs the packages where they are missing or older than the lock file, and compiles the kernels and builds the command line and the server's threads where they changed. */
export function ensureInstalled() {
  const mark = `${ROOT}/node_modules/.package-lock.json`;
  const lock = `${ROOT}/package-lock.json`;
  if (!existsSync(mark) || statSync(mark).mtimeMs < statSync(lock).mtimeMs) {
    console.log('Installing packages …');
    run('npm', ['ci', '--no-audit', '--no-fund']);
  }
  run('node', ['scripts/kernels.mjs']);
  run('node', ['scripts/built.mjs']);
}

/** Installs one of Debian's packages where this user may. */
function installPackage(name, words) {
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return;
  console.log(`Installing ${words} from Debian’s packages …`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { mayFail: true, env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], { mayFail: true, env });
}

/** Whether there is a Redis server for the tests of the shared queue; installs Debian's where this user may. */
export function ensureRedis() {
  const found = () => spawnSync('redis-server', ['--version']).status === 0;
  if (!found()) installPackage('redis-server', 'a Redis server');
  return found();
}

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome-stable'];

/** Path of a Chromium for the browser tests; installs Debian's where this user may. Null where there is none. */
export function ensureChromium() {
  const found = () => process.env.ZESTY_CHROMIUM ?? CHROMIUM.find((path) => existsSync(path));
  if (!found()) installPackage('chromium', 'Chromium');
  return found() ?? null;
}
