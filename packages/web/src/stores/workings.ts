import { type WorkingsDocument, emptyWorkings } from '@heuristor/contracts';
import { type Line } from '@heuristor/core';
import { temporal } from 'zundo';
import { create } from 'zustand';

interface WorkingsState {
  workings: WorkingsDocument;
}

/** The sheet of lines on the bench, with its history. Only the sheet is undone; what is selected or zoomed is not. */
export const useWorkings = create<WorkingsState>()(
  temporal(() => ({ workings: emptyWorkings }), {
    limit: 200,
    equality: (past, current) => past.workings === current.workings,
  }),
);

export const workingsHistory = useWorkings.temporal;

/** Changes the sheet; every call is one step of undo, but for those inside `asOneStep`. */
export function changeWorkings(change: (workings: WorkingsDocument) => WorkingsDocument): void {
  useWorkings.setState(({ workings }) => ({ workings: change(workings) }));
}

export function changeLine(id: string, patch: Partial<Line>): void {
  changeWorkings((workings) => ({
    ...workings,
    lines: workings.lines.map((line) => (line.id === id ? ({ ...line, ...patch } as Line) : line)),
  }));
}

/** From here to `endStep`, changes are one step of undo: for something that is dragged. Call after its first change. */
export const holdStep = (): void => workingsHistory.getState().pause();
export const endStep = (): void => workingsHistory.getState().resume();

/** Puts a sheet on the bench without history: another investigation, or a newer version from another screen. */
export function layOut(workings: WorkingsDocument): void {
  workingsHistory.getState().pause();
  useWorkings.setState({ workings });
  workingsHistory.getState().resume();
  workingsHistory.getState().clear();
}
