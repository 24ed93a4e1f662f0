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
  // What other programs of ours lay down meanwhile is none of the sources.
  modulePathIgnorePatterns: ['<rootDir>/.test-data/'],
  transform,
});

/** The real interface in a browser. */
const inBrowser = (displayName) => ({
  ...project(displayName),
  globalSetup: '<rootDir>/jest.bundle.setup.cjs',
  transform: { '\\.tsx?$': require.resolve('./jest.bundle.cjs') },
  setupFilesAfterEnv: ['<rootDir>/jest.long.cjs'],
});

module.exports = {
  testSequencer: '<rootDir>/jest.order.cjs',
  // A test of real devices and a real database on a busy machine takes its time; one that hangs is still ended.
  testTimeout: 240_000,
  projects: [
    {
      ...project('unit'),
      globalSetup: '<rootDir>/jest.bundle.setup.cjs',
      transform: { '\\.tsx?$': require.resolve('./jest.bundle.cjs') },
      testMatch: [
        '<rootDir>/packages/{contracts,core,evaluation,web}/**/*.test.{ts,tsx}',
        // Simulated and reckoned, without a device or a database.
        '<rootDir>/scripts/{compare,demo,faults,pictures}/**/*.test.ts',
      ],
    },
    {
      // Devices and the database, which share what the machine has of them.
      ...project('api'),
      globalSetup: '<rootDir>/jest.bundle.setup.cjs',
      transform: { '\\.tsx?$': require.resolve('./jest.bundle.cjs') },
      testEnvironment: '<rootDir>/jest.steady.cjs',
      testMatch: ['<rootDir>/packages/{bridge,server,stand-ins}/**/*.test.ts'],
    },
    {
      // Scripts start processes, which have the time on the wall.
      ...project('programs'),
      // Packages that are modules only, which Jest's own loader cannot load as they are.
      transform: { ...transform, '^.+\\.js$': ['@swc/jest', { jsc: { target: 'es2022' } }] },
      transformIgnorePatterns: ['/node_modules/(?!(p-queue|p-timeout)/)'],
      setupFilesAfterEnv: ['<rootDir>/jest.long.cjs'],
      testMatch: ['<rootDir>/scripts/*.test.ts'],
    },
    {
      ...inBrowser('browser'),
      testMatch: ['<rootDir>/e2e/*.test.ts'],
    },
    {
      // They need programs of others, which “npm run test:outside” brings in.
      ...inBrowser('others'),
      testMatch: ['<rootDir>/e2e/others/*.test.ts'],
    },
  ],
};
