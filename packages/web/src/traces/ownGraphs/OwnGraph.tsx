import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { axisLabel, printedUnit } from '@heuristor/core';
import { Chart, type Point } from 'chart.js';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { useFrontRun, usePicture, useSession, useView } from '../../investigation/context';
import { useLook } from '../../ui/look';
import { roundedText } from '../../ui/numberText';
import { type DrawnGraph } from './composeGraphs';
import { axisKey } from '../axes/scaling';
import { AxisEditor } from '../axes/AxisEditor';
import { AxisGrip } from '../axes/AxisGrip';
import { bandPlugin } from '../bands';
import { type LineChart, type StyleOfRun, chartOptions } from '../chartSetup';
import { axisHeight, headHeight, plotLeft, plotRight, valueAtPixel } from '../geometry';
import { fillOwnGraph, graphOverLayer, readAt } from './ownGraphDrawing';
import { PanelTools } from '../PanelTools';
import { paintOver, paintUnder } from '../traceLayers';
import { type OverLayer } from '../layers';

interface Props {
  graphKey: string;
  styles: ReadonlyMap<string, StyleOfRun>;
}

/** One graph with axes of its own: a spectrum, a histogram. */
export function OwnGraph({ graphKey, styles }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const under = useRef<HTMLCanvasElement>(null);
  const over = useRef<HTMLCanvasElement>(null);
  const chart = useRef<LineChart | null>(null);
  const layer = useRef<OverLayer | null>(null);
  const graph = usePicture(({ graphs }) => graphs.find(({ key }) => key === graphKey));
  const look = useLook();
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id: graphKey });
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
          afterDraw(drawn) {
            paintUnder(below, drawn, {
              regions: [],
              target: null,
              isBottom: true,
              hasRight: false,
              bottomLabel: layer.current?.bottomLabel ?? null,
            });
            if (layer.current !== null) paintOver(above, drawn, layer.current);
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
  }, [look]);
  useEffect(() => {
    const { current } = chart;
    if (current === null || graph === undefined) return;
    layer.current = graphOverLayer(graph, styles);
    fillOwnGraph(current, graph, styles);
    current.update('none');
  }, [graph, styles, look]);
  if (graph === undefined) return null;
  const label = axisLabel(graph.vertical.symbol, graph.vertical.unit);
  return (
    <div
      ref={setNodeRef}
      className="trace own-graph"
      data-graph={graphKey}
      style={{
        transform: CSS.Translate.toString(transform),
        transition,
        ...(isDragging ? { zIndex: 4, opacity: 0.85 } : {}),
      }}
    >
      <canvas ref={under} aria-hidden />
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${label} over ${axisLabel(graph.horizontal.symbol, graph.horizontal.unit)} for ${graph.lines.length} runs`}
      />
      <canvas ref={over} aria-hidden />
      <Reading graph={graph} styles={styles} />
      <OwnAxis graph={graph} side="left" />
      <OwnAxis graph={graph} side="bottom" />
      <PanelTools
        traceKey={graphKey}
        symbol={graph.vertical.symbol}
        setActivatorNodeRef={setActivatorNodeRef}
        attributes={attributes}
        listeners={listeners}
      />
    </div>
  );
}

function OwnAxis({ graph, side }: { graph: DrawnGraph; side: 'left' | 'bottom' }) {
  const session = useSession();
  const key = axisKey(graph.key, side);
  const set = useView(({ scales }) => scales[key]);
  const isVertical = side === 'left';
  const { symbol, unit } = isVertical ? graph.vertical : graph.horizontal;
  const range = set ?? (isVertical ? { from: graph.low, to: graph.high } : graph.sight);
  const onRange = (next: typeof range) => session.scale(key, next);
  const onAutomatic = () => session.scale(key, null);
  return (
    <AxisGrip
      label={`Axis of ${symbol}`}
      range={range}
      isVertical={isVertical}
      className={side}
      style={
        isVertical
          ? { top: headHeight(), bottom: axisHeight(), width: plotLeft() - 22 }
          : { left: plotLeft(), right: plotRight(false), height: axisHeight() - 2, bottom: 0 }
      }
      onRange={onRange}
      onAutomatic={onAutomatic}
    >
      {() => (
        <AxisEditor
          unit={printedUnit(unit)}
          range={range}
          isAutomatic={set === undefined}
          onRange={onRange}
          onAutomatic={onAutomatic}
          automaticWord={isVertical ? 'Follow the data' : 'What stands out'}
        />
      )}
    </AxisGrip>
  );
}

/** What the graph is under the pointer, for the run in front. */
function Reading({ graph, styles }: { graph: DrawnGraph; styles: Props['styles'] }) {
  const [at, setAt] = useState<{ pixel: number; width: number } | null>(null);
  const front = useFrontRun();
  const line = graph.lines.find(({ runId }) => styles.get(runId)?.front === true) ?? graph.lines[0];
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setAt({ pixel: event.clientX - box.left, width: box.width });
  };
  const found =
    at === null || line === undefined
      ? null
      : readAt(graph, line, valueAtPixel(at.pixel, graph.sight, at.width));
  const [across, up] = [printedUnit(graph.horizontal.unit), printedUnit(graph.vertical.unit)];
  const fine = (graph.sight.to - graph.sight.from) / Math.max(at?.width ?? 1, 1);
  const tall = (graph.high - graph.low) / 1000;
  return (
    <div
      className="own-graph-reading"
      style={{ left: plotLeft(), right: plotRight(false), bottom: axisHeight() }}
      onPointerMove={onPointerMove}
      onPointerLeave={() => setAt(null)}
    >
      {found !== null && at !== null && (
        <>
          <div className="cursor-line hover" style={{ left: at.pixel }} />
          <div
            className="cursor-value"
            style={
              at.pixel < at.width / 2
                ? { left: at.pixel + 6, bottom: 4 }
                : { right: at.width - at.pixel + 6, bottom: 4 }
            }
          >
            {graph.lines.length > 1 && front !== undefined && (
              <span className="cursor-run">{front.name} </span>
            )}
            {found.to === null
              ? `${roundedText(found.from, fine)} ${across}: ${roundedText(found.value, tall)} ${up}`
              : `${roundedText(found.from, fine)} to ${roundedText(found.to, fine)} ${across}: ${found.value}`}
          </div>
        </>
      )}
    </div>
  );
}
