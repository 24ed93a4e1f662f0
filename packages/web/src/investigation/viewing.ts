import { type SeriesRef } from '@heuristor/core';
import { type StoreApi } from 'zustand/vanilla';
import { type HandMode } from '../traces/hand/scene';
import { type View } from './state';

/** Changes what is chosen and open on a bench. What is stored is changed elsewhere, and so is which part of a page is seen. */
export class Viewing {
  constructor(private readonly view: StoreApi<View>) {}

  /** Shows the handles and offers of a region; null of none. */
  selectRegion(selectedRegion: string | null): void {
    this.view.setState({ selectedRegion, isOffering: selectedRegion !== null });
  }

  /** What was offered on the selected region has been taken; its handles stay. */
  closeOffers(): void {
    this.view.setState({ isOffering: false });
  }

  /** Which series the offers beside the selected region are for. */
  selectSeries(selectedSeries: SeriesRef | null): void {
    this.view.setState({ selectedSeries });
  }

  /** Opens the fields of an entry that was just made; null of none. */
  openEntry(openEntry: string | null): void {
    this.view.setState({ openEntry });
  }

  /** The run whose results stand in front. */
  bringToFront(frontRunId: string): void {
    this.view.setState({ frontRunId });
  }

  /** What a hand does that drags over the traces. A region keeps no handles where they would be in its way. */
  setHandMode(handMode: HandMode): void {
    this.view.setState(handMode === 'circle' ? { handMode, selectedRegion: null } : { handMode });
  }

  /** Shows one trace alone; null shows all of the page. */
  enlarge(enlarged: string | null): void {
    this.view.setState({ enlarged });
  }

  /** Whether axes show their zero. */
  showZero(withZero: boolean): void {
    this.view.setState({ withZero });
  }

  /** Another quantity stands along the page: what was seen and selected meant the former one. */
  leaveInterval(): void {
    this.view.setState({ sight: null, selectedRegion: null });
  }

  setPlotWidth(plotWidth: number): void {
    this.view.setState({ plotWidth });
  }

  /** Opens the set-up of a device over the traces; null closes it. */
  openSetUp(setUp: string | null): void {
    this.view.setState({ setUp });
  }

  /** Lays what the sensors read over the traces, or takes it away. */
  showLive(isLive: boolean): void {
    this.view.setState({ isLive });
  }

  /** Shows live quantities and results in large digits, or puts them away. */
  showDigits(hasDigits: boolean): void {
    this.view.setState({ hasDigits });
  }

  /** The next spot reading begins a new series. */
  beginSeries(): void {
    this.view.setState({ isNewSeries: true });
  }

  /** Puts away what lies on top: large digits, what is live, then a hand's mode, then the selection. @returns false where there was none of them */
  putAway(): boolean {
    const { hasDigits, isLive, handMode, selectedRegion } = this.view.getState();
    if (hasDigits) this.showDigits(false);
    else if (isLive) this.showLive(false);
    else if (handMode !== 'usual') this.setHandMode('usual');
    else if (selectedRegion !== null) this.selectRegion(null);
    else return false;
    return true;
  }
}
