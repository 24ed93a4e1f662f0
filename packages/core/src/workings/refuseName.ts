import { sameName } from '../formula/names';
import { Refusal } from '../refusal';
import { type Entry } from './entries';

/** Refuses a name that means nothing here, and says what was likely meant. @throws Refusal always */
export function refuseName(name: string, entries: readonly Entry[], symbols: readonly string[]): never {
  const known = [...entries.map((entry) => entry.name), ...symbols, 't']
    .filter((one) => one !== '')
    .map(sameName);
  const inTwo = [...name].slice(1).flatMap((_, i) => {
    const [left, right] = [name.slice(0, i + 1), name.slice(i + 1)];
    return known.includes(sameName(left)) && known.includes(sameName(right)) ? [`${left} ${right}`] : [];
  });
  const otherCase = known.find((one) => one.toLowerCase() === sameName(name).toLowerCase());
  const hint =
    inTwo.length > 0
      ? ` Is ${inTwo[0]} meant, with a space?`
      : otherCase !== undefined
        ? ` Is ${otherCase} meant?`
        : ` Add a constant ${name}, or take a name that stands on the sheet.`;
  throw new Refusal(`Nothing here is called “${name}”.${hint}`);
}
