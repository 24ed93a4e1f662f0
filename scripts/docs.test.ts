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

/** “/:id/outcomes” and “/<id>/outcomes” are the same place. */
const plainRoute = (route: string) => route.replace(/:\w+|<[\w-]+>|\$\{\w+\}/g, '*');
const made = [...programs.matchAll(/router\.(\w+)\(\s*['`]([^'`]*)['`]/g)].map(
  ([, method, path]): [method: string, path: string] => [method.toUpperCase(), plainRoute(path)],
);

test.each(documents)('%s: every route is made by the server', (_, text) => {
  expect(made.length).toBeGreaterThan(50);
  for (const [, method, path] of text.matchAll(/\b(GET|POST|PUT|PATCH|DELETE) (\/api\/[\w/:<>-]+)/g)) {
    const wanted = plainRoute(path);
    const isMade = made.some(
      ([by, own]) => by === method && own !== '/' && (wanted.endsWith(own) || matches(wanted, own)),
    );
    expect([`${method} ${path}`, isMade]).toEqual([`${method} ${path}`, true]);
  }
});

/** Whether a route that is made stands at the end of one that is named, a part in braces being any. */
function matches(wanted: string, own: string): boolean {
  const [a, b] = [wanted.split('/'), own.split('/').filter((part) => part !== '')];
  return b.every((part, i) => part === '*' || a[a.length - b.length + i] === part);
}

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
