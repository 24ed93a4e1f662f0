import { type Run } from '@heuristor/contracts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type EntryOfKind, entrySentence, printedUnit } from '@heuristor/core';
import { useId, useState } from 'react';
import { Button, Dropdown } from 'react-bootstrap';
import {
  useAbscissa,
  useDocuments,
  useFrontRun,
  useLaidRegion,
  useNames,
  usePicture,
  useSession,
} from '../../investigation/context';
import { removeEntry } from '../entries/removing';
import { highlighterPaint } from '../../runs/runStyles';
import { NameField } from '../../ui/NameField';
import { NumberField } from '../../ui/NumberField';
import { CardTools } from '../../ui/CardTools';
import { EntryEditor } from '../entries/EntryEditor';
import { useUnitOf } from '../entries/useUnitOf';
import { written } from '../../ui/numberText';

/** Phases that runs often have. */
const phases = ['held', 'pulled', 'running free', 'caught', 'at rest', 'swinging'];

/** The place of the last digit of a region's ends: that of the readings' times, or a ten-thousandth of its length. */
function lastPlaceOf(run: Run | undefined, length: number): number {
  const intervals = (run?.channels ?? []).flatMap(({ sampling }) =>
    sampling.kind === 'regular' ? [sampling.interval] : [],
  );
  const step = intervals.length > 0 ? Math.min(...intervals) : length / 1000;
  // 0.02 s is told to hundredths, and so is 0.025 s to thousandths.
  for (let place = 0; place > -9; place--)
    if (Math.abs(step * 10 ** -place - Math.round(step * 10 ** -place)) < 1e-6 && step >= 10 ** place)
      return place;
  return step > 0 ? Math.max(Math.floor(Math.log10(step)), -9) : -3;
}

/** A region at the head of what is worked out on it: letter, name, its ends, which can be typed, and what they hang on. */
export function RegionHead({ region }: { region: EntryOfKind<'region'> }) {
  const session = useSession();
  const sortable = useSortable({ id: region.id });
  const { setNodeRef, transform, transition, isDragging } = sortable;
  const [renaming, setRenaming] = useState(false);
  const [attaching, setAttaching] = useState(false);
  const nameOf = useNames();
  const words = useUnitOf(region.along, region);
  const abscissa = useAbscissa();
  const laid = useLaidRegion(region);
  const front = useFrontRun();
  const phasesId = useId();
  const outcome = usePicture(({ outcomes }) => outcomes[front?.id ?? '']?.[region.id]);
  const { id, letter, name, along, own = [] } = region;
  const unit = along === 't' ? printedUnit(abscissa.unit) : words;
  const { start, end } = laid ?? region;
  const isOwn = own.some(({ run }) => run === front?.id);
  const called = entrySentence(region, nameOf);
  const place = lastPlaceOf(along === 't' ? front : undefined, end - start);
  // Ends that are typed in reverse are what they mean.
  const setEnds = (ends: { start: number; end: number }) =>
    session.regions.place(id, {
      start: Math.min(ends.start, ends.end),
      end: Math.max(ends.start, ends.end),
    });
  const different = (other: number) => (value: number) =>
    value === other ? 'A region needs two different ends.' : null;
  return (
    <div
      ref={setNodeRef}
      className={`region-head ${isDragging ? 'dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={`Region ${letter}`}
      data-entry={id}
      data-kind="region"
      role="group"
    >
      <span className="badge-letter" style={{ background: highlighterPaint(letter).fill }}>
        {letter}
      </span>
      {renaming ? (
        <>
          <NameField
            label={`Name of region ${letter}`}
            value={name}
            allowEmpty
            autoFocus
            suggestions={phasesId}
            onCommit={(newName) => session.changeEntry(id, { name: newName })}
            onDone={() => setRenaming(false)}
          />
          <datalist id={phasesId}>
            {phases.map((phase) => (
              <option key={phase} value={phase} />
            ))}
          </datalist>
        </>
      ) : (
        <span className="region-name">{name === '' ? <span className="quiet">region</span> : name}</span>
      )}
      <span className="region-ends mono">
        {along !== 't' && <span className="quiet">{nameOf(along)}</span>}
        <NumberField
          label={`Start of region ${letter}`}
          value={start}
          place={place}
          check={different(end)}
          onCommit={(value) => setEnds({ start: value, end: laid?.cut.end ?? end })}
        />
        –
        <NumberField
          label={`End of region ${letter}`}
          value={end}
          place={place}
          check={different(start)}
          onCommit={(value) => setEnds({ start: laid?.cut.start ?? start, end: value })}
        />
        <span className="quiet">{unit}</span>
      </span>
      <CardTools sortable={sortable} gripLabel="Move this region" menuLabel={`More for region ${letter}`}>
        <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
        {along === 't' && (
          <Dropdown.Item onClick={() => setAttaching(!attaching)}>
            {attaching ? 'Done changing' : 'Attach its ends …'}
          </Dropdown.Item>
        )}
        {front !== undefined && !isOwn && (
          <Dropdown.Item onClick={() => session.regions.adjustHere(id)}>
            Adjust in {front.name} alone
          </Dropdown.Item>
        )}
        <Dropdown.Item onClick={() => removeEntry(session, region, nameOf)}>Remove</Dropdown.Item>
      </CardTools>
      {attaching && along === 't' && (
        <EntryEditor entry={region} only={['from', 'until', 'cyclesOf']} onDone={() => setAttaching(false)} />
      )}
      {called !== '' && along === 't' && !attaching && <p className="note region-rule">{called}</p>}
      {outcome?.kind === 'refused' && (
        <div className={outcome.lacks === undefined ? 'refused' : 'note'}>
          {front?.name}: {written(outcome.sentence)}
        </div>
      )}
      <OwnEnds region={region} />
    </div>
  );
}

/** The runs in which the region lies elsewhere, each to be put back. */
function OwnEnds({ region: { id, own = [] } }: { region: EntryOfKind<'region'> }) {
  const session = useSession();
  const runs = useDocuments((documents) => documents.runs);
  const known = own.flatMap(({ run }) => runs.find((other) => other.id === run) ?? []);
  if (known.length === 0) return null;
  return (
    <>
      {known.map((run) => (
        <p key={run.id} className="note region-own">
          Lies elsewhere in {run.name}.{' '}
          <Button variant="link" onClick={() => session.regions.putBack(id, run.id)}>
            Put it back
          </Button>
        </p>
      ))}
    </>
  );
}
