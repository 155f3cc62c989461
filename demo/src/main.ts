import { fileURLToPath } from 'node:url';
import { makeMissingPictures } from './generate.ts';
import { seed } from './seed.ts';

const folder = process.env.ZESTY_DATA ?? fileURLToPath(new URL('../../data', import.meta.url));
await makeMissingPictures();
if (await seed(folder)) console.log('The Limonaia project is in the Yard.');
