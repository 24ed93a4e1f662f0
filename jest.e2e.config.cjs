const base = require('./jest.config.cjs');

module.exports = {
  rootDir: __dirname,
  testMatch: ['<rootDir>/e2e/**/*.test.ts'],
  testEnvironment: 'node',
  transform: base.projects[0].transform,
  testTimeout: 180000,
  maxWorkers: 1,
};
