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
