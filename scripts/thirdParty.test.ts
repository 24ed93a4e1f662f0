import { readFileSync } from 'node:fs';
import { thirdPartyList } from './thirdPartyList';

const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
  packages: Record<string, { version?: string; license?: string }>;
};
/** Without the blanks by which a table is laid out. */
const cells = (text: string) =>
  text
    .split('\n')
    .filter((line) => line.startsWith('|') && !line.includes('---'))
    .map((line) => line.split('|').map((cell) => cell.trim().replaceAll('\\', '')));

test('docs/third-party.md lists what ships, with its licences; “npm run third-party” makes it anew', () => {
  const written = cells(readFileSync('docs/third-party.md', 'utf8'));
  expect(written).toEqual(cells(thirdPartyList(lock)));
  expect(written.length).toBeGreaterThan(100);
});

test('a package that names no licence stops it', () => {
  const packages = { ...lock.packages, 'node_modules/nameless': { version: '1.0.0' } };
  expect(() => thirdPartyList({ packages })).toThrow('nameless 1.0.0 names no licence');
});
