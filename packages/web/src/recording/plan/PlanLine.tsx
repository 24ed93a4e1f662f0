import { type ReactNode } from 'react';
import { Form } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { beginningWords, endingWords, rateWordsOf, timesWords } from './planWords';
import { Unfolding } from '../../ui/Unfolding';
import { BeginEditor } from './BeginEditor';
import { EndEditor } from './EndEditor';
import { RateEditor } from './RateEditor';
import { TimesEditor } from './TimesEditor';
import { PlanHints } from './PlanHints';
import { useQuantities } from '../../sensors/useQuantities';

/** The plan of the next run as a sentence, whose parts are edited where they stand. */
export function PlanLine({ locked, menu }: { locked: boolean; menu: ReactNode }) {
  const session = useInvestigation();
  const { begin, end, times, practice } = useDocuments(({ plan }) => plan);
  const quantities = useQuantities();
  return (
    <section className="plan-line" aria-label="Plan of the next run">
      <p>
        {menu} Take{' '}
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
  return (
    <Unfolding title={label} label={`${label}: ${words}`} face={words} disabled={locked}>
      {() => children}
    </Unfolding>
  );
}
