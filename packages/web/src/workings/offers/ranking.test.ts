import { type RelationKey, parseUnit } from '@heuristor/core';
import { type RankedRelation } from '../../workers/offered';
import { type ShownOutcome } from '../../workers/protocol';
import { type ValuedOffer, likelyOffers, rankedFits } from './ranking';
import { regionOffers } from './regionOffers';

const result = (key: string, value: number, halfWidth: number | null): ShownOutcome => ({
  kind: 'results',
  results: [
    {
      key,
      name: key,
      value,
      halfWidth,
      standardUncertainty: halfWidth,
      degreesOfFreedom: null,
      unit: parseUnit('m'),
      roundTo: null,
      main: true,
    },
  ],
  notes: [],
  correlations: null,
  count: null,
});

const refused: ShownOutcome = { kind: 'refused', sentence: 'needs more readings' };

/** All offers, with what is known of some by their titles. */
const offersWith = (known: Record<string, ShownOutcome>): ValuedOffer[] =>
  regionOffers.map((offer) => ({ offer, outcome: known[offer.title] ?? refused }));

const relation = (key: RelationKey, rSquared: number): RankedRelation => ({
  key,
  rSquared,
  gap: 0,
  hasPattern: false,
});
const titles = (offers: readonly ValuedOffer[]) => offers.map(({ offer }) => offer.title);

test('what stands still is asked for its mean', () => {
  const offers = offersWith({
    mean: result('mean', 1, 0.01),
    slope: result('slope', 0.001, 0.002),
    line: result('slope', 0.001, 0.002),
  });
  expect(titles(likelyOffers(offers, [relation('line', 0.01)]))[0]).toBe('mean');
});

test('of a straight line the slope stands first, then the line', () => {
  const offers = offersWith({
    mean: result('mean', 1, 0.01),
    slope: result('slope', 0.5, 0.002),
    line: result('slope', 0.5, 0.002),
    area: result('area', 3, 0.1),
  });
  expect(titles(likelyOffers(offers, [relation('line', 0.999), relation('parabola', 0.999)]))).toEqual([
    'slope',
    'line',
    'mean',
    'area',
  ]);
});

test('of a swing the best relation stands first, then its periods and peaks; what was refused is none of them', () => {
  const offers = offersWith({
    sine: result('period', 0.94, 0.001),
    periods: result('period', 0.94, 0.003),
    peaks: {
      ...(result('amplitude', 0.03, 0.001) as Extract<ShownOutcome, { kind: 'results' }>),
      results: [
        ...(result('amplitude', 0.03, 0.001) as Extract<ShownOutcome, { kind: 'results' }>).results,
        ...(result('count', 5, null) as Extract<ShownOutcome, { kind: 'results' }>).results,
      ],
    },
    slope: result('slope', 0.001, 0.0001),
  });
  expect(titles(likelyOffers(offers, [relation('sine', 0.99), relation('line', 0.02)]))).toEqual([
    'sine',
    'periods',
    'peaks',
    'slope',
  ]);
});

test('a relation that explains little is no likely one', () => {
  const offers = offersWith({
    mean: result('mean', 1, 0.01),
    slope: result('slope', 0.5, 0.02),
    parabola: result('acceleration', 1, 0.5),
  });
  expect(titles(likelyOffers(offers, [relation('parabola', 0.2)]))).toEqual(['slope', 'mean']);
});

test('fits stand in the order in which they explain the readings; the others follow as they are listed', () => {
  const fits = offersWith({}).filter(({ offer }) => offer.kind === 'fit');
  const [first, second, ...rest] = titles(
    rankedFits(fits, [relation('sine', 0.99), relation('parabola', 0.5)]),
  );
  expect([first, second]).toEqual(['sine', 'parabola']);
  expect(rest).toEqual(titles(fits).filter((title) => title !== 'sine' && title !== 'parabola'));
});
