import { type Label } from '@heuristor/contracts';
import { type KeyboardEvent, type RefObject, useRef, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { useStore } from 'zustand';
import { usePicture, useSession, useShownPage, useView } from '../../investigation/context';
import { type ShownLabel } from './labelReader';
import { withLabelChanged, withoutLabel } from './labels';
import { pageIn } from '../pages/pages';
import { Unfolded } from '../../ui/Unfolded';
import { type PlotBox, axisFor, labelPlace } from './labelPlaces';
import { plotLayout, plotOf } from '../axes/panelPlot';
import { useDrag } from '../../ui/useDrag';
import { useShown } from '../../workings/useShown';
import { FixedMenu } from '../../ui/FixedMenu';

const shortestDrag = 3;
const keyStep = 4;

/** The labels of the page, over its traces. */
export function LabelLayer({ stack }: { stack: RefObject<HTMLDivElement | null> }) {
  const session = useSession();
  const shownLabels = useStore(session.labels.shown);
  const { labels: own } = useShownPage();
  useShown(
    'everywhere',
    shownLabels.flatMap(({ quotes }) => quotes),
  );
  // Values in labels come from the workers; where a hand has put them is known at once.
  const labels = shownLabels.flatMap((shown) => {
    if (shown.as !== 'typed') return [shown];
    const label = own.find(({ id }) => id === shown.label.id);
    return label === undefined ? [] : [{ ...shown, label }];
  });
  const traces = usePicture((picture) => picture.traces);
  const frame = usePicture((picture) => picture.frame);
  const width = useView(({ plotWidth }) => plotWidth);
  useStore(plotLayout);
  // Without a label nobody asks where anything lies, which makes a browser lay out the page.
  if (frame === null || labels.length === 0) return null;
  const top = stack.current?.querySelector('.overlay')?.getBoundingClientRect().top ?? 0;
  return (
    <>
      {labels.map((shown) => {
        const panel = stack.current?.querySelector<HTMLElement>(
          `[data-trace="${CSS.escape(shown.label.panel)}"]`,
        );
        const trace = traces.find(({ key }) => key === shown.label.panel);
        const plot = panel == null ? null : plotOf(panel, top);
        if (plot === null || trace === undefined) return null;
        const box = { left: 0, width, top: plot.top, height: plot.height };
        const place = labelPlace(shown, axisFor(shown.label, trace), box, frame.sight);
        if (place === null) return null;
        if (shown.as !== 'typed') return <GivenTag key={shown.label.id} shown={shown} place={place} />;
        return <LabelTag key={shown.label.id} shown={shown} place={place} box={box} />;
      })}
    </>
  );
}

/** What stands beside a point without that anybody has typed it there. */
const GivenTag = ({ shown: { text, as }, place: { middle, target } }: Pick<TagProps, 'shown' | 'place'>) => (
  <>
    {as === 'mark' && target !== null && (
      <svg className="label-leader" aria-hidden>
        <circle cx={target.x} cy={target.y} r="8" />
      </svg>
    )}
    <div className={`point-name ${as}`} style={{ left: middle.x, top: middle.y }}>
      {text}
    </div>
  </>
);

interface TagProps {
  shown: ShownLabel;
  place: NonNullable<ReturnType<typeof labelPlace>>;
  box: PlotBox;
}

function LabelTag({ shown: { label, text, unknown }, place, box }: TagProps) {
  const session = useSession();
  const tag = useRef<HTMLDivElement>(null);
  const isNew = useView(({ openEntry }) => openEntry === label.id);
  const [isOpen, setIsOpen] = useState(false);
  const change = (changes: Partial<Omit<Label, 'id'>>) =>
    session.changePage((page) => withLabelChanged(page, label.id, changes));
  const remove = () => session.changePage((page) => withoutLabel(page, label.id));
  /** As it stands on the sheet: keys may come faster than it is drawn. */
  const now = () =>
    pageIn(session.workings, session.onPage.page).labels.find(({ id }) => id === label.id) ?? label;
  /** A label that points at something keeps pointing there; a free one goes where it is put. */
  const moveBy = ({ at, offset }: Label, dx: number, dy: number) => {
    if (at.kind === 'free') {
      const share = (value: number) => Math.min(Math.max(value, 0), 1);
      change({ at: { ...at, x: share(at.x + dx / box.width), y: share(at.y + dy / box.height) } });
    } else change({ offset: { x: offset.x + dx, y: offset.y + dy } });
  };
  const { handlers } = useDrag({
    shortest: shortestDrag,
    begin: ({ button }) => (button === 0 ? label : null),
    move: (before, { by }) => {
      session.move();
      moveBy(before, by.x, by.y);
    },
    drop: () => session.settle(),
    press: () => setIsOpen(true),
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== tag.current) return;
    const moves: Record<string, () => void> = {
      ArrowLeft: () => moveBy(now(), -keyStep, 0),
      ArrowRight: () => moveBy(now(), keyStep, 0),
      ArrowUp: () => moveBy(now(), 0, -keyStep),
      ArrowDown: () => moveBy(now(), 0, keyStep),
      Enter: () => setIsOpen(true),
      Delete: remove,
      Backspace: remove,
    };
    const move = moves[event.key];
    if (move === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    move();
  };
  const { middle, target } = place;
  const close = () => {
    setIsOpen(false);
    if (isNew) session.viewing.openEntry(null);
    // What says nothing is nothing.
    if (now().text.trim() === '') remove();
  };
  return (
    <>
      {target !== null && (
        <svg className="label-leader" aria-hidden>
          <line x1={middle.x} y1={middle.y} x2={target.x} y2={target.y} />
          <circle cx={target.x} cy={target.y} r="3.5" />
        </svg>
      )}
      <div
        ref={tag}
        className={`trace-label ${unknown.length > 0 ? 'unknown' : ''}`}
        style={{ left: middle.x, top: middle.y }}
        role="button"
        tabIndex={0}
        aria-label={`Label: ${text}`}
        title="Drag to move, press to change"
        {...handlers}
        onKeyDown={onKeyDown}
      >
        {text === '' ? '…' : text}
      </div>
      <Unfolded
        title="Label"
        target={tag.current}
        show={isOpen || isNew}
        placement="bottom-start"
        onHide={close}
      >
        <LabelEditor
          label={label}
          unknown={unknown}
          onText={(next) => change({ text: next })}
          onRemove={remove}
          onDone={close}
        />
      </Unfolded>
    </>
  );
}

interface EditorProps {
  label: Label;
  unknown: readonly string[];
  onText: (text: string) => void;
  onRemove: () => void;
  onDone: () => void;
}

function LabelEditor({ label, unknown, onText, onRemove, onDone }: EditorProps) {
  const session = useSession();
  const field = useRef<HTMLTextAreaElement>(null);
  // What is shown comes back from the workers, which a hand that types does not wait for.
  const [text, setText] = useState(label.text);
  const write = (next: string) => {
    setText(next);
    onText(next);
  };
  const insert = (name: string) => {
    const at = field.current?.selectionStart ?? text.length;
    write(`${text.slice(0, at)}{${name}}${text.slice(field.current?.selectionEnd ?? at)}`);
    field.current?.focus();
  };
  return (
    <div className="label-editor">
      <Form.Control
        as="textarea"
        ref={field}
        rows={2}
        autoFocus
        aria-label="Text of the label"
        maxLength={300}
        value={text}
        onFocus={() => session.history.hold()}
        onBlur={() => session.history.release()}
        onChange={(event) => write(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          onDone();
        }}
      />
      {unknown.length > 0 && (
        <p className="refused">
          Nothing here is called {unknown.map((name) => `“${name}”`).join(', ')}. Choose a value below.
        </p>
      )}
      <div className="label-editor-row">
        <Dropdown>
          <Dropdown.Toggle variant="plain">Insert a value</Dropdown.Toggle>
          <FixedMenu className="label-values">
            {session.labels.namesFor(label).map((name) => (
              <Dropdown.Item key={name} as="button" onClick={() => insert(name)}>
                {name}
              </Dropdown.Item>
            ))}
          </FixedMenu>
        </Dropdown>
        <Button variant="plain" onClick={onRemove}>
          Remove
        </Button>
        <Button variant="act" onClick={onDone}>
          Done
        </Button>
      </div>
    </div>
  );
}
