import { DndContext, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useSortSensors } from '../ui/useSortSensors';
import { type Plan } from '@heuristor/contracts';
import { type ReactNode, useEffect, useMemo, useRef } from 'react';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useLaidRegions,
  usePicture,
  useSession,
  useShownPage,
  useView,
} from '../investigation/context';
import { panelsOf, withPanelMoved } from './pages/pages';
import { presentRuns, shownRuns } from '../runs/runs';
import { usePresenter } from '../ui/presenter';
import { HorizontalAxis } from './axes/HorizontalAxis';
import { Overlay } from './Overlay';
import { OwnGraphs } from './ownGraphs/OwnGraphs';
import { plotLeft, plotRight } from './geometry';
import { FaultBoundary } from '../ui/FaultBoundary';
import { StackedTrace } from './StackedTrace';
import { type StyleOfRun } from './chartSetup';

const howToRecord =
  'Connect a sensor and press Record, or bring in a file of numbers below. Nothing recorded is ever overwritten.';
const howToBegin: Partial<Record<Plan['way'], string>> = {
  spot: 'Set something by hand, type its value above, and take a reading. Each comes as a point.',
  away: 'What a device has recorded by itself comes here when it is fetched.',
};

interface Props {
  /** What stands there before there is a run; else what is to be done is said. */
  instead?: ReactNode;
}

export function TraceStack({ instead }: Props) {
  const session = useSession();
  const stack = useRef<HTMLDivElement>(null);
  const keys = usePicture(useShallow(({ traces }) => traces.map(({ key }) => key)));
  usePresenter((state) => state.large);
  const roomRight = plotRight(usePicture(({ traces }) => traces.some(({ right }) => right !== null)));
  const hasFrame = usePicture(({ frame }) => frame !== null);
  const runs = useDocuments((documents) => documents.runs);
  const front = useFrontRun();
  const { horizontal } = useShownPage();
  useEffect(() => {
    const element = stack.current;
    if (element === null) return;
    const observer = new ResizeObserver(() => {
      // Hidden behind a graph that is shown alone, it has no width that tells anything.
      if (element.clientWidth > 0)
        session.viewing.setPlotWidth(Math.max(element.clientWidth - plotLeft() - roomRight, 50));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [session, roomRight]);
  const styles = useMemo(
    () =>
      new Map<string, StyleOfRun>(
        runs.map((run) => [run.id, { style: run.style, front: run.id === front?.id }]),
      ),
    [runs, front?.id],
  );
  const regions = useLaidRegions();
  const enlarged = useView((view) => view.enlarged);
  const graphKeys = usePicture(useShallow(({ graphs }) => graphs.map(({ key }) => key)));
  const shownKeys = enlarged !== null && keys.includes(enlarged) ? [enlarged] : keys;
  const enlargedGraph = enlarged !== null && graphKeys.includes(enlarged) ? enlarged : null;
  const weight = usePicture(({ traces }) => traces.reduce((sum, trace) => sum + trace.weight, 0));
  const isHidden = enlargedGraph !== null || (shownKeys.length === 0 && graphKeys.length > 0);
  const sensors = useSortSensors();
  const onDragEnd = ({ active, over }: DragEndEvent) =>
    session.changePage((page, own) => {
      const place = panelsOf(page, own).findIndex(({ id }) => id === over?.id);
      return place < 0 ? page : withPanelMoved(page, own, String(active.id), place);
    });
  const way = useDocuments(({ plan }) => plan.way);
  const hasTarget = usePicture(({ frame }) => frame?.target != null);
  const isEmpty = shownRuns(runs).length === 0 && !hasTarget;
  const hasRuns = presentRuns(runs).length > 0;
  return (
    <div className="trace-area">
      <div
        className={`traces ${isHidden ? 'hidden' : ''}`}
        ref={stack}
        style={{ flex: `${Math.max(weight, 1)} 1 0px` }}
      >
        {isEmpty && !hasRuns && instead !== undefined ? (
          instead
        ) : isEmpty ? (
          <div className="empty">
            <h2>{hasRuns ? 'No run is shown' : 'No run yet'}</h2>
            <p>{hasRuns ? 'Press a run below to show it.' : (howToBegin[way] ?? howToRecord)}</p>
          </div>
        ) : (
          <DndContext sensors={sensors} onDragEnd={onDragEnd}>
            <SortableContext items={shownKeys} strategy={verticalListSortingStrategy}>
              {shownKeys.map((key, i) => (
                <FaultBoundary key={key} what="This trace" className="trace" resetKeys={[regions]}>
                  <StackedTrace
                    traceKey={key}
                    regions={regions}
                    styles={styles}
                    joined={horizontal === 't'}
                    isTop={i === 0}
                    isBottom={i === shownKeys.length - 1}
                    roomRight={roomRight}
                    nextKey={shownKeys[i + 1]?.startsWith('residuals:') === false ? shownKeys[i + 1] : null}
                  />
                </FaultBoundary>
              ))}
            </SortableContext>
          </DndContext>
        )}
        {!isEmpty && hasFrame && shownKeys.length > 0 && <HorizontalAxis roomRight={roomRight} />}
        {!isEmpty && hasFrame && shownKeys.length > 0 && (
          <Overlay front={front} stack={stack} regions={regions} roomRight={roomRight} />
        )}
      </div>
      {!isEmpty && (enlarged === null || enlargedGraph !== null) && (
        <OwnGraphs enlarged={enlargedGraph} styles={styles} />
      )}
    </div>
  );
}
