import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import {
  type Entry,
  entrySentence,
  isSameForAllRuns,
  kindOf,
  orRefusal,
  parseFormula,
  regionOfEntry,
  texFormula,
} from '@heuristor/core';
import { memo, useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useNames, useSession } from '../session/context';
import { withMoved, withoutEntry } from '../session/edits';
import { formulasOf } from '../session/formulas';
import { NameField } from '../ui/NameField';
import { Typeset } from '../ui/Typeset';
import { CardTools } from './CardTools';
import { ConstantFields } from './ConstantFields';
import { EntryEditor } from './EntryEditor';
import { EntryResults } from './EntryResults';
import { WindowSlider } from './WindowSlider';

interface Props {
  entry: Entry;
  /** The entries before and after it in its group. */
  previous: string | undefined;
  next: string | undefined;
}

/** One entry of the workings: a sentence and what it works out for the runs. */
export const EntryCard = memo(function EntryCard({ entry, previous, next }: Props) {
  const session = useSession();
  const sortable = useSortable({ id: entry.id });
  const { setNodeRef, transform, transition, isDragging } = sortable;
  const [renaming, setRenaming] = useState(false);
  const [editing, setEditing] = useState(() => session.view.getState().openEntry === entry.id);
  const [digits, setDigits] = useState(false);
  const nameOf = useNames();
  const { fields, yields } = kindOf(entry.kind);
  const sentence = entrySentence(entry, nameOf);
  const isSeries = yields === 'series';
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  const flags = Object.entries(fields).filter(([, field]) => field.type === 'flag');
  const moveTo = (other: string | undefined) => {
    if (other !== undefined) session.changeWorkings((sheet) => withMoved(sheet, entry.id, other));
  };
  const called = entry.name === '' ? sentence : entry.name;
  return (
    <section
      ref={setNodeRef}
      className={`entry-card ${isDragging ? 'dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={sentence === '' ? entry.name : sentence}
      data-entry={entry.id}
      data-kind={entry.kind}
    >
      <div className="entry-head">
        <span className="sentence">
          {renaming ? (
            <NameField
              label="Name of this entry"
              value={entry.name}
              allowEmpty={!isSeries}
              autoFocus
              onCommit={(name) => session.changeEntry(entry.id, { name })}
              onDone={() => setRenaming(false)}
            />
          ) : (
            <>
              {entry.name !== '' && (
                <span className="entry-name">
                  {entry.name}
                  {isSeries || formulasOf(entry).length > 0 ? ' = ' : sentence === '' ? '' : ' · '}
                </span>
              )}
              <Sentence entry={entry} sentence={sentence} />
              {regionOfEntry(entry) === null && <span className="quiet"> on the whole run</span>}
            </>
          )}
        </span>
        <CardTools sortable={sortable} gripLabel="Move this entry" menuLabel={`More for ${called}`}>
          <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
          <Dropdown.Item onClick={() => setEditing(!editing)}>
            {editing ? 'Done changing' : 'Change'}
          </Dropdown.Item>
          {flags.map(([key, { label }]) => (
            <Dropdown.Item
              key={key}
              onClick={() => session.changeEntry(entry.id, { [key]: values[key] !== true })}
            >
              {values[key] === true ? label.replace(/^Show/, 'Hide') : label}
            </Dropdown.Item>
          ))}
          {yields === 'results' && (
            <Dropdown.Item onClick={() => setDigits(!digits)}>
              {digits ? 'Fewer digits' : 'All digits'}
            </Dropdown.Item>
          )}
          <Dropdown.Item disabled={previous === undefined} onClick={() => moveTo(previous)}>
            Move up
          </Dropdown.Item>
          <Dropdown.Item disabled={next === undefined} onClick={() => moveTo(next)}>
            Move down
          </Dropdown.Item>
          <Dropdown.Item onClick={() => session.changeWorkings((sheet) => withoutEntry(sheet, entry.id))}>
            Remove
          </Dropdown.Item>
        </CardTools>
      </div>
      <WindowSlider entry={entry} />
      {entry.kind === 'constant' ? (
        <ConstantFields entry={entry} />
      ) : (
        (editing || isSameForAllRuns(entry)) && <EntryEditor entry={entry} />
      )}
      <EntryResults entry={entry} digits={digits} isEdited={editing} />
    </section>
  );
});

/** What an entry does, as a sentence; a formula of its own is typeset. */
function Sentence({ entry, sentence }: { entry: Entry; sentence: string }) {
  const [formula] = formulasOf(entry);
  const read =
    formula === undefined || formula[1].text !== sentence ? null : orRefusal(() => parseFormula(sentence));
  if (read === null || read instanceof Error)
    return <span className={entry.name === '' ? '' : 'quiet'}>{sentence}</span>;
  return <Typeset tex={texFormula(read)} />;
}
