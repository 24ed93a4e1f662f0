import { normalRandom, uniformRandom } from '../../random';
import { parseUnit } from '../../units/unit';
import { type Entry } from '../../workings/entries';
import { type ChannelData, type Condition } from '../../workings/run';
import { resultIn } from '../coverage';
import { channelOf } from '../sheet';
import { type Expected, type TruthCase } from './case';

/** Seeded numbers of one repetition: the same for a repetition of a case, whatever else is asked. */
export const chance = (repetition: number, part = 0) => {
  const seed = 7919 * (repetition + 1) + 104_729 * part;
  return { normal: normalRandom(seed), uniform: uniformRandom(seed + 1) };
};

/** An entry of a kind; what is left out means the usual. */
export const entryOf = (kind: string, id: string, fields: object = {}): Entry =>
  ({ kind, id, name: id, region: null, ...fields }) as unknown as Entry;

export const regionEntry = (id: string, letter: string, start: number, end: number): Entry =>
  entryOf('region', id, { letter, along: 't', start, end });

/** A calculation that is called `q`. */
export const formulaEntry = (text: string, unit = ''): Entry =>
  entryOf('calculation', 'q', { formula: { text, names: {} }, unit });

export const comparisonOf = (first: string, second: string): Entry =>
  entryOf('comparison', 'q', { first: `result:${first}`, second: `result:${second}` });

/** Values taken one by one, each with an uncertainty of its own. */
export const spotsOf = (
  key: string,
  unit: string,
  values: Float64Array,
  uncertainty: number,
  places?: Float64Array,
): ChannelData => ({
  ...channelOf(key, unit, values, 1, ''),
  ...(places === undefined ? {} : { timeUnit: parseUnit('cm'), sampling: { kind: 'timed', times: places } }),
  uncertainties: new Float64Array(values.length).fill(uncertainty),
});

/** A case that reads one result of a sheet over made-up channels. */
export const sheetCase = ({
  title,
  expected = 'normal',
  entries,
  channels,
  truth,
  key,
  id = 'q',
  conditions,
  slow,
  costly,
}: {
  title: string;
  expected?: Expected;
  entries: readonly Entry[];
  channels: (repetition: number) => ChannelData[];
  truth: number | ((repetition: number) => number);
  key?: string;
  id?: string;
  conditions?: readonly Condition[];
  slow?: true;
  costly?: true;
}): TruthCase => ({
  title,
  expected,
  ...(slow === undefined ? {} : { slow }),
  ...(costly === undefined ? {} : { costly }),
  trial: (i) => ({
    quantity: resultIn(entries, channels(i), id, key, conditions).quantity,
    truth: typeof truth === 'number' ? truth : truth(i),
  }),
});
