/* global jest */

// A test in a browser, or one that starts programs, is long: what a class does in minutes.
jest.setTimeout(180_000);
