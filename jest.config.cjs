const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
    },
  ],
};

module.exports = {
  // A test of real devices and a real database on a busy machine takes its time; one that hangs is still ended.
  testTimeout: 30_000,
  projects: [
    {
      displayName: 'unit',
      rootDir: __dirname,
      testMatch: ['<rootDir>/packages/**/*.test.{ts,tsx}', '<rootDir>/scripts/**/*.test.ts'],
      testEnvironment: 'node',
      transform,
    },
  ],
};
