module.exports = {
  rootDir: __dirname,
  testMatch: ['<rootDir>/e2e/**/*.test.ts'],
  testEnvironment: 'node',
  globalSetup: '<rootDir>/jest.bundle.setup.cjs',
  transform: { '\\.ts$': require.resolve('./jest.bundle.cjs') },
  testTimeout: 180000,
  maxWorkers: 1,
};
