import { readFile } from 'node:fs/promises';
import { makeTile, newId, openStore, project, storeSource } from '@zesty-tile/server';
import { demoPicture } from './generate.ts';
import { demoRecipe } from './recipes.ts';
import { DEFINITIONS, DEMO_IDS, type DemoId } from './sources.ts';

/** Fills an empty store with the Limonaia project; leaves one that holds any project alone. */
export async function seed(folder: string, ids: readonly DemoId[] = DEMO_IDS): Promise<boolean> {
  const store = await openStore(folder, console.error);
  try {
    const [known] = await store.db.select().from(project).limit(1);
    if (known) return false;
    const [limonaia] = await store.db
      .insert(project)
      .values({ id: newId(), name: 'Limonaia', createdAt: new Date() })
      .returning();
    for (const id of ids) {
      const bytes = await readFile(demoPicture(id));
      const { sha256 } = await storeSource(store.db, store.blobs, store.pool, bytes);
      const names = { name: DEFINITIONS[id].name, sourceName: `limonaia-${id}.jpg` };
      await makeTile(store.db, { projectId: limonaia.id, sourceSha256: sha256, ...names }, demoRecipe(id));
    }
    return true;
  } finally {
    await store.close();
  }
}
