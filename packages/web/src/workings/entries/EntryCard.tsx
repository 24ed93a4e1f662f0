import { useSortable } from '@dnd-kit/sortable';
import { type Entry, entrySentence, isFit, isSameForAllRuns, kindOf } from '@heuristor/core';
import { memo, useEffect, useRef, useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useNames, useSession } from '../../investigation/context';
import { withMoved } from '../edits';
import { removeEntry } from './removing';
import { withDuplicate } from './users';
import { ResultCard } from '../../ui/ResultCard';
import { NameField } from '../../ui/NameField';
import { CardName, CardValue } from './CardLine';
import { useUnfolding } from './unfolding';
import { ConstantFields } from '../constants/ConstantFields';
import { EntryEditor } from './EntryEditor';
import { EntryNote } from './EntryNote';
import { EntryResults } from './EntryResults';
import { WindowSlider } from './WindowSlider';
import { useShownIn } from '../useShown';
import { WordsCard } from './WordsCard';

/** Where somebody begins to fill in what has just been added. */
const firstField = ':is(.formula-field, .constant-fields, .entry-edit) :is(input, select)';
const menuRestMilliseconds = 60;

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
  const { node } = sortable;
  const [renaming, setRenaming] = useState(false);
  const [editing, setEditing] = useState(() => session.view.getState().openEntry === entry.id);
  const [digits, setDigits] = useState(false);
  const nameOf = useNames();
  const isNew = useRef(editing);
  useEffect(() => {
    if (!isNew.current) return;
    isNew.current = false;
    session.viewing.openEntry(null);
    node.current?.scrollIntoView({ block: 'nearest' });
    const { current: card } = node;
    // The menu that led here gives the focus back to its button first.
    setTimeout(() => {
      const field = card?.querySelector<HTMLInputElement | HTMLSelectElement>(firstField);
      // Whoever is faster types in it already.
      if (field === document.activeElement) return;
      field?.focus();
      if (field instanceof HTMLInputElement) field.select();
    }, menuRestMilliseconds);
  }, [node, session]);
  const { fields, yields } = kindOf(entry.kind);
  const sentence = entrySentence(entry, nameOf);
  const isSeries = yields === 'series';
  const values = entry as unknown as Readonly<Record<string, unknown>>;
  const flags = Object.entries(fields).filter(([, field]) => field.type === 'flag');
  const moveTo = (other: string | undefined) => {
    if (other !== undefined) session.changeWorkings((sheet) => withMoved(sheet, entry.id, other));
  };
  const called = entry.name === '' ? sentence : entry.name;
  const [noting, setNoting] = useState(false);
  const hasNote = (entry.note ?? '') !== '';
  const [asked, setAsked] = useState<string | null>(null);
  const { isOpen, open, toggle } = useUnfolding(entry.kind, entry.folded === true, editing);
  const ask = (key: string | null) => {
    setAsked(key);
    if (key !== null) open();
  };
  const change = (isChanged: boolean) => {
    setEditing(isChanged);
    if (isChanged) open();
  };
  useShownIn(node, entry.id, isOpen ? 'everywhere' : 'inFront');
  return (
    <ResultCard
      title={sentence === '' ? entry.name : sentence}
      sortable={sortable}
      menuLabel={`More for ${called}`}
      data={{ 'data-entry': entry.id, 'data-kind': entry.kind }}
      sentence={
        entry.kind === 'words' ? (
          <WordsCard
            entry={entry}
            isWritten={editing}
            onCommit={(text) => {
              setEditing(false);
              if (text !== entry.text) session.changeEntry(entry.id, { text });
            }}
          />
        ) : renaming ? (
          <NameField
            label="Name of this entry"
            value={entry.name}
            allowEmpty={!isSeries}
            autoFocus
            onCommit={(name) => session.changeEntry(entry.id, { name })}
            onDone={() => setRenaming(false)}
          />
        ) : (
          <CardName entry={entry} sentence={sentence} isOpen={isOpen} />
        )
      }
      value={
        entry.kind === 'words' ? null : (
          <CardValue entry={entry} isOpen={isOpen} asked={asked} onAsk={ask} onOpen={open} />
        )
      }
      isOpen={entry.kind === 'words' ? null : isOpen}
      onToggle={toggle}
      menu={
        <>
          {entry.kind !== 'words' && <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>}
          <Dropdown.Item onClick={() => change(!editing)}>
            {editing ? 'Done changing' : 'Change'}
          </Dropdown.Item>
          {entry.kind === 'fit' && (
            <Dropdown.Item
              onClick={() =>
                session.dialogs.ask('relations', {
                  of: entry.of,
                  against: entry.against,
                  region: entry.region,
                  entry: entry.id,
                })
              }
            >
              Choose another relation
            </Dropdown.Item>
          )}
          {isFit(entry) && !session.isOfTables && (
            <Dropdown.Item onClick={() => session.dialogs.ask('jointFit', { entry: entry.id })}>
              One fit through all runs …
            </Dropdown.Item>
          )}
          {flags.map(([key, { label }]) => (
            <Dropdown.Item
              key={key}
              onClick={() => session.changeEntry(entry.id, { [key]: values[key] !== true })}
            >
              {values[key] === true ? label.replace(/^Show/, 'Hide') : label}
            </Dropdown.Item>
          ))}
          {yields === 'results' && entry.kind !== 'words' && (
            <Dropdown.Item
              onClick={() => {
                setDigits(!digits);
                open();
              }}
            >
              {digits ? 'Fewer digits' : 'All digits'}
            </Dropdown.Item>
          )}
          <Dropdown.Item disabled={previous === undefined} onClick={() => moveTo(previous)}>
            Move up
          </Dropdown.Item>
          <Dropdown.Item disabled={next === undefined} onClick={() => moveTo(next)}>
            Move down
          </Dropdown.Item>
          <Dropdown.Item onClick={() => setNoting(true)}>
            {hasNote ? 'Change its note' : 'Add a note'}
          </Dropdown.Item>
          <Dropdown.Item
            onClick={() =>
              session.changeWorkings((sheet) => withDuplicate(sheet, entry.id)?.workings ?? sheet)
            }
          >
            Duplicate
          </Dropdown.Item>
          <Dropdown.Item onClick={() => session.dialogs.ask('copy', { id: entry.id, called })}>
            Copy to another investigation …
          </Dropdown.Item>
          <Dropdown.Item onClick={() => removeEntry(session, entry, nameOf)}>Remove</Dropdown.Item>
        </>
      }
    >
      {isOpen && <WindowSlider entry={entry} />}
      {(noting || hasNote) && (
        <EntryNote
          note={entry.note ?? ''}
          isWritten={noting}
          called={called}
          onCommit={(note) => {
            setNoting(false);
            if (note !== (entry.note ?? '')) session.changeEntry(entry.id, { note });
          }}
        />
      )}
      {entry.kind === 'words'
        ? null
        : entry.kind === 'constant'
          ? isOpen && <ConstantFields entry={entry} />
          : (editing || isSameForAllRuns(entry)) &&
            isOpen && <EntryEditor entry={entry} onDone={() => setEditing(false)} />}
      {entry.kind !== 'words' && (
        <EntryResults
          entry={entry}
          digits={digits}
          isEdited={editing}
          isOpen={isOpen}
          asked={asked}
          onAsk={ask}
        />
      )}
    </ResultCard>
  );
});
