import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { readKept, writeKept } from './keptFile';

const schema = z.object({ port: z.number(), password: z.string() });
let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'heuristor-'))));
afterEach(() => rmSync(folder, { recursive: true }));

test('what was kept is read back, and nothing half-made stays beside it', () => {
  const file = join(folder, 'cluster.json');
  writeKept(file, { port: 1, password: 'a' });
  writeKept(file, { port: 2, password: 'b' });
  expect(readKept(file, schema)).toEqual({ port: 2, password: 'b' });
  expect(readdirSync(folder)).toEqual(['cluster.json']);
});

test.each([
  ['empty', ''],
  ['cut off', '{"port":54610,"pass'],
  ['another thing', '[1,2]'],
  ['half of it', '{"port":54610}'],
  ['of the wrong kind', '{"port":"54610","password":"a"}'],
])('a file that is %s counts as none', (_, text) => {
  const file = join(folder, 'cluster.json');
  writeFileSync(file, text);
  expect(readKept(file, schema)).toBeNull();
});

test('a file that is not there counts as none', () =>
  expect(readKept(join(folder, 'nothing.json'), schema)).toBeNull());
