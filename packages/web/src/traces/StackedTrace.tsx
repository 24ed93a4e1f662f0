import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { printedUnit } from '@heuristor/core';
import { type ComponentProps } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { usePicture, useSession } from '../investigation/context';
import { withBorderMoved } from './pages/pages';
import { type DrawnAxis } from './drawn';
import { PanelAxis } from './axes/PanelAxis';
import { PanelTools } from './PanelTools';
import { TraceBorder } from './TraceBorder';
import { TraceChart } from './TraceChart';

type Props = Omit<ComponentProps<typeof TraceChart>, 'frameRef' | 'frameStyle' | 'children'> & {
  /** The trace of the page that stands under it, with which it shares a border. */
  nextKey: string | null;
};

const described = (axis: DrawnAxis | null | undefined) =>
  axis == null
    ? { symbol: '', unit: '', from: 0, to: 1, isLogarithmic: false, is: false }
    : {
        symbol: axis.symbol,
        unit: printedUnit(axis.unit),
        from: axis.low,
        to: axis.high,
        isLogarithmic: axis.isLogarithmic === true,
        is: true,
      };

const traceAndNext = (border: Element) => {
  const trace = border.closest('.trace');
  return [trace, trace?.nextElementSibling] as const;
};

/** A trace of the page with what it is held by: its axes, its tools, its lower border. */
export function StackedTrace({ nextKey, ...chart }: Props) {
  const { traceKey, isBottom } = chart;
  const session = useSession();
  // While a hand drags something, traces are made anew many times a second; only what stands in words here counts.
  const left = usePicture(useShallow(({ traces }) => described(traces.find(({ key }) => key === traceKey))));
  const right = usePicture(
    useShallow(({ traces }) => described(traces.find(({ key }) => key === traceKey)?.right)),
  );
  const [isResidual, weight, nextWeight] = usePicture(
    useShallow(({ traces }) => {
      const trace = traces.find(({ key }) => key === traceKey);
      // Residuals belong to their trace and go with it.
      return [
        trace?.reference == null,
        trace?.weight ?? 1,
        traces.find(({ key }) => key === nextKey)?.weight ?? null,
      ] as const;
    }),
  );
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({
      id: traceKey,
      disabled: isResidual,
    });
  return (
    <TraceChart
      {...chart}
      frameRef={setNodeRef}
      frameStyle={{
        transform: CSS.Translate.toString(transform),
        transition,
        ...(isDragging ? { zIndex: 4, opacity: 0.85 } : {}),
      }}
    >
      {left.is && (
        <PanelAxis traceKey={traceKey} side="left" axis={left} isBottom={isBottom} isChosen={!isResidual} />
      )}
      {right.is && (
        <PanelAxis traceKey={traceKey} side="right" axis={right} isBottom={isBottom} isChosen={!isResidual} />
      )}
      {left.is && !isResidual && (
        <PanelTools
          traceKey={traceKey}
          symbol={left.symbol}
          setActivatorNodeRef={setActivatorNodeRef}
          attributes={attributes}
          listeners={listeners}
        />
      )}
      {nextWeight !== null && !isResidual && (
        <TraceBorder
          label={`Lower border of the trace of ${left.symbol}`}
          share={(100 * weight) / (weight + nextWeight)}
          parts={traceAndNext}
          onMove={(share) => session.changePage((page, runs) => withBorderMoved(page, runs, traceKey, share))}
        />
      )}
    </TraceChart>
  );
}
