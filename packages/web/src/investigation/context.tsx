import { type Page, type Run, type WorkingsDocument } from '@heuristor/contracts';
import { type EntryOfKind, type ResultRef } from '@heuristor/core';
import { type ReactNode, createContext, useContext, useMemo } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { type InvestigationSession } from './investigationSession';
import { type SheetSession } from './sheetSession';
import { type CursorState } from '../traces/cursor/cursor';
import { type DialogSubjects } from './dialogs';
import {
  abscissaAxis,
  abscissaOfRuns,
  columnNames,
  entryNames,
  namesOf,
  resultNames,
  resultsUsedBy,
} from '../workings/edits';
import { type Axis, type ShownOutcome } from '../workers/protocol';
import { type Picture } from '../traces/picture';
import { type Nameable, nameables } from '../workings/formulas/formulas';
import { pageIn } from '../traces/pages/pages';
import { type LaidRegion, isAttached, laidRegion, onAxisOf } from '../workings/regions/regions';
import { rememberedLast } from '../ui/rememberedLast';
import { frontRun } from '../runs/runs';
import { type Documents, type View } from './state';
import { wayOf } from '../recording/ways';

const InvestigationContext = createContext<InvestigationSession | null>(null);
const SheetContext = createContext<SheetSession | null>(null);

/** An investigation and its pages; the sheet that they work on is that of its runs, unless another one stands nearer. */
export function SessionProvider({
  session,
  children,
}: {
  session: InvestigationSession;
  children: ReactNode;
}) {
  return (
    <InvestigationContext value={session}>
      <SheetContext value={session}>{children}</SheetContext>
    </InvestigationContext>
  );
}

/** A part of a page that works on another sheet. */
export function SheetProvider({ sheet, children }: { sheet: SheetSession; children: ReactNode }) {
  return <SheetContext value={sheet}>{children}</SheetContext>;
}

/** The investigation whose page this component stands on. */
export function useInvestigation(): InvestigationSession {
  const session = useContext(InvestigationContext);
  if (session === null) throw new Error('this component stands outside an investigation');
  return session;
}

/** The sheet that this component works on. */
export function useSession(): SheetSession {
  const session = useContext(SheetContext);
  if (session === null) throw new Error('this component stands outside a sheet');
  return session;
}

/** A part of the documents; the component hears of nothing else. */
export const useDocuments = <T,>(part: (documents: Documents) => T): T =>
  useStore(useSession().documents, part);
/** The same of the investigation, on whichever sheet. */
export const useInvestigationDocuments = <T,>(part: (documents: Documents) => T): T =>
  useStore(useInvestigation().documents, part);
export const useView = <T,>(part: (view: View) => T): T => useStore(useSession().view, part);
export const useCursor = <T,>(part: (cursor: CursorState) => T): T =>
  useStore(useSession().cursor.state, part);
export const usePicture = <T,>(part: (picture: Picture) => T): T => useStore(useSession().picture, part);

/** What a question over the page is about; undefined while it is not asked. */
export const useDialog = <K extends keyof DialogSubjects>(dialog: K): DialogSubjects[K] | undefined =>
  useStore(useSession().dialogs.state, ({ asked }) => asked[dialog]);

export function useFrontRun() {
  const runs = useDocuments((documents) => documents.runs);
  const chosen = useView((view) => view.frontRunId);
  return frontRun(runs, chosen);
}

/** The regions of the axis that is shown, as they lie in the run in front. */
export function useLaidRegions(): LaidRegion[] {
  const front = useFrontRun();
  const { horizontal } = useShownPage();
  const regions = useDocuments(
    useShallow(({ workings }) =>
      workings.entries.filter((entry) => entry.kind === 'region').filter(({ along }) => along === horizontal),
    ),
  );
  const outcomes = usePicture(
    useShallow((picture) => regions.map((region) => outcomeOfRegion(picture, front, region))),
  );
  const axis = usePicture(({ frame }) => frame?.horizontal.unit);
  return useMemo(
    () =>
      regions.flatMap((region, i) => {
        const laid = laidRegion(region, outcomes[i], front?.id);
        return laid === null ? [] : (onAxisOf(laid, axis) ?? []);
      }),
    [regions, outcomes, axis, front?.id],
  );
}

/** What the picture says of where a region lies in a run; one that lies where the sheet says needs no picture. */
const outcomeOfRegion = (
  { outcomes }: Picture,
  run: Run | undefined,
  region: EntryOfKind<'region'>,
): ShownOutcome | undefined => (isAttached(region) ? outcomes[run?.id ?? '']?.[region.id] : undefined);

/** A region as it lies in the run in front, in the unit in which it is given; null where what it is attached to does not happen there. */
export function useLaidRegion(region: EntryOfKind<'region'>): LaidRegion | null {
  const front = useFrontRun();
  const outcome = usePicture((picture) => outcomeOfRegion(picture, front, region));
  return useMemo(() => laidRegion(region, outcome, front?.id), [region, outcome, front?.id]);
}

/** Whether axes show their zero. */
export function useWithZero(): boolean {
  const usual = useDocuments(({ plan }) => wayOf(plan).showsZero);
  return (useView(({ withZero }) => withZero) ?? usual) === true;
}

/** The page that is looked at. */
export function useShownPage(): Page {
  const page = useView((view) => view.page);
  return useDocuments(({ workings }) => pageIn(workings, page));
}

const noNames: Record<string, string> = {};

/** Every card asks the same of the same sheet; it is worked out for the first that does. */
const namesOfResults = rememberedLast(resultNames);
const namesOfEntries = rememberedLast(entryNames);
const usesResults = rememberedLast(({ entries }: WorkingsDocument) =>
  entries.some((entry) => resultsUsedBy(entry).length > 0),
);

/** Every result that stands on the sheet for the run in front, and what it is called. */
export function useResultNames(wanted = true): Record<ResultRef, string> {
  const front = useFrontRun();
  const workings = useDocuments((documents) => (wanted ? documents.workings : null));
  const abscissa = useDocuments(({ runs }) => abscissaOfRuns(runs));
  return usePicture(
    useShallow(({ outcomes }) =>
      workings === null || front === undefined
        ? noNames
        : namesOfResults(workings, outcomes[front.id] ?? noOutcomes, abscissa),
    ),
  );
}

/** Everything that a formula of an entry can speak of; not itself. */
export function useNameables(entryId: string): readonly Nameable[] {
  const front = useFrontRun();
  const { workings, runs, conditions } = useDocuments(
    useShallow((documents) => ({
      workings: documents.workings,
      runs: documents.runs,
      conditions: documents.plan.conditions,
    })),
  );
  const outcomes = usePicture((picture) => picture.outcomes[front?.id ?? '']) ?? noOutcomes;
  const resultsCalled = useResultNames();
  const abscissa = abscissaOfRuns(runs);
  return useMemo(() => {
    const others = workings.entries.filter(({ id }) => id !== entryId);
    const names = Object.fromEntries(
      Object.entries(resultsCalled).filter(([reference]) => !reference.startsWith(`result:${entryId}/`)),
    );
    return nameables({
      workings: { entries: others },
      runs,
      outcomes,
      resultNames: names,
      conditions: conditions.filter(({ kind }) => kind === 'number'),
      abscissa,
    });
  }, [workings, runs, conditions, outcomes, resultsCalled, abscissa, entryId]);
}

const noOutcomes: Record<string, ShownOutcome> = {};

/** The abscissa of the runs, along which cursors move: time, or the number of the reading. */
export function useAbscissa(): Axis {
  const runs = useDocuments((documents) => documents.runs);
  return useMemo(() => abscissaAxis(runs), [runs]);
}

/** How references are called on this bench. */
export function useNames(): (reference: string) => string {
  const names = useDocuments(
    useShallow(({ workings, runs }) => ({ ...namesOfEntries(workings), ...columnNames(runs) })),
  );
  const abscissa = useDocuments(({ runs }) => abscissaOfRuns(runs));
  const results = useResultNames(useDocuments(({ workings }) => usesResults(workings)));
  return useMemo(() => namesOf(names, abscissa, results), [names, abscissa, results]);
}
