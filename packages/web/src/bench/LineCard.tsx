import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { type Line, lineSentence } from '@heuristor/core';
import { useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useBench } from '../stores/bench';
import { changeLine, useWorkings } from '../stores/workings';
import { highlighter } from '../theme/runStyles';
import { NameField } from '../ui/NameField';
import { moveLine, removeLine } from './edits';
import { LineEditor } from './LineEditor';
import { LineResults } from './LineResults';
import { RegionRow } from './RegionRow';
import { WindowRow } from './WindowRow';
import { abscissaOfRuns, namesOf } from './names';

interface Props {
  line: Line;
  place: number;
  count: number;
}

/** One line of the workings: a sentence and what it works out for the runs. */
export function LineCard({ line, place, count }: Props) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id: line.id });
  const workings = useWorkings((state) => state.workings);
  const runs = useBench((state) => state.runs);
  const [renaming, setRenaming] = useState(false);
  const [editing, setEditing] = useState(false);
  const [digits, setDigits] = useState(false);
  const nameOf = namesOf(workings, abscissaOfRuns(runs));
  const letter =
    line.kind === 'region'
      ? line.letter
      : 'region' in line
        ? workings.lines.find((other) => other.id === line.region && other.kind === 'region')
        : undefined;
  const badge = typeof letter === 'string' ? letter : letter?.kind === 'region' ? letter.letter : null;
  const sentence = lineSentence(line, nameOf);
  const derived = line.kind === 'derivative' || line.kind === 'integral';
  return (
    <section
      ref={setNodeRef}
      className={`line-card ${isDragging ? 'dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={line.kind === 'region' ? `Region ${line.letter}` : sentence}
      data-line={line.id}
      data-kind={line.kind}
    >
      <div className="line-head">
        {badge !== null && (
          <span className="badge-letter" style={{ background: highlighter(badge).fill }}>
            {badge}
          </span>
        )}
        <span className="sentence">
          {renaming ? (
            <NameField
              label="Name of this line"
              value={line.name}
              allowEmpty={!derived}
              autoFocus
              onCommit={(name) => changeLine(line.id, { name })}
              onDone={() => setRenaming(false)}
            />
          ) : (
            <>
              {line.name !== '' && (
                <span className="line-name">
                  {line.name}
                  {derived ? ' = ' : line.kind === 'region' ? '' : ' · '}
                </span>
              )}
              {line.kind !== 'region' && <span className={line.name === '' ? '' : 'quiet'}>{sentence}</span>}
              {line.kind === 'region' && line.name === '' && <span className="quiet">region</span>}
            </>
          )}
        </span>
        <button
          className="grip"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label="Move this line"
          title="Drag to reorder"
        >
          <i className="bi bi-grip-vertical" aria-hidden />
        </button>
        <Dropdown align="end">
          <Dropdown.Toggle
            variant="bare"
            className="no-caret"
            aria-label={`More for ${line.name || sentence || badge}`}
          >
            <i className="bi bi-three-dots" aria-hidden />
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }}>
            <Dropdown.Item onClick={() => setRenaming(true)}>Rename</Dropdown.Item>
            {line.kind !== 'region' && (
              <Dropdown.Item onClick={() => setEditing(!editing)}>
                {editing ? 'Done changing' : 'Change'}
              </Dropdown.Item>
            )}
            {line.kind === 'fit' && (
              <Dropdown.Item onClick={() => changeLine(line.id, { showResiduals: !line.showResiduals })}>
                {line.showResiduals ? 'Hide residuals' : 'Show residuals'}
              </Dropdown.Item>
            )}
            {line.kind !== 'region' && !derived && (
              <Dropdown.Item onClick={() => setDigits(!digits)}>
                {digits ? 'Fewer digits' : 'All digits'}
              </Dropdown.Item>
            )}
            <Dropdown.Item disabled={place === 0} onClick={() => moveLine(line.id, place - 1)}>
              Move up
            </Dropdown.Item>
            <Dropdown.Item disabled={place === count - 1} onClick={() => moveLine(line.id, place + 1)}>
              Move down
            </Dropdown.Item>
            <Dropdown.Item onClick={() => removeLine(line.id)}>Remove</Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </div>
      {line.kind === 'region' && <RegionRow region={line} />}
      {line.kind === 'derivative' && <WindowRow line={line} />}
      {editing && line.kind !== 'region' && <LineEditor line={line} nameOf={nameOf} />}
      <LineResults line={line} digits={digits} />
    </section>
  );
}
