import { type VisibleEntries } from '../workers/visibleEntries';

/**
 * What of the workings is on the screen. While a hand moves something, only this follows it; what has been scrolled away is
 * worked out once the hand pauses.
 */
export class InSight {
  private readonly shown = new Map<object, VisibleEntries>();

  /** @param by whoever shows it, and hides it later */
  show(by: object, visible: Partial<VisibleEntries>): void {
    this.shown.set(by, { everywhere: [], inFront: [], ...visible });
  }

  hide(by: object): void {
    this.shown.delete(by);
  }

  get visible(): VisibleEntries {
    const all = [...this.shown.values()];
    return {
      everywhere: [...new Set(all.flatMap(({ everywhere }) => everywhere))],
      inFront: [...new Set(all.flatMap(({ inFront }) => inFront))],
    };
  }
}
