const { TestEnvironment } = require('jest-environment-node');

const [wallMilliseconds, milliseconds] = [2, 10];

/**
 * Node with a time of its own for tests of devices and of the database: five times as fast as on the wall, and only as long as the
 * process that tests gets on. On a busy machine time stands still rather than leaps, so that no test hangs on the machine's pace.
 * A test that needs the time on the wall begins with the comment `@jest-environment node`.
 */
module.exports = class SteadyTime extends TestEnvironment {
  async setup() {
    await super.setup();
    const timers = this.fakeTimersModern;
    timers.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate', 'clearImmediate'] });
    this.passing = setInterval(() => timers.advanceTimersByTime(milliseconds), wallMilliseconds);
  }

  async teardown() {
    clearInterval(this.passing);
    await super.teardown();
  }
};
