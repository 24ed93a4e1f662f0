import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type ComponentProps } from 'react';
import { usePicture } from '../session/context';
import { PanelAxes } from './PanelAxes';
import { PanelTools } from './PanelTools';
import { TraceBorder } from './TraceBorder';
import { TraceChart } from './TraceChart';

type Props = Omit<ComponentProps<typeof TraceChart>, 'frameRef' | 'frameStyle' | 'children'> & {
  /** Whether another trace of the page stands under it, with which it shares a border. */
  hasBorder: boolean;
};

/** A trace of the page with what it is held by: its axes, its tools, its lower border. */
export function StackedTrace({ hasBorder, ...chart }: Props) {
  const { traceKey, isBottom } = chart;
  const trace = usePicture(({ traces }) => traces.find(({ key }) => key === traceKey));
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
          {hasBorder && !isResidual && <TraceBorder panel={traceKey} symbol={trace.symbol} />}
        </>
      )}
    </TraceChart>
  );
}
