import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type EntryKindKey, entryKindKeys, kindOf } from '@heuristor/core';
import { memo, useMemo } from 'react';
import { Dropdown } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useNames,
  usePicture,
  useResultNames,
  useSession,
} from '../session/context';
import {
  groupsOf,
  mainResults,
  orderOf,
  seriesChoices,
  withEntry,
  withMoved,
  withRegion,
} from '../session/edits';
import { useLasting } from '../ui/useLasting';
import { EntryCard } from './EntryCard';
import { regionOffers } from './Offers';
import { RegionHead } from './RegionHead';

const blinkMilliseconds = 300;

export function WorkingsColumn() {
  const session = useSession();
  const workings = useDocuments((documents) => documents.workings);
  const order = useDocuments(useShallow((documents) => orderOf(documents.workings)));
  // Numbers that belong to what stood on the sheet before must not pass for those of what stands there now.
  const isBehind = usePicture((picture) => picture.workings !== workings);
  const isLate = useLasting(isBehind, blinkMilliseconds);
  const groups = useMemo(() => groupsOf(workings), [workings]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null)
      session.changeWorkings((sheet) => withMoved(sheet, String(active.id), String(over.id)));
  };
  return (
    <>
      <div className="side-head titled">
        <h2>Workings</h2>
        <WorkOut />
      </div>
      {workings.entries.length === 0 && (
        <p className="quiet">
          Drag over a trace to mark a region. What can be worked out on it is offered beside it, and is worked
          out for every run that is shown.
        </p>
      )}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={order} strategy={verticalListSortingStrategy}>
          <div className={`groups ${isLate ? 'behind' : ''}`} aria-busy={isBehind}>
            {groups.map(({ region, entries }) => (
              <section
                key={region?.id ?? 'none'}
                className={`group ${region === null ? '' : 'on-region'}`}
                aria-label={region === null ? 'Without a region' : `On region ${region.letter}`}
              >
                {region !== null && <RegionHead region={region} />}
                {entries.map((entry, i) => (
                  <EntryCard
                    key={entry.id}
                    entry={entry}
                    previous={entries[i - 1]?.id}
                    next={entries[i + 1]?.id}
                  />
                ))}
              </section>
            ))}
          </div>
        </SortableContext>
      </DndContext>
    </>
  );
}

const WorkOut = memo(function WorkOut() {
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain" className="no-caret">
        <PlusLg aria-hidden /> Work out
      </Dropdown.Toggle>
      <Dropdown.Menu popperConfig={{ strategy: 'fixed' }} className="tall-menu">
        <WorkOutItems />
      </Dropdown.Menu>
    </Dropdown>
  );
});

/** Kinds whose fields are filled in after they are made: which results they are to use is not known before. */
const speaksOfResults = (kind: EntryKindKey) =>
  Object.values(kindOf(kind).fields).some(({ type }) => type === 'result');

/** Every kind of entry there is, in the menus that their declarations ask for. */
function WorkOutItems() {
  const session = useSession();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
  );
  const nameOf = useNames();
  const choices = seriesChoices(runs, workings);
  const region = workings.entries.find((entry) => entry.kind === 'region');
  const add = (about: Omit<Parameters<typeof withEntry>[2], 'region'> & { region?: string | null }) =>
    session.changeWorkings((sheet) => {
      const made = withEntry(sheet, session.onPage, { region: null, ...about });
      if (speaksOfResults(about.kind)) session.view.setState({ openEntry: made.id });
      return made.workings;
    });
  const front = useFrontRun();
  const hasResults = Object.keys(useResultNames()).length > 0;
  const sheetResults = () =>
    mainResults(workings, session.picture.getState().outcomes[front?.id ?? ''] ?? {});
  const addMiddleRegion = () => {
    const sight = session.picture.getState().frame?.sight;
    if (sight === undefined) return;
    const quarter = (sight.to - sight.from) / 4;
    session.changeWorkings((sheet) => {
      const made = withRegion(sheet, session.onPage.page, sight.from + quarter, sight.to - quarter);
      session.view.setState({ selectedRegion: made.id });
      return made.workings;
    });
  };
  const onSeries = entryKindKeys.filter((kind) => kindOf(kind).offered === 'series');
  const onSheet = entryKindKeys.filter((kind) => kindOf(kind).offered === 'sheet');
  return (
    <>
      <Dropdown.Item onClick={addMiddleRegion} disabled={choices.length === 0}>
        Region
      </Dropdown.Item>
      {onSheet.flatMap((kind) =>
        kindOf(kind).offers.map(({ title, preset }) => (
          <Dropdown.Item
            key={title}
            disabled={!hasResults && speaksOfResults(kind)}
            onClick={() => add({ kind, preset, of: 't', results: sheetResults() })}
          >
            {title}
          </Dropdown.Item>
        )),
      )}
      {onSeries.map((kind) => (
        <div key={kind}>
          <Dropdown.Divider />
          {kindOf(kind).offers.flatMap(({ title, preset }) =>
            choices.map((choice) => (
              <Dropdown.Item
                key={`${title}${choice}`}
                onClick={() => add({ kind, preset, of: choice, nameOfSource: nameOf(choice) })}
              >
                {title} {nameOf(choice)}
              </Dropdown.Item>
            )),
          )}
        </div>
      ))}
      {choices.length > 0 && (
        <>
          <Dropdown.Divider />
          <Dropdown.Header>
            {region === undefined ? 'On the whole run' : `On region ${region.letter}`}
          </Dropdown.Header>
          {regionOffers.map(({ kind, title, preset }) => (
            <Dropdown.Item
              key={title}
              onClick={() => add({ kind, preset, of: choices[0], region: region?.id ?? null })}
            >
              {title} of {nameOf(choices[0])}
            </Dropdown.Item>
          ))}
        </>
      )}
    </>
  );
}
