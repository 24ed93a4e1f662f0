import { type EntryOfKind, type SeriesRef } from '@heuristor/core';
import { tell } from '../../ui/noticeStore';
import { type Host } from '../../investigation/host';
import { withRegion } from '../edits';
import { pageIn } from '../../traces/pages/pages';
import { type LaidRegion, fromAxis, laidRegion, laidRegions, placed, withOwn, withoutOwn } from './regions';

type Part = Pick<
  Host,
  | 'workings'
  | 'picture'
  | 'front'
  | 'view'
  | 'viewing'
  | 'changeEntry'
  | 'changeWorkings'
  | 'looking'
  | 'onPage'
>;
type Region = EntryOfKind<'region'>;

/** Marks regions, and moves them: in all runs, or in the one in front alone. */
export class RegionActions {
  constructor(private readonly session: Part) {}

  private regionIn(entries: Part['workings']['entries'] | undefined, id: string): Region | null {
    const found = entries?.find((entry) => entry.id === id);
    return found?.kind === 'region' ? found : null;
  }

  /** Where the last picture has laid a region in the run in front. */
  private laid(id: string): { before: Region; laid: LaidRegion | null } | null {
    const { front, picture } = this.session;
    const { workings, outcomes } = picture.getState();
    const before = this.regionIn(workings?.entries, id);
    if (before === null) return null;
    return { before, laid: laidRegion(before, outcomes[front?.id ?? '']?.[id], front?.id) };
  }

  /**
   * Marks a region on the axis of the page that is looked at, and selects it.
   * @param series whose trace it was marked on; null where on none
   * @returns its id
   */
  mark(start: number, end: number, series: SeriesRef | null): string {
    let id = '';
    this.session.changeWorkings((workings) => {
      const made = withRegion(workings, this.session.onPage.page, start, end);
      ({ id } = made);
      return made.workings;
    });
    this.session.viewing.selectRegion(id);
    this.session.viewing.selectSeries(series);
    return id;
  }

  /** Puts ends of a region to places that are meant in the run in front, in the unit in which it is given. */
  place(id: string, ends: Partial<Pick<Region, 'start' | 'end'>>): void {
    const region = this.regionIn(this.session.workings.entries, id);
    if (region === null) return;
    const known = this.laid(id) ?? { before: region, laid: null };
    this.session.changeEntry(id, placed(region, this.session.front?.id, ends, known));
  }

  /** The same, to places of the axis that is shown. */
  placeOnAxis(id: string, ends: Partial<Pick<Region, 'start' | 'end'>>): void {
    const region = this.regionIn(this.session.workings.entries, id);
    const axis = this.session.picture.getState().frame?.horizontal.unit;
    if (region !== null) this.place(id, fromAxis(region, ends, axis));
  }

  /** From now on the region lies elsewhere in the run in front than in the others. */
  adjustHere(id: string): void {
    const region = this.regionIn(this.session.workings.entries, id);
    const { front } = this.session;
    if (region === null || front === undefined) return;
    const laid =
      this.laid(id)?.laid ?? laidRegion({ ...region, from: null, until: null }, undefined, front.id);
    if (laid !== null) this.session.changeEntry(id, withOwn(region, front.id, laid));
  }

  /** The region lies in a run where it lies in the others. */
  putBack(id: string, run: string): void {
    const region = this.regionIn(this.session.workings.entries, id);
    if (region !== null) this.session.changeEntry(id, { own: withoutOwn(region, run) });
  }

  /** Only the region in hand is looked at, and all again. */
  lookAt(): void {
    const { workings, view, picture, front, onPage, looking } = this.session;
    const { selectedRegion } = view.getState();
    const { horizontal } = pageIn(workings, onPage.page);
    const { outcomes, frame } = picture.getState();
    const own = laidRegions(workings.entries, horizontal, outcomes[front?.id ?? ''], {
      run: front?.id,
      axis: frame?.horizontal.unit,
    });
    const region = own.find(({ id }) => id === selectedRegion) ?? own.at(-1);
    if (region === undefined) {
      tell({ kind: 'news', text: 'There is no region on this axis. Drag over a trace to mark one.' });
      return;
    }
    looking.only({ from: region.start, to: region.end });
  }
}
