import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

// What the documents name is there: commands, settings, routes, files and folders.

const documents = [
  'README.md',
  'CONTRIBUTING.md',
  'packages/core/README.md',
  ...readdirSync('docs')
    .filter((name) => name.endsWith('.md') && name !== 'third-party.md')
    .map((name) => join('docs', name)),
].map((path): [path: string, text: string] => [path, readFileSync(path, 'utf8')]);

/** Files of the tree, without what is installed or made. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (!entry.isDirectory()) return [path];
    return /^(node_modules|dist|\.data|\.test-data|\.git)$/.test(entry.name) ? [] : filesIn(path);
  });
const files = filesIn('.');

/** All that matches in a text, once each. */
const found = (text: string, pattern: RegExp): string[] => [
  ...new Set([...text.matchAll(pattern)].map(([whole, part]) => part ?? whole)),
];
/** Text of programs, in which settings are read and routes made. */
const programs = files
  .filter((path) => /^(packages|scripts)\/.*\.(ts|mjs)$/.test(path) && !path.includes('.test.'))
  .map((path) => readFileSync(path, 'utf8'))
  .join('\n');

test.each(documents)('%s: every command is one of package.json', (_, text) => {
  const { scripts } = JSON.parse(readFileSync('package.json', 'utf8')) as {
    scripts: Record<string, string>;
  };
  for (const name of found(text, /npm run ([a-z][a-z:-]*)/g)) expect(Object.keys(scripts)).toContain(name);
});

test.each(documents)('%s: every setting is read by a program', (_, text) => {
  for (const name of found(text, /\bHEURISTOR_[A-Z_]+\b/g)) expect(programs).toContain(name);
});

/** Where the server mounts each maker of routes: “/api/runs” of runRoutes. */
const mounts = [
  ...readFileSync('packages/server/src/app.ts', 'utf8').matchAll(/app\.use\('(\/api[^']*)',([^;]*)\);/g),
].flatMap(([, place, makers]) =>
  [...makers.matchAll(/(\w+Routes?)\(/g)].map(([, maker]): [maker: string, place: string] => [maker, place]),
);

/** Routes as “GET /api/runs/*\/outcomes”: what stands for a part of an address is a star, however it is written. */
const plainRoute = (route: string) => route.replace(/:\w+|<[\w-]+>|\$\{\w+\}/g, '*').replace(/\/$/, '');
const made = readdirSync('packages/server/src/routes').flatMap((name) => {
  const text = readFileSync(join('packages/server/src/routes', name), 'utf8');
  // What stands behind the name of a maker, up to the next one, is its own.
  return text.split(/\bexport (?=function|const)/).flatMap((part) => {
    const [, maker = ''] = /^(?:function|const) (\w+)/.exec(part) ?? [];
    return mounts
      .filter(([mounted]) => mounted === maker)
      .flatMap(([, place]) =>
        [...part.matchAll(/router\.(\w+)\(\s*['`]([^'`]*)['`]/g)].map(
          ([, method, path]) => `${method.toUpperCase()} ${plainRoute(place + path)}`,
        ),
      );
  });
});
/** Whether the server makes a route; a star that it makes stands for a word too, as the kinds of documents do. */
const isMade = (route: string): boolean =>
  made.some((own) => new RegExp(`^${own.replaceAll('*', '[^/]+')}$`).test(plainRoute(route)));

test('a route that nobody makes is noticed', () => {
  expect(made.length).toBeGreaterThan(50);
  expect(isMade('GET /api/runs/:id/outcomes')).toBe(true);
  for (const route of ['GET /api/nothing/:id', 'DELETE /api/runs/:id/outcomes', 'GET /api/runs/:id/a/b'])
    expect([route, isMade(route)]).toEqual([route, false]);
});

test.each(documents)('%s: every route is made by the server', (_, text) => {
  for (const route of found(text, /\b((?:GET|POST|PUT|PATCH|DELETE) \/api\/[\w/:<>-]+)/g))
    expect([route, isMade(route)]).toEqual([route, true]);
});

/** Short names of documents: “core/units” is packages/core/src/units. */
const short = files.map((path) => `/${path.replace(/^packages\//, '').replace('/src/', '/')}`);
const roots = /^(packages|core|contracts|evaluation|server|stand-ins|bridge|web|scripts|e2e|docs|examples)\//;

test.each(documents)('%s: every file and folder is there', (_, text) => {
  const prose = text.replace(/```[\s\S]*?```/g, '');
  const named = [
    ...found(prose, /`([\w./-]+)`/g),
    ...found(prose, /\]\(((?!http)[\w./-]+)\)/g).map((path) => path.replace(/^\.\//, '')),
  ];
  for (const name of named) {
    const isFile = /[\w-]\.(tsx?|css|md|cjs|mjs|py|json|png|c)$/.test(name);
    // What begins with a point is made when something runs.
    if ((!isFile && !roots.test(name)) || name.startsWith('.data')) continue;
    const wanted = `/${name
      .replace(/^(\.\.\/)+/, '')
      .replace(/^packages\//, '')
      .replace('/src/', '/')
      .replace(/\/src$/, '')
      .replace(/\/$/, '')}`;
    const isThere = short.some((path) => path.endsWith(wanted) || path.includes(`${wanted}/`));
    expect([name, isThere]).toEqual([name, true]);
  }
});
