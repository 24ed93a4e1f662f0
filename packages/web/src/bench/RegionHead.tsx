import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type EntryOfKind, printedUnit } from '@heuristor/core';
import { useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useDocuments, useNames, usePicture, useSession, useShownPage } from '../session/context';
import { withoutEntry } from '../session/edits';
import { highlighter } from '../theme/runStyles';
import { NameField } from '../ui/NameField';
import { NumberField } from '../ui/NumberField';
import { CardTools } from './CardTools';

/** A region at the head of what is worked out on it: letter, name, and its ends, which can be typed. */
export function RegionHead({ region }: { region: EntryOfKind<'region'> }) {
  const session = useSession();
  const sortable = useSortable({ id: region.id });
  const { setNodeRef, transform, transition, isDragging } = sortable;
  const [renaming, setRenaming] = useState(false);
  const nameOf = useNames();
  const unit = useUnitOf(region);
  const { id, letter, name, start, end, along } = region;
  // Ends that are typed in reverse are what they mean.
  const setEnds = (ends: { start: number; end: number }) =>
    session.changeEntry(id, { start: Math.min(ends.start, ends.end), end: Math.max(ends.start, ends.end) });
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
      <span className="badge-letter" style={{ background: highlighter(letter).fill }}>
        {letter}
      </span>
      {renaming ? (
        <NameField
          label={`Name of region ${letter}`}
          value={name}
          allowEmpty
          autoFocus
          onCommit={(newName) => session.changeEntry(id, { name: newName })}
          onDone={() => setRenaming(false)}
        />
      ) : (
        <span className="region-name">{name === '' ? <span className="quiet">region</span> : name}</span>
      )}
      <span className="region-ends mono">
        {along !== 't' && <span className="quiet">{nameOf(along)}</span>}
        <NumberField
          label={`Start of region ${letter}`}
          value={start}
          digits={5}
          check={different(end)}
          onCommit={(value) => setEnds({ start: value, end })}
        />
        –
        <NumberField
          label={`End of region ${letter}`}
          value={end}
          digits={5}
          check={different(start)}
          onCommit={(value) => setEnds({ start, end: value })}
        />
        <span className="quiet">{unit}</span>
      </span>
      <CardTools sortable={sortable} gripLabel="Move this region" menuLabel={`More for region ${letter}`}>
        <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
        <Dropdown.Item onClick={() => session.changeWorkings((sheet) => withoutEntry(sheet, id))}>
          Remove
        </Dropdown.Item>
      </CardTools>
    </div>
  );
}

/** The unit of the axis that the region lies on, which need not be the one that is shown. */
function useUnitOf({ along }: EntryOfKind<'region'>): string {
  const { horizontal } = useShownPage();
  const axis = usePicture(({ frame }) => frame?.horizontal.unit);
  const trace = usePicture(({ traces }) => traces.find(({ reference }) => reference === along)?.unit);
  const channel = useDocuments(
    ({ runs }) =>
      runs.flatMap(({ channels }) => channels).find(({ key }) => `channel:${key}` === along)?.unit,
  );
  if (along === horizontal) return axis === undefined ? '' : printedUnit(axis);
  if (along === 't') return 's';
  return trace === undefined ? (channel ?? '') : printedUnit(trace);
}
