import { type ReactNode, useRef, useState } from 'react';
import { Form, Overlay, Popover } from 'react-bootstrap';
import { useDocuments, useSession } from '../session/context';
import { beginningWords, endingWords, rateWordsOf, timesWords } from '../session/planWords';
import { BeginEditor } from './plan/BeginEditor';
import { EndEditor } from './plan/EndEditor';
import { RateEditor } from './plan/RateEditor';
import { TimesEditor } from './plan/TimesEditor';
import { PlanHints } from './plan/PlanHints';
import { useQuantities } from './useQuantities';
import { WayMenu } from './WayMenu';

/** The plan of the next run as a sentence, whose parts are edited where they stand. */
export function PlanLine({ locked }: { locked: boolean }) {
  const session = useSession();
  const { begin, end, times, practice } = useDocuments(({ plan }) => plan);
  const quantities = useQuantities();
  return (
    <section className="plan-line" aria-label="Plan of the next run">
      <p>
        <WayMenu disabled={locked} /> Take{' '}
        <Part label="Rate" words={rateWordsOf(quantities)} locked={locked || quantities.length === 0}>
          <RateEditor quantities={quantities} />
        </Part>
        . Begin{' '}
        <Part label="Beginning" words={beginningWords(begin, quantities)} locked={locked}>
          <BeginEditor begin={begin} quantities={quantities} />
        </Part>
        . End{' '}
        <Part label="End" words={endingWords(end, quantities)} locked={locked}>
          <EndEditor end={end} quantities={quantities} />
        </Part>
        .{' '}
        <Part label="Repetition" words={timesWords({ times })} locked={locked}>
          <TimesEditor times={times} />
        </Part>
        .
        <Form.Check
          type="switch"
          id="plan-practice"
          className="practice-switch"
          label="Practice"
          title="Practice runs are kept apart and cleared together"
          checked={practice}
          disabled={locked}
          onChange={() => void session.plan.change({ practice: !practice })}
        />
      </p>
      {!locked && <PlanHints />}
    </section>
  );
}

interface PartProps {
  label: string;
  words: string;
  locked: boolean;
  children: ReactNode;
}

/** A part of the sentence that opens what it can be changed to. */
function Part({ label, words, locked, children }: PartProps) {
  const button = useRef<HTMLButtonElement>(null);
  const [isOpen, setIsOpen] = useState(false);
  return (
    <>
      <button
        ref={button}
        type="button"
        className="plan-part"
        aria-label={`${label}: ${words}`}
        aria-expanded={isOpen}
        disabled={locked}
        onClick={() => setIsOpen(!isOpen)}
      >
        {words}
      </button>
      <Overlay
        target={button.current}
        show={isOpen && !locked}
        placement="bottom-start"
        rootClose
        rootCloseEvent="mousedown"
        transition={false}
        onHide={() => setIsOpen(false)}
      >
        {(props) => (
          <Popover {...props} className="plan-editor" role="dialog" aria-label={label}>
            <Popover.Body
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                event.stopPropagation();
                setIsOpen(false);
                button.current?.focus();
              }}
            >
              {children}
            </Popover.Body>
          </Popover>
        )}
      </Overlay>
    </>
  );
}
