import { isBuilt } from '@zesty-tile/codecs/built';
import { build } from 'vite';
import { ROOT } from './setup.mjs';

/** What is put into files that start without being translated: the command line, and the server's worker threads. */
const ENTRIES = { cli: 'src/main.ts', server: 'src/pool/worker.ts' };

// Does nothing where they are made of the sources as they stand.
for (const [room, main] of Object.entries(ENTRIES)) {
  if (isBuilt(`${ROOT}${room}`)) continue;
  await build({
    configFile: false,
    root: `${ROOT}${room}`,
    logLevel: 'warn',
    ssr: { noExternal: [/^@zesty-tile\/(core|codecs|crates)$/] },
    build: {
      ssr: true,
      outDir: 'dist',
      rolldownOptions: {
        // The name under which a team asks for its helpers, beside itself.
        input: { main, 'team-entry': '../codecs/src/team-helper.ts' },
        output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
      },
    },
  });
  console.log(`Built: ${room}.`);
}
