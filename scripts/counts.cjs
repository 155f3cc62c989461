const { mkdirSync, writeFileSync } = require('node:fs');
const { dirname } = require('node:path');
const { reporters } = require('mocha');

/** Mocha's spec report, with the counts and the names of failed tests written to a file for the end of a test run. */
module.exports = class Counts extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const failed = [];
    runner.on('fail', (test) => failed.push(test.titlePath().join(' › ')));
    runner.once('end', () => {
      const file = process.env.ZESTY_COUNTS;
      if (!file) return;
      mkdirSync(dirname(file), { recursive: true });
      const { passes } = this.stats;
      writeFileSync(file, JSON.stringify({ passes, failed }));
    });
  }
};
