export { RIPPLE_SHOTS } from './extra.ts';
export { demoPicture, makeMissingPictures, writeLantern } from './generate.ts';
export { LANTERN } from './objects/lantern.ts';
export { demoRecipe } from './recipes.ts';
export { seed } from './seed.ts';
export { DEMO_IDS, DEMO_WIDTH, type DemoId, type DemoSource, makeSource } from './sources.ts';
