import { DndContext, type DragEndEvent, closestCenter } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type EntryKindKey, kindOf } from '@heuristor/core';
import { type WorkingsDocument } from '@heuristor/contracts';
import { type ReactNode, useMemo } from 'react';
import { Button } from 'react-bootstrap';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useNames,
  usePicture,
  useSession,
  useView,
} from '../investigation/context';
import { groupsOf, orderOf, withMoved } from './edits';
import { removeEntry } from './entries/removing';
import { recordingRun } from '../runs/runs';
import { FaultBoundary } from '../ui/FaultBoundary';
import { useLasting } from '../ui/useLasting';
import { SheetLookMenu } from './SheetLookMenu';
import { SheetTable } from './SheetTable';
import { useSheetLook } from './sheetLook';
import { EntryCard } from './entries/EntryCard';
import { SpokenResult } from './entries/SpokenResult';
import { WorkOutButton } from './workOut/WorkOut';
import { FittingTemplates, TemplateMenu } from './templates/TemplateMenu';
import { RegionHead } from './regions/RegionHead';
import { useSortSensors } from '../ui/useSortSensors';

const blinkMilliseconds = 300;

interface Props {
  title: string;
  /** What stands there before anything is worked out. */
  empty: string;
  /** Whether the sheet is one over runs, for which there are templates. */
  ofRuns: boolean;
  /** What else its head holds. */
  beside?: ReactNode;
}

/** A sheet of entries, grouped by region, each with what it says. */
export function WorkingsColumn({ title, empty, ofRuns, beside }: Props) {
  const session = useSession();
  const order = useDocuments(useShallow((documents) => orderOf(documents.workings)));
  // While a region is dragged, the sheet is another one many times a second; the column is made anew only when its order changes.
  const shape = useDocuments(useShallow((documents) => shapeOf(documents.workings)));
  const groups = useMemo(() => groupsIn(shape), [shape]);
  const sensors = useSortSensors();
  const look = useSheetLook((state) => state.look);
  const front = useFrontRun();
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null)
      session.changeWorkings((sheet) => withMoved(sheet, String(active.id), String(over.id)));
  };
  return (
    <>
      <div className="side-head titled">
        <h2>
          {title}
          {ofRuns && front !== undefined && <span className="of-run"> of {front.name}</span>}
        </h2>
        {beside}
        <SheetLookMenu />
        {ofRuns && <TemplateMenu />}
        <WorkOutButton />
      </div>
      <SpokenResult />
      {order.length === 0 && (
        <>
          <p className="quiet">{empty}</p>
          {ofRuns && <FittingTemplates />}
        </>
      )}
      {look === 'table' ? (
        <Numbers>
          <SheetTable />
        </Numbers>
      ) : (
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
          <SortableContext items={order} strategy={verticalListSortingStrategy}>
            <Numbers>
              {groups.map(({ region, entries }) => (
                <Group key={region ?? 'none'} region={region}>
                  {entries.map((id, i) => (
                    <EntryOf key={id} id={id} previous={entries[i - 1]} next={entries[i + 1]} />
                  ))}
                </Group>
              ))}
            </Numbers>
          </SortableContext>
        </DndContext>
      )}
    </>
  );
}

const regionMark = 'region ';

/** The order of the sheet as texts, which compare at once: each group begins with its region. */
const shapeOf = (workings: WorkingsDocument): string[] =>
  groupsOf(workings).flatMap(({ region, entries }) => [
    regionMark + (region?.id ?? ''),
    ...entries.map(({ id }) => `entry ${id}`),
  ]);

function groupsIn(shape: readonly string[]): { region: string | null; entries: string[] }[] {
  const groups: { region: string | null; entries: string[] }[] = [];
  for (const text of shape) {
    const id = text.slice(text.indexOf(' ') + 1);
    if (text.startsWith(regionMark)) groups.push({ region: id === '' ? null : id, entries: [] });
    else groups.at(-1)?.entries.push(id);
  }
  return groups;
}

/** What the workings say, faded where it takes longer than a blink to be that of the sheet and of the readings as they stand. */
function Numbers({ children }: { children: ReactNode }) {
  const workings = useDocuments((documents) => documents.workings);
  const isRecording = useDocuments(({ runs }) => recordingRun(runs) !== undefined);
  // Numbers that belong to what stood on the sheet before, or to a part of the readings of a run that has ended, must not pass for
  // those of what stands there now. While it is recorded, they always come after the readings.
  const isBehind = usePicture(
    (picture) => picture.workings !== workings || !(isRecording || picture.isOfAllReadings),
  );
  const isLate = useLasting(isBehind, blinkMilliseconds);
  // Of folded cards, the other runs follow once the hand rests: until then their values are those of before.
  const isMoving = useView(({ moving }) => moving);
  return (
    <div className={`groups ${isLate ? 'behind' : ''} ${isMoving ? 'moving' : ''}`} aria-busy={isBehind}>
      {children}
    </div>
  );
}

function Group({ region: id, children }: { region: string | null; children: ReactNode }) {
  const region = useDocuments(({ workings }) => workings.entries.find((entry) => entry.id === id));
  const isRegion = region?.kind === 'region';
  return (
    <section
      className={`group ${isRegion ? 'on-region' : ''}`}
      aria-label={isRegion ? `On region ${region.letter}` : 'Without a region'}
    >
      {isRegion && <RegionHead region={region} />}
      {children}
    </section>
  );
}

/** Series are drawn, constants known, and words read: they are no results. */
const tellsResults = (kind: EntryKindKey) =>
  kindOf(kind).yields === 'results' && kind !== 'constant' && kind !== 'words';

function EntryOf({ id, ...place }: { id: string; previous: string | undefined; next: string | undefined }) {
  const entry = useDocuments(({ workings }) => workings.entries.find((candidate) => candidate.id === id));
  const session = useSession();
  const nameOf = useNames();
  const isLean = useSheetLook((state) => state.look === 'results');
  if (entry === undefined || (isLean && !tellsResults(entry.kind))) return null;
  return (
    <FaultBoundary
      what="This entry"
      className="result-card"
      resetKeys={[entry]}
      actions={
        <Button variant="plain" onClick={() => removeEntry(session, entry, nameOf)}>
          Remove it
        </Button>
      }
    >
      <EntryCard entry={entry} {...place} />
    </FaultBoundary>
  );
}
