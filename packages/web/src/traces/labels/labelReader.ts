import { type Label } from '@heuristor/contracts';
import { type SeriesRef, type Unit, readIn, printedUnit, resultRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { useDecimalSign } from '../../ui/decimalSign';
import { fineText, resultWithUnit, roundedText } from '../../ui/numberText';
import { type Frame } from '../drawn';
import { type RunPool } from '../../runs/pool';
import { type CursorValue } from '../../workers/protocol';
import { axisOf } from '../cursor/cursorWords';
import {
  abscissaAxis,
  abscissaOfRuns,
  columnNames,
  entryNames,
  namesOf,
  resultNames,
  seriesChoices,
} from '../../workings/edits';
import { filled } from './labels';
import { pageIn } from '../pages/pages';
import { type Picture } from '../picture';
import { laidRegion, onAxisOf } from '../../workings/regions/regions';
import { RenderLoop } from '../../ui/renderLoop';
import { frontRun, shownRuns } from '../../runs/runs';
import { type Documents, type View } from '../../investigation/state';

/**
 * A label that nobody has typed: `name` stands beside a point because points are to be named, `mark` points at the one that is marked
 * elsewhere, and is in no picture that is saved.
 */
export interface GivenLabel {
  label: Label;
  as: 'name' | 'mark';
}

/** A label as it is shown: its text with values in it, and where it stands. */
export interface ShownLabel {
  label: Label;
  /** `typed` where a person has put it there. */
  as: GivenLabel['as'] | 'typed';
  text: string;
  /** Names in it that nothing is known of. */
  unknown: string[];
  /** Entries whose results stand in it. */
  quotes: string[];
  /** Where what it speaks of stands on the axes of its trace; null where that is at shares of the plot. */
  anchor: { x: number; y: number | null } | null;
}

/** The labels of the page that is looked at, with the values in them. */
export class LabelReader {
  readonly shown: StoreApi<readonly ShownLabel[]> = createStore<readonly ShownLabel[]>(() => []);
  private readonly loop = new RenderLoop(() => this.fill());
  private readonly unlisten: () => void;

  constructor(
    private readonly pool: Pick<RunPool, 'ask'>,
    private readonly documents: StoreApi<Documents>,
    private readonly view: StoreApi<View>,
    private readonly picture: StoreApi<Picture>,
    /** Those that nobody has typed. */
    private readonly given: () => readonly GivenLabel[] = () => [],
  ) {
    const again = () => this.again();
    const unlisten = [picture.subscribe(again), useDecimalSign.subscribe(again)];
    this.unlisten = () => unlisten.forEach((stop) => stop());
  }

  dispose(): void {
    this.unlisten();
    this.loop.dispose();
  }

  /** Reads them anew: something that is not drawn has changed. */
  again(): void {
    if (this.labels.length > 0 || this.shown.getState().length > 0) this.loop.now();
  }

  /** Every value that a label can hold, by the name that stands for it. */
  namesFor(label: Pick<Label, 'at'>): string[] {
    const { runs, workings } = this.documents.getState();
    const nameOf = namesOf({ ...entryNames(workings), ...columnNames(runs) }, abscissaOfRuns(runs));
    const ofSeries =
      label.at.kind === 'point' ? ['t' as const, ...seriesChoices(runs, workings)].map(nameOf) : [];
    return [...ofSeries, ...Object.values(this.results(label)).map(({ name }) => name)];
  }

  private get labels(): readonly { label: Label; as: ShownLabel['as'] }[] {
    const { labels } = pageIn(this.documents.getState().workings, this.view.getState().page);
    return [...labels.map((label) => ({ label, as: 'typed' as const })), ...this.given()];
  }

  private results(label: Pick<Label, 'at'>): { entry: string; name: string; text: string }[] {
    const { runs, workings } = this.documents.getState();
    const runId =
      label.at.kind === 'point' ? label.at.run : (frontRun(runs, this.view.getState().frontRunId)?.id ?? '');
    const outcomes = this.picture.getState().outcomes[runId] ?? {};
    const names = resultNames(workings, outcomes, abscissaOfRuns(runs));
    return workings.entries.flatMap(({ id, shownIn }) => {
      const outcome = outcomes[id];
      if (outcome?.kind !== 'results') return [];
      return outcome.results.map(({ key, value, unit, halfWidth, roundTo }) => ({
        entry: id,
        name: names[resultRef(id, key)],
        text: resultWithUnit({ value, unit, halfWidth, roundTo }, shownIn?.[key]),
      }));
    });
  }

  private async fill(): Promise<void> {
    const { labels } = this;
    const { frame } = this.picture.getState();
    if (frame === null || labels.length === 0) {
      if (this.shown.getState().length > 0) this.shown.setState([], true);
      return;
    }
    try {
      const shown = await Promise.all(labels.map(({ label, as }) => this.shownLabel(label, as, frame)));
      this.shown.setState(
        shown.filter((one) => one !== null),
        true,
      );
    } catch {
      // The workers are gone with their bench.
    }
  }

  private async shownLabel(label: Label, as: ShownLabel['as'], frame: Frame): Promise<ShownLabel | null> {
    const { runs, workings } = this.documents.getState();
    const { at } = label;
    const results = this.results(label);
    const quotes = new Set<string>();
    const resultOf = (name: string) => {
      const found = results.find((result) => result.name === name);
      if (found !== undefined) quotes.add(found.entry);
      return found?.text ?? null;
    };
    const shownAt = (anchor: ShownLabel['anchor'], valueOf: (name: string) => string | null): ShownLabel => {
      const unknown: string[] = [];
      const fill = as === 'typed' ? filled : (text: string) => text;
      const text = fill(label.text, (name) => {
        const value = valueOf(name) ?? resultOf(name);
        if (value === null) unknown.push(name);
        return value;
      });
      return { label, as, text, unknown, quotes: [...quotes], anchor };
    };
    const none = () => null;
    if (at.kind === 'free') return shownAt(null, none);
    if (at.kind === 'region') {
      const region = workings.entries.find(({ id }) => id === at.region);
      if (
        region?.kind !== 'region' ||
        region.along !== pageIn(workings, this.view.getState().page).horizontal
      )
        return null;
      const front = frontRun(runs, this.view.getState().frontRunId)?.id;
      const outcomes = this.picture.getState().outcomes[front ?? ''];
      const lying = laidRegion(region, outcomes?.[region.id], front);
      const laid = lying === null ? null : onAxisOf(lying, frame.horizontal.unit);
      return laid === null ? null : shownAt({ x: (laid.start + laid.end) / 2, y: null }, none);
    }
    // A point of a run that is hidden is hidden with it.
    if (!shownRuns(runs).some(({ id }) => id === at.run)) return null;
    const { horizontal } = pageIn(workings, this.view.getState().page);
    const references: SeriesRef[] = [...seriesChoices(runs, workings)];
    const reading = await this.pool.ask(at.run, 'cursor', {
      workings,
      references,
      at: at.x,
      snap: true,
      tangentPoints: null,
      withNoise: as === 'typed',
    });
    const values = reading?.values ?? {};
    const own = values[at.series];
    const trace = this.picture.getState().traces.find(({ key }) => key === label.panel);
    const quantity = trace?.quantities.find(({ reference }) => reference === at.series);
    if (own === undefined || trace === undefined || quantity === undefined) return null;
    const y = inUnit(own, axisOf(trace, quantity.side).unit);
    const across = horizontal === 't' ? own.x : placeOn(values[horizontal], frame.horizontal.unit);
    if (y === null || across === null) return null;
    const nameOf = namesOf({ ...entryNames(workings), ...columnNames(runs) }, abscissaOfRuns(runs));
    return shownAt({ x: across, y }, (name) => {
      if (name === nameOf('t'))
        return `${horizontal === 't' ? roundedText(own.x, frame.step) : fineText(own.x)} ${printedUnit(abscissaAxis(runs).unit)}`.trim();
      const reference = references.find((one) => nameOf(one) === name);
      const value = reference === undefined ? undefined : values[reference];
      return value === undefined
        ? null
        : `${value.noise === null ? fineText(value.y) : roundedText(value.y, value.noise)} ${printedUnit(value.unit)}`.trim();
    });
  }
}

const placeOn = (value: CursorValue | undefined, unit: Unit): number | null =>
  value === undefined ? null : inUnit(value, unit);

const inUnit = ({ y, unit }: CursorValue, wanted: Unit): number | null => readIn(y, unit, wanted);
