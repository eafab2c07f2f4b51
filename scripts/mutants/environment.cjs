const { TestEnvironment } = require('jest-environment-node');

/** A mutant is dead with its first failing test: the tests after that one are skipped. */
module.exports = class extends TestEnvironment {
  failed = false;

  async handleTestEvent(event) {
    if (!process.env.__STRYKER_ACTIVE_MUTANT__) return;
    if (event.name === 'test_done' && event.test.errors.length) this.failed = true;
    if (event.name === 'test_start' && this.failed) event.test.mode = 'skip';
  }
};
