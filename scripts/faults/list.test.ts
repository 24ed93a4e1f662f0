import { readFileSync } from 'node:fs';
import { seededFaults } from './list';

test.each(seededFaults)('a fault can be put where it belongs: $what', ({ file, find, replace }) => {
  const parts = readFileSync(file, 'utf8').split(find);
  // It stands there once, and is another one afterwards.
  expect(parts).toHaveLength(2);
  expect(replace).not.toBe(find);
});
