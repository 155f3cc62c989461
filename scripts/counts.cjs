const { mkdirSync, writeFileSync } = require('node:fs');
const { dirname } = require('node:path');
const { reporters } = require('mocha');

/**
 * Mocha's spec report; at its end the counts, and the names of tests that failed or were tried again, are written to a file.
 */
module.exports = class Counts extends reporters.Spec {
  constructor(runner, options) {
    super(runner, options);
    const failed = [];
    const again = [];
    const nameOf = (test) => test.titlePath().join(' › ');
    runner.on('fail', (test) => failed.push(nameOf(test)));
    runner.on('retry', (test, error) => again.push(`${nameOf(test)}: ${error.message}`));
    runner.once('end', () => {
      const file = process.env.ZESTY_COUNTS;
      if (!file) return;
      mkdirSync(dirname(file), { recursive: true });
      const { passes } = this.stats;
      writeFileSync(file, JSON.stringify({ passes, failed, again }));
    });
  }
};
