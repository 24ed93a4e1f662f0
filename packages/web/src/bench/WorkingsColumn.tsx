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
import { Dropdown } from 'react-bootstrap';
import { useBench } from '../stores/bench';
import { useWorkings } from '../stores/workings';
import { addDerived, addOnRegion, addRegion, moveLine, offers } from './edits';
import { LineCard } from './LineCard';
import { abscissaOfRuns, namesOf, seriesChoices } from './names';

export function WorkingsColumn() {
  const lines = useWorkings((state) => state.workings.lines);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null)
      moveLine(
        String(active.id),
        lines.findIndex(({ id }) => id === over.id),
      );
  };
  return (
    <aside className="side right" aria-label="Workings">
      <div className="side-head">
        <h2>Workings</h2>
        <AddLine />
      </div>
      {lines.length === 0 && (
        <p className="quiet">
          Drag over a trace to mark a region. What can be worked out on it is offered beside it, and is worked
          out for every run that is shown.
        </p>
      )}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={lines.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <div className="lines">
            {lines.map((line, i) => (
              <LineCard key={line.id} line={line} place={i} count={lines.length} />
            ))}
          </div>
        </SortableContext>
      </DndContext>
    </aside>
  );
}

function AddLine() {
  const workings = useWorkings((state) => state.workings);
  const runs = useBench((state) => state.runs);
  const rendered = useBench((state) => state.rendered);
  const nameOf = namesOf(workings, abscissaOfRuns(runs));
  const choices = seriesChoices(runs, workings);
  const region = workings.lines.find((line) => line.kind === 'region');
  const addMiddleRegion = () => {
    if (rendered === null) return;
    const { from, to } = rendered.viewport;
    useBench.setState({ selectedRegion: addRegion(from + (to - from) / 4, to - (to - from) / 4) });
  };
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="plain" className="no-caret" disabled={choices.length === 0}>
        <i className="bi bi-plus-lg" aria-hidden /> Add a line
      </Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Item onClick={addMiddleRegion}>Region</Dropdown.Item>
        <Dropdown.Divider />
        {choices.map((choice) => (
          <Dropdown.Item key={`d${choice}`} onClick={() => addDerived('derivative', choice, nameOf(choice))}>
            Derivative of {nameOf(choice)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        {choices.map((choice) => (
          <Dropdown.Item key={`i${choice}`} onClick={() => addDerived('integral', choice, nameOf(choice))}>
            Running integral of {nameOf(choice)}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        <Dropdown.Header>
          {region === undefined ? 'On the whole run' : `On region ${region.letter}`}
        </Dropdown.Header>
        {choices.length > 0 &&
          offers.map(({ key, title }) => (
            <Dropdown.Item key={key} onClick={() => addOnRegion(key, region?.id ?? null, choices[0])}>
              {title} of {nameOf(choices[0])}
            </Dropdown.Item>
          ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}
