module.exports = {
  rootDir: __dirname,
  testMatch: ['<rootDir>/e2e/**/*.test.ts'],
  // They need programs of others, which “npm run test:outside” brings in.
  testPathIgnorePatterns: ['/node_modules/', '<rootDir>/e2e/others/'],
  testEnvironment: 'node',
  globalSetup: '<rootDir>/jest.bundle.setup.cjs',
  transform: { '\\.ts$': require.resolve('./jest.bundle.cjs') },
  testTimeout: 180000,
  maxWorkers: 1,
};
