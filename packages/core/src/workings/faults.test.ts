import { channelOf } from '../testing/sheet';
import { type Entry } from './entries';
import { evaluate } from './evaluate';
import { kindOf } from './entries';

test('a fault of the program in one entry is said in that entry, and all others stand', () => {
  const peaks = kindOf('peaks');
  const broken = jest.spyOn(peaks, 'evaluate').mockImplementation(() => {
    throw new TypeError('no such thing');
  });
  const of = { of: 'channel:x', region: null };
  const { outcomes } = evaluate(
    {
      entries: [
        { kind: 'peaks', id: 'p', name: '', ...of },
        { kind: 'statistics', id: 's', name: '', ...of },
        {
          kind: 'comparison',
          id: 'c',
          name: '',
          first: 'result:p/peak',
          second: 'result:s/mean',
        },
      ] as Entry[],
    },
    { id: 'r', channels: [channelOf('x', 'm', Float64Array.of(1, 2, 4), 1)] },
  );
  broken.mockRestore();
  expect(outcomes.get('p')).toMatchObject({ kind: 'refused', isFault: true });
  expect(outcomes.get('c')?.kind).toBe('refused');
  expect(outcomes.get('s')?.kind).toBe('results');
});
