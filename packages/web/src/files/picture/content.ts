import { type SheetSession } from '../../investigation/sheetSession';
import { type SeenRun } from '../../runs/seenRun';
import { type ShownLabel } from '../../traces/labels/labelReader';
import { pageIn } from '../../traces/pages/pages';
import { laidRegions } from '../../workings/regions/regions';
import { shownRuns } from '../../runs/runs';
import { type DrawnTrace, type Frame } from '../../traces/drawn';
import { type DrawnGraph } from '../../traces/ownGraphs/composeGraphs';
import { type StyleOfRun } from '../../traces/chartSetup';
import { type RegionBounds } from '../../traces/geometry';
import { type Sight } from '../../workers/protocol';
import { shortText } from '../../ui/numberText';

/** All that a picture shows, as it stands on the bench. */
export interface PictureContent {
  title: string;
  /** What stands under the title: the runs, each with its style. */
  runs: { text: string; style: number }[];
  /** Runs that do not lie where they were recorded. */
  remarks: string[];
  traces: DrawnTrace[];
  graphs: DrawnGraph[];
  frame: Frame;
  isTime: boolean;
  styles: ReadonlyMap<string, StyleOfRun>;
  regions: RegionBounds[];
  spans: readonly Sight[];
  labels: readonly ShownLabel[];
}

/**
 * What stands on the bench, to be drawn elsewhere.
 * @param only key of the trace that is wanted alone; null for the whole page
 * @returns null where nothing is drawn yet
 */
export function contentOf(session: SheetSession, only: string | null): PictureContent | null {
  const { name, runs, workings } = session.documents.getState();
  const { frame, traces, graphs, outcomes } = session.picture.getState();
  const shown = shownRuns(runs);
  if (frame === null || shown.length === 0) return null;
  const { front } = session;
  const { horizontal } = pageIn(workings, session.onPage.page);
  const isWanted = ({ key }: { key: string }) => only === null || key === only;
  const drawn = traces.filter(isWanted);
  const own = graphs.filter(isWanted);
  if (drawn.length + own.length === 0) return null;
  return {
    title: name,
    runs: session.isOfTables
      ? groupsShown(shown)
      : shown.map(({ number, name: runName, group, style }) => ({
          text: `${number} · ${runName}${group === '' ? '' : ` (${group})`}`,
          style,
        })),
    remarks: workings.shifts.flatMap(({ run, by }) => {
      const moved = shown.find(({ id }) => id === run);
      return moved === undefined || by === 0 ? [] : [`${moved.name} is moved by ${shortText(by, 4)} s`];
    }),
    traces: drawn,
    graphs: own,
    frame,
    isTime: horizontal === 't',
    styles: new Map(runs.map((run) => [run.id, { style: run.style, front: run.id === front?.id }])),
    regions: laidRegions(workings.entries, horizontal, outcomes[front?.id ?? ''], {
      run: front?.id,
      axis: frame.horizontal.unit,
    }),
    spans: session.documents.getState().spans ?? [],
    labels: session.labels.shown.getState().filter(({ as }) => as !== 'mark'),
  };
}

/** The groups of a table, where they are drawn apart; a table as a whole needs no name. */
const groupsShown = (runs: readonly SeenRun[]): PictureContent['runs'] =>
  runs.length < 2 ? [] : runs.map(({ name, style }) => ({ text: name, style }));

/** The traces of which a picture can be made, by their keys. */
export const pictureChoices = (session: SheetSession): { key: string; symbol: string }[] => {
  const { traces, graphs } = session.picture.getState();
  return [
    ...traces.filter(({ reference }) => reference !== null).map(({ key, symbol }) => ({ key, symbol })),
    ...graphs.map(({ key, vertical }) => ({ key, symbol: vertical.symbol })),
  ];
};

/** The same, where there has to be something. @throws Error where nothing is drawn yet */
export function shownContent(session: SheetSession, only: string | null): PictureContent {
  const content = contentOf(session, only);
  if (content === null)
    throw new Error('Nothing is shown that a picture could be made of. Show a run first.');
  return content;
}
