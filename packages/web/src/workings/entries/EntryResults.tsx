import { type Entry, isSameForAllRuns, kindOf } from '@heuristor/core';
import { formulasOf } from '../formulas/formulas';
import { type SeenRun } from '../../runs/seenRun';
import { written } from '../../ui/numberText';
import { type ShownOutcome } from '../../workers/protocol';
import { Budget } from '../results/Budget';
import { DrawnCheck } from '../results/DrawnCheck';
import { RunValues } from '../results/RunValues';
import { AllDigits } from './AllDigits';
import { EntryValue } from './EntryValue';
import { OtherRuns, OtherRunsInRow } from './OtherRuns';
import { ShownWorking } from './ShownWorking';
import { mainOf, shownUnitOf } from './shownUnit';
import { useEntryOutcomes } from './useEntryOutcomes';

interface Props {
  entry: Entry;
  digits: boolean;
  isEdited: boolean;
  /** Whether all is said, or what has to stand under the card's line alone: why there is no result, and the other runs in one row. */
  isOpen: boolean;
  /** Which result is asked how it came about. */
  asked: string | null;
  onAsk: (key: string | null) => void;
}

/** What an entry works out but for the value in its line: the rest for the run in front, and the other runs. */
export function EntryResults({ entry, digits, isEdited, isOpen, asked, onAsk }: Props) {
  const found = useEntryOutcomes(entry);
  if (found === null) return null;
  const { front, others } = found;
  // A constant says itself what it is; what is wrong with a formula is said where it is typed.
  const isSaidAbove = (entry.kind === 'constant' && isOpen) || (isEdited && formulasOf(entry).length > 0);
  const own = isSaidAbove && found.own?.kind === 'refused' ? undefined : found.own;
  if (entry.kind === 'constant' && own?.kind === 'results') return isOpen && <Notes notes={own.notes} />;
  // A refusal that several runs share is said once.
  const sentence = own?.kind === 'refused' ? own.sentence : null;
  const sharing = others.filter(
    ({ outcome }) => outcome?.kind === 'refused' && outcome.sentence === sentence,
  );
  const rest = others.filter((other) => !sharing.includes(other));
  const Others = isOpen || own?.kind !== 'results' ? OtherRuns : OtherRunsInRow;
  return (
    <>
      {own?.kind === 'refused' && (
        <Refused
          outcome={own}
          shared={sharing.length > 0 ? sharing.length + 1 : 0}
          allShare={rest.length === 0}
        />
      )}
      {isOpen && own?.kind === 'series' && <Notes notes={own.notes} />}
      {!isOpen && kindOf(entry.kind).concludes === true && own?.kind === 'results' && (
        <Notes notes={own.notes} />
      )}
      {isOpen && own?.kind === 'results' && (
        <Unfolded entry={entry} run={front} outcome={own} digits={digits} asked={asked} onAsk={onAsk} />
      )}
      {kindOf(entry.kind).yields === 'results' && !isSameForAllRuns(entry) && rest.length > 0 && (
        <Others entry={entry} rest={rest} like={own} />
      )}
    </>
  );
}

interface RefusedProps {
  outcome: Extract<ShownOutcome, { kind: 'refused' }>;
  /** So many runs say the same; 0 where it is this one alone. */
  shared: number;
  allShare: boolean;
}

function Refused({ outcome, shared, allShare }: RefusedProps) {
  return (
    <div className={outcome.lacks === undefined ? 'refused' : 'note'}>
      {shared > 0 && <strong>{allShare ? 'All runs: ' : `${shared} runs: `}</strong>}
      {written(outcome.sentence)}
    </div>
  );
}

interface UnfoldedProps {
  entry: Entry;
  run: SeenRun;
  outcome: Extract<ShownOutcome, { kind: 'results' }>;
  digits: boolean;
  asked: string | null;
  onAsk: (key: string | null) => void;
}

function Unfolded({ entry, run, outcome, digits, asked, onAsk }: UnfoldedProps) {
  const wanted = outcome.results.find(({ key }) => key === asked);
  const main = mainOf(outcome);
  return (
    <>
      <div className="results">
        {outcome.results
          .filter((result) => result !== main)
          .map((result) => (
            <EntryValue
              key={result.key}
              entry={entry}
              result={result}
              isNamed
              isAsked={asked === result.key}
              onAsk={() => onAsk(asked === result.key ? null : result.key)}
            />
          ))}
      </div>
      {wanted !== undefined && (
        <>
          <ShownWorking entryId={entry.id} runId={run.id} result={wanted} />
          {entry.kind === 'calculation' && <DrawnCheck entryId={entry.id} runId={run.id} result={wanted} />}
          {wanted.halfWidth !== null && (
            <Budget entryId={entry.id} runId={run.id} result={wanted} unit={shownUnitOf(entry, wanted)} />
          )}
          <RunValues entryId={entry.id} resultKey={wanted.key} unit={shownUnitOf(entry, wanted)} />
        </>
      )}
      <Notes notes={outcome.notes} />
      {digits && <AllDigits outcome={outcome} />}
    </>
  );
}

function Notes({ notes }: { notes: string[] }) {
  return (
    <>
      {notes.map((note) => (
        <p key={note} className="note">
          {written(note)}
        </p>
      ))}
    </>
  );
}
