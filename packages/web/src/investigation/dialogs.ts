import { type SeriesRef } from '@heuristor/core';
import { type StoreApi, createStore } from 'zustand/vanilla';

/** What can be asked over the page, and what each question is about. */
export interface DialogSubjects {
  /** A sheet is kept as a template. */
  template: true;
  /** A relation is chosen for a series in a region; without an entry a new fit is made. */
  relations: { of: SeriesRef; against: SeriesRef; region: string | null; entry: string | null };
  /** A fit goes through all runs that are shown. */
  jointFit: { entry: string };
  /** A file of columns is brought in. */
  file: { file: File };
  /** A picture is made of the page, or of one of its traces. */
  picture: { only: string | null };
  /** An entry is copied to another investigation. */
  copy: { id: string; called: string };
  /** The keys and gestures are listed. */
  keys: true;
  /** A device is looked for. */
  connect: true;
  /** A device that is in use elsewhere is to be used here. */
  takeOver: { code: string; model: string; from: string };
  /** Something to work out is looked for. */
  workOut: true;
  /** A constant is taken from the tables that ship. */
  constants: true;
}

/** The one question that stands over a page, if any. */
export class Dialogs {
  readonly state: StoreApi<{ asked: Partial<DialogSubjects> }> = createStore<{
    asked: Partial<DialogSubjects>;
  }>(() => ({ asked: {} }));

  ask<K extends keyof DialogSubjects>(dialog: K, about: DialogSubjects[K]): void {
    this.state.setState({ asked: { [dialog]: about } });
  }

  readonly close = (): void => this.state.setState({ asked: {} });
}
