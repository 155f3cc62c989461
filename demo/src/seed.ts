import { readFile } from 'node:fs/promises';
import { sectionsToSave } from '@zesty-tile/core';
import { makeTile, newId, openStore, palette, project, savedRecipe, storeSource } from '@zesty-tile/server';
import { eq } from 'drizzle-orm';
import { EXTRA_TILES } from './extra.ts';
import { demoPicture } from './generate.ts';
import { PAINTED, type PaintedTile } from './painted/painted.ts';
import { demoRecipe } from './recipes.ts';
import { DEFINITIONS, DEMO_IDS, type DemoId } from './sources.ts';

const TAGS: Record<DemoId, string[]> = {
  pamments: ['ground', 'clay'],
  stucco: ['wall', 'lime'],
  shells: ['ground'],
  cane: ['woven'],
  ripples: ['ground'],
  copper: ['metal'],
};

const NOON = [
  { name: 'lime wall', hex: '#dcd8cc' },
  { name: 'fired clay', hex: '#a8694f' },
  { name: 'cane', hex: '#a8925a' },
  { name: 'lemon leaf', hex: '#55663a' },
  { name: 'lemon', hex: '#d9c23a' },
  { name: 'sea shade', hex: '#6f7f83' },
];

/**
 * Fills an empty store with the Limonaia project; leaves one that holds any project alone. Painted tiles are the oldest, so that
 * the photos come first.
 */
export async function seed(
  folder: string,
  ids: readonly DemoId[] = DEMO_IDS,
  painted: readonly PaintedTile[] = ids === DEMO_IDS ? PAINTED : [],
): Promise<boolean> {
  const store = await openStore({ data: folder, log: console.error });
  try {
    const [known] = await store.db.select().from(project).limit(1);
    if (known) return false;
    const [limonaia] = await store.db
      .insert(project)
      .values({ id: newId(), name: 'Limonaia', createdAt: new Date() })
      .returning();
    const terrace: Record<string, string> = {};
    for (const { name, tags, sourceName, laidOn, make } of painted) {
      const { source, maps, recipe } = await make();
      const { sha256 } = await storeSource(store.db, store.blobs, store.pool, source);
      for (const map of maps) await storeSource(store.db, store.blobs, store.pool, map);
      const { id } = await makeTile(
        store.db,
        { projectId: limonaia.id, sourceSha256: sha256, name, sourceName },
        recipe,
        tags,
      );
      if (laidOn) terrace[laidOn] = id;
    }
    await store.db.update(project).set({ terrace }).where(eq(project.id, limonaia.id));
    for (const { name, tags, ids: pictures, recipe } of ids === DEMO_IDS ? EXTRA_TILES : []) {
      const refs = [];
      for (const id of pictures) {
        const row = await storeSource(store.db, store.blobs, store.pool, await readFile(demoPicture(id)));
        const { sha256, width, height } = row;
        refs.push({ sha256, width, height, name: `limonaia-${id}.jpg` });
      }
      const [{ sha256, name: sourceName }, ...more] = refs;
      const given = { projectId: limonaia.id, sourceSha256: sha256, name, sourceName };
      await makeTile(store.db, given, recipe(more), tags);
    }
    for (const id of ids) {
      const bytes = await readFile(demoPicture(id));
      const { sha256 } = await storeSource(store.db, store.blobs, store.pool, bytes);
      const names = { name: DEFINITIONS[id].name, sourceName: `limonaia-${id}.jpg` };
      const given = { projectId: limonaia.id, sourceSha256: sha256, ...names };
      await makeTile(store.db, given, demoRecipe(id), TAGS[id]);
    }
    await store.db.insert(palette).values({
      id: newId(),
      projectId: limonaia.id,
      name: 'Terrace at noon',
      colours: NOON,
      createdAt: new Date(),
    });
    await store.db.insert(savedRecipe).values({
      id: newId(),
      name: 'Fired clay, dry',
      recipe: sectionsToSave(demoRecipe('pamments'), ['gauge', 'relief', 'finish']),
      createdAt: new Date(),
    });
    return true;
  } finally {
    await store.close();
  }
}
