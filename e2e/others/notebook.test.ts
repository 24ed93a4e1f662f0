import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { BenchHand } from '../support/bench';
import { quote, toNotebook, write } from '../support/notebook';
import { type System, downloaded, startSystem } from '../support/system';

// A notebook as a text document, read by Python's own readers of zip and XML: its numbers are those of the sheet.

let system: System;
let hand: BenchHand;

beforeAll(async () => {
  system = await startSystem();
  hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.openCopy(system.site, 'Channel buoy');
  await hand.element('.groups[aria-busy="false"] .card-value .btn-number');
});
afterAll(() => system.close());

/** A text document as Python's own reader of XML sees it: its words, a paragraph a line, and how many of some elements it has. */
const readByPython = (file: string): { words: string; counts: Record<string, number>; said: string[] } =>
  JSON.parse(
    execFileSync(
      '/usr/bin/python3',
      [
        '-c',
        `import json, sys, zipfile
import xml.etree.ElementTree as tree
packed = zipfile.ZipFile(sys.argv[1])
assert packed.testzip() is None
for name in packed.namelist():
    if name.endswith('.xml') or name.endswith('.rels'): tree.fromstring(packed.read(name))
root = tree.fromstring(packed.read('word/document.xml'))
local = lambda element: element.tag.split('}')[1]
lines = [''.join(part.text or '' for part in paragraph.iter() if local(part) == 't') for paragraph in root.iter() if local(paragraph) == 'p']
counts = {}
for element in root.iter(): counts[local(element)] = counts.get(local(element), 0) + 1
said = [element.get('descr') for element in root.iter() if local(element) == 'docPr']
print(json.dumps({'words': '\\n'.join(lines), 'counts': counts, 'said': said}))`,
        file,
      ],
      { encoding: 'utf8', maxBuffer: 2 ** 26 },
    ),
  ) as { words: string; counts: Record<string, number>; said: string[] };

test('the text document has its words, its values, its tables, and its formulas as equations', async () => {
  const periods = (await hand.named('the swing', 'period')).map(({ value }) =>
    value.toPrecision(6).slice(0, 6),
  );
  await system.page.keyboard.press('n');
  await hand.waitForText('What you see is pinned to the notebook.');
  await toNotebook(hand);
  await hand.type('Title of the notebook', 'Which <spring> & why?');
  await hand.type('Group', 'Terns');
  await write(hand, 'It took ');
  await quote(hand, 'period', 'Run 3');
  await system.page.keyboard.type(' since ');
  await hand.press('Formula', '.text-tools');
  await hand.element('.formula-field');
  await system.page.keyboard.type('T = 2\\pi\\sqrt{\\frac{m}{k_0}}');
  await system.page.keyboard.press('Enter');
  // What no native equation can say is a picture with its letters.
  await hand.press('Formula', '.text-tools');
  await hand.element('.formula-field');
  await system.page.keyboard.type(
    '\\bar{T} = \\sum_{i=1}^{n} \\begin{pmatrix} a & b \\\\ c & d \\end{pmatrix}',
  );
  await system.page.keyboard.press('Enter');
  await hand.press('Table of results', '.new-blocks');
  await hand.element('.results-block td');
  await hand.press('Save');
  await hand.item('Save as a text document');
  const file = await downloaded(system.downloads, '.docx');
  const { words, counts, said } = readByPython(file);
  // A root, a fraction and an index as equations (ECMA-376, 22.1), and two tables.
  expect(counts).toMatchObject({ rad: 1, f: 1, sSub: 1, tbl: 2 });
  expect(said[0].slice(0, 14)).toBe('Graph of x / m');
  expect(said[1]).toMatch(/^T.*=∑i=1n.*abcd/);
  expect(words).toContain('Which <spring> & why?');
  expect(words).toMatch(new RegExp(`It took ${periods[2].replace('.', '\\.')}`));
  for (const digits of periods) expect(words.split(digits).length).toBeGreaterThan(2);

  // An office suite reads it: every number of the sheet, and as pages whose pictures are there.
  const made = (kind: string) => {
    const [end] = kind.split(':');
    execFileSync('soffice', ['--headless', '--convert-to', kind, '--outdir', dirname(file), file], {
      stdio: 'ignore',
    });
    return file.replace(/docx$/, end);
  };
  const read = readFileSync(made('txt:Text (encoded):UTF8'), 'utf8');
  for (const digits of periods) expect(read).toContain(digits);
  expect(read).toContain('Which <spring> & why?');
  const printed = readFileSync(made('pdf'), 'latin1');
  expect(printed.slice(0, 5)).toBe('%PDF-');
  // The picture of the traces, and that of the formula.
  expect([...printed.matchAll(/\/Subtype\s*\/Image/g)].length).toBeGreaterThanOrEqual(2);
});

test('printed by the browser it has the numbers of the sheet, and whose it is on every page', async () => {
  const periods = await system.page.$$eval('.results-block tbody tr', (rows) =>
    rows.map((row) => (row as HTMLElement).innerText.match(/\d\.\d+ ± \d\.\d+/)?.[0] ?? 'no number'),
  );
  const file = join(system.downloads, '..', 'printed.pdf');
  await system.page.pdf({ path: file, format: 'A4', printBackground: true, preferCSSPageSize: true });
  execFileSync('soffice', ['--headless', '--convert-to', 'fodg', '--outdir', dirname(file), file], {
    stdio: 'ignore',
  });
  const drawn = readFileSync(file.replace(/pdf$/, 'fodg'), 'utf8');
  const read = drawn
    .slice(drawn.indexOf('<office:body>'))
    .replaceAll(/<[^>]*>/g, '')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&');
  // Whoever reads it back puts spaces and breaks where he likes.
  const plain = (text: string) => text.replaceAll(/\s+/g, '');
  for (const period of periods) expect(plain(read)).toContain(plain(period));
  expect(plain(read)).toContain(plain('Which <spring> & why?'));
  const pages = [...readFileSync(file, 'latin1').matchAll(/\/Type\s*\/Page\b/g)].length;
  expect(plain(read).split('Terns').length - 1).toBeGreaterThanOrEqual(pages);
});
