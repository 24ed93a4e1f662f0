import { DndContext, type DragEndEvent, closestCenter } from '@dnd-kit/core';
import { valueAtShare } from '../traces/axes/axisScale';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type EntryKindKey, type Field, entryKindKeys, kindOf } from '@heuristor/core';
import { type WorkingsDocument } from '@heuristor/contracts';
import { type ReactNode, memo, useMemo } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useNames,
  usePicture,
  useResultNames,
  useSession,
} from '../investigation/context';
import { groupsOf, orderOf, seriesChoices, withEntry, withMoved, withRegion } from './edits';
import { pairedResults } from './results/pairing';
import { removeEntry } from './entries/removing';
import { recordingRun } from '../runs/runs';
import { FaultBoundary } from '../ui/FaultBoundary';
import { useLasting } from '../ui/useLasting';
import { EntryCard } from './entries/EntryCard';
import { pageIn } from '../traces/pages/pages';
import { regionOffers } from './Offers';
import { FittingTemplates, TemplateMenu } from './templates/TemplateMenu';
import { RegionHead } from './regions/RegionHead';
import { useSortSensors } from '../ui/useSortSensors';
import { FixedMenu } from '../ui/FixedMenu';

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
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null)
      session.changeWorkings((sheet) => withMoved(sheet, String(active.id), String(over.id)));
  };
  return (
    <>
      <div className="side-head titled">
        <h2>{title}</h2>
        {beside}
        {ofRuns && <TemplateMenu />}
        <WorkOut />
      </div>
      {order.length === 0 && (
        <>
          <p className="quiet">{empty}</p>
          {ofRuns && <FittingTemplates />}
        </>
      )}
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
  return (
    <div className={`groups ${isLate ? 'behind' : ''}`} aria-busy={isBehind}>
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

function EntryOf({ id, ...place }: { id: string; previous: string | undefined; next: string | undefined }) {
  const entry = useDocuments(({ workings }) => workings.entries.find((candidate) => candidate.id === id));
  const session = useSession();
  const nameOf = useNames();
  if (entry === undefined) return null;
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

const WorkOut = memo(function WorkOut() {
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain" className="no-caret">
        <PlusLg aria-hidden /> Work out
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        <WorkOutItems />
      </FixedMenu>
    </Dropdown>
  );
});

/** Whether a kind has fields of a type. */
const hasField = (kind: EntryKindKey, wanted: Field['type']) =>
  Object.values(kindOf(kind).fields).some(({ type }) => type === wanted);

/** Kinds whose fields are filled in after they are made: what they are to speak of is not known before. */
const isFilledIn = (kind: EntryKindKey) =>
  hasField(kind, 'result') || hasField(kind, 'formula') || kind === 'words' || kind === 'constant';

/** Every kind of entry there is, in the menus that their declarations ask for. */
function WorkOutItems() {
  const session = useSession();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
  );
  const nameOf = useNames();
  const choices = seriesChoices(runs, workings);
  const region = workings.entries.find((entry) => entry.kind === 'region');
  const { horizontal } = pageIn(workings, session.onPage.page);
  const upright = choices.find((choice) => choice !== horizontal) ?? choices[0];
  const add = (about: Omit<Parameters<typeof withEntry>[2], 'region'> & { region?: string | null }) =>
    session.changeWorkings((sheet) => {
      const made = withEntry(sheet, session.onPage, { region: null, ...about });
      if (isFilledIn(about.kind)) session.viewing.openEntry(made.id);
      return made.workings;
    });
  const front = useFrontRun();
  const hasResults = Object.keys(useResultNames()).length > 0;
  const sheetResults = () =>
    pairedResults(workings, session.picture.getState().outcomes[front?.id ?? ''] ?? {});
  const addMiddleRegion = () => {
    const sight = session.picture.getState().frame?.sight;
    if (sight === undefined) return;
    const [start, end] = [0.25, 0.75].map((share) => valueAtShare(share, sight));
    session.changeWorkings((sheet) => {
      const made = withRegion(sheet, session.onPage.page, start, end);
      session.viewing.selectRegion(made.id);
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
      <Dropdown.Item onClick={() => session.dialogs.ask('constants', true)}>
        Constant from a table …
      </Dropdown.Item>
      {onSheet.flatMap((kind) =>
        kindOf(kind).offers.map(({ title, preset }) => (
          <Dropdown.Item
            key={title}
            disabled={!hasResults && hasField(kind, 'result')}
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
            {region === undefined ? `On ${session.whole}` : `On region ${region.letter}`}
          </Dropdown.Header>
          <Dropdown.Item
            onClick={() =>
              session.dialogs.ask('relations', {
                of: upright,
                against: horizontal,
                region: region?.id ?? null,
                entry: null,
              })
            }
          >
            Relation through {nameOf(upright)} …
          </Dropdown.Item>
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
