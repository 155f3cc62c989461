const { mkdirSync, writeFileSync } = require('node:fs');
const { dirname } = require('node:path');
const { reporters } = require('mocha');

/** Mocha's spec report, with the counts written to a file for the sum at the end of a test run. */
module.exports = class Counts extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    runner.once('end', () => {
      const file = process.env.ZESTY_COUNTS;
      if (!file) return;
      mkdirSync(dirname(file), { recursive: true });
      const { passes, failures } = this.stats;
      writeFileSync(file, JSON.stringify({ passes, failures }));
    });
  }
};
