import { type Chart } from 'chart.js';
import { createStore } from 'zustand/vanilla';
import { type DrawnAxis } from '../drawn';
import { ofAxis, shareOf, valueAtShare } from './axisScale';

/** Where the plot of a trace lies, from a height on the page. */
export interface PanelPlot {
  top: number;
  height: number;
}

/** Where the plots lie in their panels, as their charts were laid out last. */
const plots = new WeakMap<Element, PanelPlot>();

/** Grows whenever a plot has come to lie elsewhere: what stands in it by its pixels is then placed anew. */
export const plotLayout = createStore(() => ({ version: 0 }));

/** A chart tells where its plot lies in its panel. */
export function tellPlot(canvas: HTMLCanvasElement, { chartArea: { top, height } }: Chart): void {
  const panel = canvas.parentElement;
  const before = panel === null ? undefined : plots.get(panel);
  if (panel === null || (before?.top === top && before.height === height)) return;
  plots.set(panel, { top, height });
  plotLayout.setState(({ version }) => ({ version: version + 1 }));
}

/** Where the plot of a panel lies, from a height on the page; null before it has been drawn. */
export function plotOf(panel: HTMLElement, from: number): PanelPlot | null {
  const plot = plots.get(panel);
  return plot === undefined
    ? null
    : { top: panel.getBoundingClientRect().top - from + plot.top, height: Math.max(plot.height, 1) };
}

/** Height of a value in a plot, and the value at a height. */
export const heightIn = (plot: PanelPlot, value: number, axis: UprightAxis): number =>
  plot.top + (1 - shareOf(value, ofAxis(axis))) * plot.height;

export const valueIn = (plot: PanelPlot, height: number, axis: UprightAxis): number =>
  valueAtShare(Math.min(Math.max(shareUp(plot, height), 0), 1), ofAxis(axis));

/** The same also beyond the plot: what is drawn there goes on. */
export const valueBeyond = (plot: PanelPlot, height: number, axis: UprightAxis): number =>
  valueAtShare(shareUp(plot, height), ofAxis(axis));

const shareUp = (plot: PanelPlot, height: number): number => 1 - (height - plot.top) / plot.height;

type UprightAxis = Pick<DrawnAxis, 'low' | 'high' | 'isLogarithmic'>;
