import { build } from 'vite';
import { isBuilt } from '../cli/bin/built.mjs';
import { ROOT } from './setup.mjs';

/** Puts the command line and its helper threads into files that start without being translated; does nothing where they are. */
if (!isBuilt()) {
  await build({
    configFile: false,
    root: `${ROOT}cli`,
    logLevel: 'warn',
    ssr: { noExternal: [/^@zesty-tile\/(core|codecs)$/] },
    build: {
      ssr: true,
      outDir: 'dist',
      rolldownOptions: {
        // The name under which a team asks for its helpers, beside itself.
        input: { main: 'src/main.ts', 'team-entry': '../codecs/src/team-helper.ts' },
        output: {
          entryFileNames: ({ name }) => (name === 'main' ? 'main.js' : `${name}.mjs`),
          chunkFileNames: '[name]-[hash].js',
        },
      },
    },
  });
  console.log('The command line is built.');
}
