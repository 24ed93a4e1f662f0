import { Refusal } from '../refusal';
import { randomRun, randomSheet } from '../testing/randomSheets';
import { evaluate } from './evaluate';

// Whatever stands on a sheet, over whatever was recorded: numbers, or a sentence that says what is wrong.
test('random sheets over random runs say numbers or refuse, and never meet a fault', () => {
  const faults: string[] = [];
  const told = { results: 0, refused: 0 };
  for (let seed = 0; seed < 1000; seed++) {
    const { outcomes } = evaluate({ entries: randomSheet(seed) }, randomRun(seed));
    for (const [id, outcome] of outcomes) {
      const where = `sheet ${seed}, ${id}`;
      if (outcome.kind === 'refused') {
        told.refused++;
        if (outcome.isFault === true) faults.push(`${where}: ${outcome.sentence}`);
        continue;
      }
      if (outcome.kind !== 'results') continue;
      for (const { key, quantity } of outcome.results) {
        told.results++;
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
  expect(told.results).toBeGreaterThan(3000);
  expect(told.refused).toBeGreaterThan(300);
});
