import { type Run } from '@heuristor/contracts';
import { type HampelRule, type SeriesRef, countIn, madScale, usualRule, without } from '@heuristor/core';
import { tell } from '../../ui/noticeStore';
import { type ChosenReadings, type Outline, type AxisInterval } from '../../workers/protocol';
import { readingsWord } from '../../ui/readingsWord';
import { type Readings, withAside, withoutAside } from './asides';
import { type Host } from '../../investigation/host';

type Part = Pick<Host, 'pool' | 'workings' | 'changeWorkings'>;

const onlyReadings =
  'Only readings that were taken at a rate or at times are set aside. A spot reading is removed in its table; a pass through a gate is left out by what it is.';

/** Sets readings aside, and takes them back: by stretches, one by one, or outliers. */
export class AsideActions {
  constructor(private readonly session: Part) {}

  /** The readings of runs in a stretch are set aside. */
  inside(runs: readonly Run[], of: SeriesRef, interval: AxisInterval): Promise<void> {
    return this.change(runs, of, interval, (found) => found.ranges, true);
  }

  /** All readings of runs but those in a stretch. */
  outside(runs: readonly Run[], of: SeriesRef, interval: AxisInterval): Promise<void> {
    return this.change(runs, of, interval, ({ ranges, total }) => without([[0, total]], ranges), true);
  }

  /** Those in a stretch count again. */
  back(runs: readonly Run[], of: SeriesRef, interval: AxisInterval): Promise<void> {
    return this.change(runs, of, interval, (found) => found.ranges, false);
  }

  /** The readings of a run whose points lie within what a hand has drawn around them. */
  async within(run: Run, outline: Outline): Promise<void> {
    const { pool, workings } = this.session;
    const found = run.spot === null ? await pool.ask(run.id, 'readingsWithin', { workings, outline }) : null;
    if (found === null) tell({ kind: 'news', text: onlyReadings });
    else if (found.ranges.length === 0)
      tell({ kind: 'news', text: `No reading of ${run.name} lies in there.` });
    else this.put([{ run: run.id, channel: found.channel, ranges: found.ranges }]);
  }

  /** Suggests the outliers of a run in an interval; a person decides. */
  async suggest(
    run: Run,
    of: SeriesRef,
    interval: AxisInterval,
    rule: HampelRule = usualRule,
  ): Promise<void> {
    const { pool, workings } = this.session;
    const found = await pool.ask(run.id, 'outliersIn', { workings, reference: of, interval, rule });
    if (found === null || run.spot !== null) {
      tell({ kind: 'news', text: onlyReadings });
      return;
    }
    const count = countIn(found.ranges, 0, found.total);
    const words = `more than ${rule.threshold} × ${madScale} times the median deviation from the median of ${2 * rule.halfWindow + 1} readings about ${count === 1 ? 'it' : 'them'}`;
    if (count === 0) {
      tell({
        kind: 'news',
        text: `No outliers of ${found.channel} in this region of ${run.name}: none is ${words.replace('them', 'it')}.`,
      });
      return;
    }
    tell({
      kind: 'news',
      text: `${readingsWord(count)} of ${found.channel} in ${run.name} ${count === 1 ? 'is an outlier' : 'are outliers'}: ${words}.`,
      action: {
        label: count === 1 ? 'Set it aside' : 'Set them aside',
        run: () => this.put([{ run: run.id, channel: found.channel, ranges: found.ranges }]),
      },
    });
  }

  private put(readings: readonly Readings[]): void {
    this.session.changeWorkings((workings) => withAside(workings, readings));
  }

  private async change(
    runs: readonly Run[],
    of: SeriesRef,
    interval: AxisInterval,
    rangesOf: (found: ChosenReadings) => Readings['ranges'],
    isAside: boolean,
  ): Promise<void> {
    const { pool, workings } = this.session;
    const found = await Promise.all(
      runs
        .filter(({ spot }) => spot === null)
        .map(async ({ id }) => ({
          id,
          chosen: await pool.ask(id, 'readingsIn', { workings, reference: of, interval }),
        })),
    );
    const readings = found.flatMap(({ id, chosen }): Readings[] =>
      chosen === null ? [] : [{ run: id, channel: chosen.channel, ranges: rangesOf(chosen) }],
    );
    if (readings.length === 0) tell({ kind: 'news', text: onlyReadings });
    else if (isAside) this.put(readings);
    else this.session.changeWorkings((sheet) => withoutAside(sheet, readings));
  }
}
