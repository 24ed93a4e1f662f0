const { default: Sequencer } = require('@jest/test-sequencer');

/** What is long comes first, and what only computes last, so that all cores have work until the end. */
const order = ['browser', 'others', 'api', 'programs', 'unit'];

const place = (test) => order.indexOf(test.context.config.displayName?.name);

module.exports = class LongestFirst extends Sequencer {
  sort(tests) {
    // Jest sorts by how long each took before, or by its size.
    return [...super.sort(tests)].sort((a, b) => place(a) - place(b));
  }
};
