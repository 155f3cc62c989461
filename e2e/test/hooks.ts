import { config } from 'chai';
import { closeBrowser, wordsOfPages } from './stage.ts';

// Print the full list of errors that a page met.
config.truncateThreshold = 0;

/** Around the tests of every process: what is on the pages of one that failed, and an end of its browser. */
export const mochaHooks = {
  async afterEach(this: Mocha.Context) {
    // One that is tried again has no state.
    if (this.currentTest?.state !== 'passed') console.log(await wordsOfPages());
  },
  afterAll: () => closeBrowser(),
};
