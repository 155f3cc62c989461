export type { App } from './app.ts';
export { project } from './db/schema.ts';
export { newId } from './ids.ts';
export { storeSource } from './routes/sources.ts';
export { makeTile, newestRevision } from './routes/tiles.ts';
export { openStore, type ServeOptions, serve } from './serve.ts';
