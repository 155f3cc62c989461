import { ensureInstalled, run } from './setup.mjs';

ensureInstalled();
run('npm', ['run', '--silent', 'build']);
run('node', ['--import', 'tsx', 'server/src/main.ts']);
