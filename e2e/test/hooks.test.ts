import { closeBrowser } from './stage.ts';

after(() => closeBrowser());
