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

const project = (displayName) => ({
  displayName,
  rootDir: __dirname,
  testEnvironment: 'node',
  transform,
});

module.exports = {
  // A test of real devices and a real database on a busy machine takes its time; one that hangs is still ended.
  testTimeout: 30_000,
  projects: [
    {
      ...project('unit'),
      globalSetup: '<rootDir>/jest.bundle.setup.cjs',
      transform: { '\\.tsx?$': require.resolve('./jest.bundle.cjs') },
      testMatch: [
        '<rootDir>/packages/{contracts,core,evaluation,web}/**/*.test.{ts,tsx}',
        // Simulated and reckoned, without a device or a database.
        '<rootDir>/scripts/{compare,demo,pictures}/**/*.test.ts',
      ],
    },
    {
      // Devices, the database and processes, which share what the machine has of them.
      ...project('api'),
      testMatch: ['<rootDir>/packages/{bridge,server,stand-ins}/**/*.test.ts', '<rootDir>/scripts/*.test.ts'],
    },
  ],
};
