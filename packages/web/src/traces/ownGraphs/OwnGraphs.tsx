import { DndContext, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, horizontalListSortingStrategy } from '@dnd-kit/sortable';
import { useSortSensors } from '../../ui/useSortSensors';
import { useShallow } from 'zustand/react/shallow';
import { usePicture, useSession } from '../../investigation/context';
import { panelsOf, withPanelMoved, withWeights } from '../pages/pages';
import { OwnGraph } from './OwnGraph';
import { TraceBorder } from '../TraceBorder';
import { type StyleOfRun } from '../chartSetup';

interface Props {
  /** The only one that is shown, where one is. */
  enlarged: string | null;
  styles: ReadonlyMap<string, StyleOfRun>;
}

const sum = (traces: readonly { weight: number }[]) => traces.reduce((all, { weight }) => all + weight, 0);

const tracesAndGraphs = (border: Element) => {
  const graphs = border.closest('.own-graphs');
  return [graphs?.previousElementSibling, graphs] as const;
};

/** Graphs with axes of their own, side by side under the traces. */
export function OwnGraphs({ enlarged, styles }: Props) {
  const session = useSession();
  const keys = usePicture(useShallow(({ graphs }) => graphs.map(({ key }) => key)));
  const weight = usePicture(({ graphs }) => Math.max(...graphs.map((graph) => graph.weight)));
  const above = usePicture(({ traces }) => sum(traces));
  const sensors = useSortSensors();
  const shown = enlarged === null ? keys : keys.filter((key) => key === enlarged);
  if (shown.length === 0) return null;
  const onDragEnd = ({ active, over }: DragEndEvent) =>
    session.changePage((page, runs) => {
      const place = panelsOf(page, runs).findIndex(({ id }) => id === over?.id);
      return place < 0 ? page : withPanelMoved(page, runs, String(active.id), place);
    });
  return (
    <div className="own-graphs" style={{ flex: `${weight} 1 0px` }}>
      {enlarged === null && above > 0 && (
        <TraceBorder
          label="Border over the graphs with axes of their own"
          share={(100 * above) / (above + weight)}
          parts={tracesAndGraphs}
          onMove={(share) => {
            const { traces, graphs } = session.picture.getState();
            const [upper, lower] = [sum(traces), Math.max(...graphs.map((graph) => graph.weight))];
            const wanted = lower - share * (upper + lower);
            session.changePage((page, runs) =>
              withWeights(page, runs, new Map(keys.map((key) => [key, wanted]))),
            );
          }}
        />
      )}
      <DndContext sensors={sensors} onDragEnd={onDragEnd}>
        <SortableContext items={shown} strategy={horizontalListSortingStrategy}>
          {shown.map((key) => (
            <OwnGraph key={key} graphKey={key} styles={styles} />
          ))}
        </SortableContext>
      </DndContext>
    </div>
  );
}
