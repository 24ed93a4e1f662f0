import { axisLabel } from '@heuristor/core';
import { type Point, Chart } from 'chart.js';
import { type CSSProperties, type ReactNode, type Ref, useEffect, useRef } from 'react';
import { useDocuments, usePicture } from '../investigation/context';
import { useLook } from '../ui/look';
import { bandPlugin } from './bands';
import { type LineChart, type StyleOfRun, chartOptions, fillChart } from './chartSetup';
import { type RegionBounds, axisHeight, labelWidth } from './geometry';
import { overLayerOf } from './overLayer';
import { marked } from './axes/axisScale';
import { tellPlot } from './axes/panelPlot';
import { TraceNotes } from './TraceNotes';
import { paintOver, paintUnder } from './traceLayers';
import { type OverLayer, type UnderLayer } from './layers';

interface Props {
  traceKey: string;
  regions: RegionBounds[];
  styles: ReadonlyMap<string, StyleOfRun>;
  joined: boolean;
  /** Whether the tabs of the regions stand in its head. */
  isTop: boolean;
  isBottom: boolean;
  /** Pixels at the right of all plots of the stack. */
  roomRight: number;
  /** Where it is being moved among the others. */
  frameRef?: Ref<HTMLDivElement>;
  frameStyle?: CSSProperties;
  /** What stands in it beside the plot. */
  children?: ReactNode;
}

type Layers = UnderLayer & OverLayer;

const none: RegionBounds[] = [];

export function TraceChart({
  traceKey,
  regions,
  styles,
  joined,
  isTop,
  isBottom,
  roomRight,
  frameRef,
  frameStyle,
  children,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const under = useRef<HTMLCanvasElement>(null);
  const over = useRef<HTMLCanvasElement>(null);
  const layers = useRef<Layers>({
    regions: [],
    target: null,
    isBottom: false,
    hasRight: false,
    curves: [],
    pinned: [],
    strays: [],
    aside: [],
    bars: [],
    arrows: [],
    lineLabels: [],
    label: '',
    rightLabel: null,
    bottomLabel: null,
  });
  const chart = useRef<LineChart | null>(null);
  const trace = usePicture(({ traces }) => traces.find(({ key }) => key === traceKey));
  const frame = usePicture((picture) => picture.frame);
  const look = useLook();

  useEffect(() => {
    const [below, element, above] = [under.current, canvas.current, over.current];
    if (below === null || element === null || above === null) return;
    const created = new Chart<'line', Point[]>(element, {
      type: 'line',
      data: { datasets: [] },
      plugins: [
        bandPlugin,
        {
          id: 'layers',
          // Whatever moves the chart's scales moves what lies under and over it.
          afterDraw(drawn) {
            tellPlot(element, drawn);
            paintUnder(below, drawn, layers.current);
            paintOver(above, drawn, layers.current);
          },
        },
      ],
      options: chartOptions(),
    });
    chart.current = created;
    return () => {
      created.destroy();
      chart.current = null;
    };
    // Sizes and colours are read when the chart is made, so another look makes another chart.
  }, [traceKey, look]);

  const label = trace === undefined ? '' : axisLabel(trace.symbol, trace.unit);
  const right = trace?.right ?? null;
  const hasRight = right !== null;
  const rightLabel = right === null ? null : axisLabel(right.symbol, right.unit);
  const quantities = trace?.quantities;
  const bottomLabel =
    isBottom && frame !== null ? axisLabel(frame.horizontal.symbol, frame.horizontal.unit) : null;
  const target = trace?.target;
  const spans = useDocuments((documents) => documents.spans);
  const curves = trace?.curves;
  const markedLines = trace?.lines;
  // These come before the chart is drawn, which draws them too; one that has not been laid out yet has no scales to draw in.
  useEffect(() => {
    layers.current = {
      ...layers.current,
      regions,
      spans: spans ?? [],
      target: target ?? null,
      isBottom,
      hasRight,
      bottomLabel,
    };
    const [below, current] = [under.current, chart.current];
    if (below !== null && current !== null && 'x' in current.scales)
      paintUnder(below, current, layers.current);
  }, [regions, spans, target, isBottom, hasRight, bottomLabel, look]);
  useEffect(() => {
    layers.current = {
      ...layers.current,
      ...overLayerOf(
        { curves: curves ?? [], lines: markedLines ?? [], quantities: quantities ?? [] },
        styles,
        joined,
      ),
      label,
      rightLabel,
      bottomLabel,
    };
    const [current, above] = [chart.current, over.current];
    if (current !== null && above !== null && 'x' in current.scales)
      paintOver(above, current, layers.current);
  }, [curves, markedLines, quantities, styles, joined, label, rightLabel, bottomLabel, look]);

  const lines = trace?.lines;
  const drawnAs = trace?.look;
  const [low, high] = [trace?.low, trace?.high];
  const [rightLow, rightHigh] = [right?.low, right?.high];
  const [from, to] = [frame?.sight.from, frame?.sight.to];
  const [isLogarithmic, rightLogarithmic] = [trace?.isLogarithmic, right?.isLogarithmic];
  const acrossLogarithmic = frame?.sight.isLogarithmic;
  useEffect(() => {
    const current = chart.current;
    if (current === null || lines === undefined || from === undefined) return;
    fillChart(current, {
      lines,
      styles,
      joined,
      look: drawnAs,
      isBottom,
      roomRight,
      across: { low: from, high: to ?? from, ...marked(acrossLogarithmic) },
      left: { low: low ?? 0, high: high ?? 1, ...marked(isLogarithmic) },
      right:
        rightLow === undefined || rightHigh === undefined
          ? null
          : { low: rightLow, high: rightHigh, ...marked(rightLogarithmic) },
    });
    current.update('none');
  }, [
    lines,
    low,
    high,
    isLogarithmic,
    rightLow,
    rightHigh,
    rightLogarithmic,
    roomRight,
    from,
    to,
    acrossLogarithmic,
    styles,
    joined,
    drawnAs,
    isBottom,
    look,
  ]);

  const newest = trace?.lines[trace.lines.length - 1];
  const drawnTo = newest === undefined ? undefined : newest.y[newest.y.length - 1];
  return (
    <div
      ref={frameRef}
      className="trace"
      data-trace={traceKey}
      // The newest reading that is drawn, by which tests and measurements tell what stands on the screen.
      data-newest={drawnTo}
      style={{ ...frameStyle, flex: `${trace?.weight ?? 1} 1 ${isBottom ? axisHeight() : 0}px` }}
    >
      <canvas ref={under} aria-hidden />
      <canvas
        ref={canvas}
        role="img"
        aria-label={trace === undefined ? undefined : `Trace of ${label} for ${trace.lines.length} runs`}
      />
      <canvas ref={over} aria-hidden />
      {children}
      {trace !== undefined && frame !== null && (
        <TraceNotes
          trace={trace}
          frame={frame}
          regions={isTop ? regions : none}
          taken={{
            left: rightLabel === null ? 0 : labelWidth(label),
            right: labelWidth(rightLabel ?? label),
          }}
        />
      )}
    </div>
  );
}
