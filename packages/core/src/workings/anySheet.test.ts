import { Refusal } from '../refusal';
import { repetitions } from '../testing/effort';
import { randomRun, randomSheet } from '../testing/randomSheets';
import { evaluate } from './evaluate';

// Whatever stands on a sheet, over whatever was recorded: numbers, or a sentence that says what is wrong.
test('random sheets over random runs say numbers or refuse, and never meet a fault', () => {
  const faults: string[] = [];
  const found = { results: 0, refused: 0 };
  const sheets = repetitions(300, 1000);
  for (let seed = 0; seed < sheets; seed++) {
    const { outcomes } = evaluate({ entries: randomSheet(seed) }, randomRun(seed));
    for (const [id, outcome] of outcomes) {
      const where = `sheet ${seed}, ${id}`;
      if (outcome.kind === 'refused') {
        found.refused++;
        if (outcome.isFault === true) faults.push(`${where}: ${outcome.sentence}`);
        continue;
      }
      if (outcome.kind !== 'results') continue;
      for (const { key, quantity } of outcome.results) {
        found.results++;
        const u = quantity.standardUncertainty;
        if (u !== null && !(u >= 0)) faults.push(`${where}: ${key} = ${quantity.value} ± ${u}`);
        if (Number.isNaN(quantity.value) && u !== null) faults.push(`${where}: ${key} is no number, with ±`);
        try {
          quantity.influences();
        } catch (error) {
          if (!(error instanceof Refusal)) faults.push(`${where}: influences of ${key}: ${String(error)}`);
        }
      }
    }
  }
  expect(faults).toEqual([]);
  // Chance has to have asked for something.
  expect(found.results).toBeGreaterThan(3 * sheets);
  expect(found.refused).toBeGreaterThan(0.3 * sheets);
});
