import { matchSorter } from 'match-sorter';
import { type ReactNode, useEffect, useId, useMemo, useRef, useState } from 'react';
import { habitsOf, rememberHabit } from './habits';
import { Palette } from './Palette';

export interface Choice {
  key: string;
  group: string;
  /** How it reads, as plain text: it is found by it. */
  title: string;
  /** Other words by which it is found. */
  words?: string;
  /** What is printed on it, to be read from afar. */
  mark?: string;
  /** What stands beside its title. */
  about?: ReactNode;
  /** What it needs and is not there; it cannot be taken. */
  lacks?: string;
  /** What it is remembered by when it was taken; nothing where it is not. */
  habit?: string;
  /** Whether it stands there before anything is typed. */
  isUsual: boolean;
  take: () => void;
  /** Whether the list stays when it was taken. */
  staysOpen?: boolean;
}

interface Props {
  title: string;
  label: string;
  placeholder: string;
  className?: string;
  choices: readonly Choice[];
  /** Under which name it is remembered what was taken last; what was stands first. */
  memory: string;
  /** What is said where nothing is called as typed. */
  none: string;
  above?: ReactNode;
  below?: ReactNode;
  onClose: () => void;
}

const lastUsed = 'Used last';

/** The choices that what was typed leaves, in the order in which they stand, each with the group under which it does. */
function listed(choices: readonly Choice[], typed: string, memory: string): Choice[] {
  if (typed.trim() !== '')
    return matchSorter([...choices], typed.trim(), {
      keys: ['title', 'words'],
      // Of equal matches, what is usual stands first.
      baseSort: (one, other) =>
        Number(other.item.isUsual) - Number(one.item.isUsual) || one.index - other.index,
    });
  const usual = choices.filter(({ isUsual }) => isUsual);
  const used = habitsOf(memory).flatMap((habit) => usual.find((choice) => choice.habit === habit) ?? []);
  return [...used.map((choice) => ({ ...choice, key: `used ${choice.key}`, group: lastUsed })), ...usual];
}

/** Something to choose from a long list by typing a part of its name: arrow keys move, Enter takes. */
export function ChoicePalette({
  title,
  label,
  placeholder,
  className = '',
  choices,
  memory,
  none,
  above,
  below,
  onClose,
}: Props) {
  const [at, setAt] = useState(0);
  const id = useId();
  const last = useRef<Choice[]>([]);
  const take = (choice: Choice | undefined) => {
    if (choice === undefined || choice.lacks !== undefined) return;
    if (choice.habit !== undefined) rememberHabit(memory, choice.habit);
    if (choice.staysOpen !== true) onClose();
    choice.take();
  };
  return (
    <Palette
      title={title}
      label={label}
      placeholder={placeholder}
      size="lg"
      className={`choice-palette ${className}`}
      isTypedAtOnce
      onClose={onClose}
      onEnter={() => take(last.current[Math.min(at, last.current.length - 1)])}
      onMove={(by) => setAt(Math.min(Math.max(at + by, 0), Math.max(last.current.length - 1, 0)))}
      onTyped={() => setAt(0)}
      active={`${id}-${at}`}
      above={above}
    >
      {(typed) => (
        <>
          <List
            id={id}
            choices={choices}
            typed={typed}
            memory={memory}
            at={at}
            onList={(list) => {
              last.current = list;
            }}
            onTake={take}
          />
          {typed.trim() !== '' && listed(choices, typed, memory).length === 0 && (
            <p className="quiet">{none}</p>
          )}
          {below}
        </>
      )}
    </Palette>
  );
}

interface ListProps {
  id: string;
  choices: readonly Choice[];
  typed: string;
  memory: string;
  at: number;
  onList: (list: Choice[]) => void;
  onTake: (choice: Choice) => void;
}

function List({ id, choices, typed, memory, at, onList, onTake }: ListProps) {
  const list = useMemo(() => listed(choices, typed, memory), [choices, typed, memory]);
  onList(list);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [at, list]);
  const isTyped = typed.trim() !== '';
  return (
    <div className="choice-list" role="listbox" id={id} ref={box} aria-label="Choices">
      {list.map((choice, i) => (
        <div key={choice.key} role="presentation">
          {!isTyped && choice.group !== list[i - 1]?.group && (
            <div className="choice-group" role="presentation">
              {choice.group}
            </div>
          )}
          <button
            type="button"
            role="option"
            id={`${id}-${i}`}
            aria-selected={i === Math.min(at, list.length - 1)}
            aria-disabled={choice.lacks !== undefined}
            className="palette-item"
            tabIndex={-1}
            onClick={() => onTake(choice)}
          >
            {choice.mark !== undefined && <span className="choice-mark">{choice.mark}</span>}
            <span className="choice-title">{choice.title}</span>
            <span className="quiet small">
              {choice.lacks === undefined ? choice.about : `needs ${choice.lacks}`}
              {isTyped && choice.about === undefined && choice.lacks === undefined && choice.group}
            </span>
          </button>
        </div>
      ))}
    </div>
  );
}
