export type { App } from './app.ts';
export { palette, project, savedRecipe } from './db/schema.ts';
export { newId } from './ids.ts';
export { setLook } from './looks.ts';
export { storeSource } from './routes/sources.ts';
export { newestRevision } from './routes/tile-row.ts';
export { makeTile } from './routes/tiles.ts';
export { openStore, type ServeOptions, serve, startWorker } from './serve.ts';
