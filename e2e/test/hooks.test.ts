import { closeBrowser, wordsOfPages } from './stage.ts';

afterEach(async function () {
  if (this.currentTest?.state === 'failed') console.log(await wordsOfPages());
});
after(() => closeBrowser());
