/** Dependencies point one way: core ← contracts ← evaluation ← server, web; stand-ins and bridge know contracts. */
const only = (name, from, ...allowed) => ({
  name,
  severity: 'error',
  from: { path: `^packages/${from}/` },
  to: { path: '^packages/', pathNot: [from, ...allowed].map((folder) => `^packages/${folder}/`) },
});

/** Rooms of the server, each of which knows those before it and none of those after it. */
const serverRooms = [
  'models',
  'services',
  'link',
  'presence',
  'sensors',
  '(evaluation|senml)',
  'queue',
  'processes',
  'recorder',
  '(spots|away|imports|photographs)',
  'live',
  'routes',
];

module.exports = {
  forbidden: [
    ...serverRooms.slice(0, -1).map((room, i) => ({
      name: `server-${room}-knows-no-later-room`,
      severity: 'error',
      from: { path: `^packages/server/src/${room}/`, pathNot: '[.]test[.]ts$' },
      to: { path: `^packages/server/src/(${serverRooms.slice(i + 1).join('|')})/` },
    })),
    only('core-stands-alone', 'core'),
    only('contracts-know-core-only', 'contracts', 'core'),
    only('evaluation-knows-core-and-contracts', 'evaluation', 'core', 'contracts'),
    only('server-knows-core-contracts-and-evaluation', 'server', 'core', 'contracts', 'evaluation'),
    only('stand-ins-know-contracts', 'stand-ins', 'core', 'contracts'),
    only('bridge-knows-contracts', 'bridge', 'core', 'contracts'),
    only('web-knows-core-contracts-and-evaluation', 'web', 'core', 'contracts', 'evaluation'),
    {
      name: 'page-asks-workers-and-runs-nothing-of-theirs',
      severity: 'error',
      from: {
        path: '^packages/web/src/',
        pathNot: '^packages/web/src/(workers|drawing|testing)/|[.]test[.]tsx?$',
      },
      to: { path: '^packages/web/src/(workers|drawing)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'web-what-rooms-share-knows-none-of-them',
      severity: 'error',
      from: { path: '^packages/web/src/(ui|api)/' },
      to: { path: '^packages/web/src/(?!ui/|api/)' },
    },
    {
      name: 'web-home-stage-and-phone-know-no-investigation',
      severity: 'error',
      from: { path: '^packages/web/src/(home|stage|phone)/' },
      to: { path: '^packages/web/src/(investigation|traces|workings|recording|files|table)/' },
    },
    {
      name: 'packages-know-no-scripts-or-browser-tests',
      severity: 'error',
      from: { path: '^packages/' },
      to: { path: '^(scripts|e2e)/' },
    },
    {
      name: 'core-has-no-node-and-no-framework',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '[.]test[.]ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-uses-only-its-own-libraries',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '[.]test[.]ts$' },
      to: {
        path: 'node_modules/',
        pathNot: 'node_modules/(fft[.]js|papaparse|@types/papaparse|@stdlib/[^/]+)/',
      },
    },
    {
      name: 'only-declared-packages',
      severity: 'error',
      // Tests of a package use what the whole tree is tested with.
      from: { path: '^(packages|scripts|e2e)/', pathNot: '^packages/.*([.]test[.]tsx?|/testing/.*)$' },
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '[.]css$|^@fontsource' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/|vite[.]d[.]ts$' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
