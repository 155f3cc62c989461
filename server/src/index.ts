export type { App } from './app.ts';
export { palette, project, savedRecipe } from './db/schema.ts';
export { newId } from './ids.ts';
export { openStore, type ServeOptions, serve, startWorker } from './serve.ts';
export { setLook } from './store/looks.ts';
export { newestRevision } from './store/revisions.ts';
export { storeSource } from './store/sources.ts';
export { makeTile } from './store/tiles.ts';
