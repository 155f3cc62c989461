export { DEMO_IDS, DEMO_WIDTH, type DemoId, type DemoSource, makeSource } from './sources.ts';
