// Writes what ran to the file named by GUSSET_RESULTS, for scripts/test.mjs to count, says every half minute which file
// is at work, and at the end which tests took longest.
const { writeFileSync } = require('node:fs');
const path = require('node:path');

const SAY_EVERY = 30_000;
/** Of a part so many of the longest tests are named. */
const LONGEST = 12;

/** Names the tests that took longest, in seconds. */
function nameLongest({ testResults }) {
  const all = testResults.flatMap(({ testFilePath, testResults: tests }) =>
    tests.map(({ fullName, duration }) => ({
      name: `${path.relative(process.cwd(), testFilePath)}: ${fullName}`,
      duration: duration ?? 0,
    })),
  );
  const longest = all.sort((a, b) => b.duration - a.duration).slice(0, LONGEST);
  for (const { name, duration } of longest)
    process.stderr.write(`${Math.round(duration / 1000)} s  ${name}\n`);
}

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
    nameLongest(results);
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
