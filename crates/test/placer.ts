import { sha256Of } from '@zesty-tile/codecs';
import { stageSet } from '@zesty-tile/crates';

/** Pictures of a set, and its manifest that names them with their hashes. */
export const NAMES = ['a.png', 'b.png', 'c.png', 'a.tile.json'];

/** Replaces a set in a folder by the next, all of its bytes changed. */
export async function placeNext(folder: string, turn: number, size = 40_000): Promise<void> {
  const staging = await stageSet(folder);
  try {
    const files = [];
    for (const name of NAMES.slice(0, -1)) {
      const bytes = new Uint8Array(size).fill(turn % 251);
      bytes[0] = name.charCodeAt(0);
      files.push({ file: name, sha256: sha256Of(bytes) });
      await staging.put(name, bytes);
    }
    await staging.put(NAMES[3], new TextEncoder().encode(JSON.stringify({ turn, files })));
    await staging.place(NAMES, { replace: true, keep: true });
  } catch (error) {
    await staging.drop();
    throw error;
  }
}

// Run by itself it goes on until it is killed.
const [, script, folder] = process.argv;
if (script?.endsWith('placer.ts')) {
  for (let turn = 1; ; turn++) {
    await placeNext(folder, turn);
    process.stdout.write(`${turn}\n`);
  }
}
