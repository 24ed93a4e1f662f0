import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type ComponentProps } from 'react';
import { usePicture } from '../session/context';
import { PanelAxes } from './PanelAxes';
import { PanelTools } from './PanelTools';
import { TraceBorder } from './TraceBorder';
import { TraceChart } from './TraceChart';

type Props = Omit<ComponentProps<typeof TraceChart>, 'frameRef' | 'frameStyle' | 'children'> & {
  /** The trace of the page that stands under it, with which it shares a border. */
  nextKey: string | null;
};

/** A trace of the page with what it is held by: its axes, its tools, its lower border. */
export function StackedTrace({ nextKey, ...chart }: Props) {
  const { traceKey, isBottom } = chart;
  const trace = usePicture(({ traces }) => traces.find(({ key }) => key === traceKey));
  const next = usePicture(({ traces }) => traces.find(({ key }) => key === nextKey));
  // Residuals belong to their trace and go with it.
  const isResidual = trace?.reference == null;
  const { setNodeRef, transform, transition, isDragging, ...sortable } = useSortable({
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
      {trace !== undefined && (
        <>
          <PanelAxes trace={trace} isBottom={isBottom} />
          {!isResidual && <PanelTools trace={trace} sortable={sortable} />}
          {next !== undefined && !isResidual && (
            <TraceBorder
              panel={traceKey}
              symbol={trace.symbol}
              share={(100 * trace.weight) / (trace.weight + next.weight)}
            />
          )}
        </>
      )}
    </TraceChart>
  );
}
