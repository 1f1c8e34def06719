// Writes what ran to the file named by GUSSET_RESULTS, for scripts/test.mjs to count, and says every half minute
// which file is at work.
const { writeFileSync } = require('node:fs');
const path = require('node:path');

const SAY_EVERY = 30_000;

module.exports = class Summary {
  onRunStart() {
    this.clock = setInterval(() => {
      if (this.file) process.stderr.write(`… at ${this.file}\n`);
    }, SAY_EVERY);
  }

  onTestFileStart(test) {
    this.file = path.relative(process.cwd(), test.path);
  }

  onRunComplete(_contexts, results) {
    clearInterval(this.clock);
    const file = process.env.GUSSET_RESULTS;
    if (!file) return;
    const passed = results.numPassedTests;
    // A file that was not run to its end is a failure too.
    const ended = results.numPassedTestSuites + results.numFailedTestSuites + results.numPendingTestSuites;
    const lost = results.numTotalTestSuites - ended;
    const failed = results.numFailedTests + results.numRuntimeErrorTestSuites + lost;
    writeFileSync(file, JSON.stringify({ passed, failed }));
  }
};
