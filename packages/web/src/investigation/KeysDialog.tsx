import { Button, Modal } from 'react-bootstrap';
import { useDialog, useSession } from './context';

/** A key or a movement of the hand, and what it does. */
type Line = readonly [how: string, does: string];

const keys: readonly { title: string; lines: readonly Line[] }[] = [
  {
    title: 'Recording',
    lines: [
      ['Space', 'begins a run, and ends it'],
      ['L', 'what the sensors read, live'],
      ['A', 'the apparatus of simulated sensors'],
      ['Delete', 'takes the newest run away; Undo brings it back'],
    ],
  },
  {
    title: 'Looking',
    lines: [
      ['F', 'all data'],
      ['R', 'only the marked region, and back'],
      ['B', 'one step back of the view'],
      ['T', 'the table of numbers'],
      ['D', 'large digits'],
      ['P', 'presenter size'],
    ],
  },
  {
    title: 'Working out',
    lines: [
      ['/', 'finds what can be worked out'],
      ['N', 'pins what is seen for the notebook'],
      ['Ctrl Z, Ctrl Shift Z', 'a step back, and forth again'],
      ['Escape', 'closes what is open, then the offers, then the cursor'],
    ],
  },
  {
    title: 'The hand on a trace',
    lines: [
      ['drag', 'marks a region'],
      ['press', 'puts a cursor; arrow keys move it from reading to reading'],
      ['Shift and press', 'puts a second cursor'],
      ['Ctrl and drag', 'draws a box to look at'],
      ['Shift and drag', 'moves along the axis'],
      ['wheel, two fingers', 'zooms about the place under it'],
      ['drag or press the numbers of an axis', 'moves or stretches it, or types its ends'],
    ],
  },
];

/** The keys and gestures of the bench, where somebody asks for them. */
export function KeysDialog() {
  const session = useSession();
  if (useDialog('keys') !== true) return null;
  return (
    <Modal show size="lg" onHide={session.dialogs.close} aria-labelledby="keys-title" animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="keys-title">Keys and gestures</Modal.Title>
      </Modal.Header>
      <Modal.Body className="keys-help">
        {keys.map(({ title, lines }) => (
          <section key={title} aria-label={title}>
            <h3>{title}</h3>
            <dl>
              {lines.map(([how, does]) => (
                <div key={how}>
                  <dt>
                    <kbd>{how}</kbd>
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </Modal.Body>
    </Modal>
  );
}

/** Asks for them. */
export function KeysButton() {
  const session = useSession();
  return (
    <Button
      variant="on-ink"
      className="wide-only"
      aria-label="Keys and gestures"
      title="Keys and gestures (?)"
      onClick={() => session.dialogs.ask('keys', true)}
    >
      ?
    </Button>
  );
}
