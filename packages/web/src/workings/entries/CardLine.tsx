import {
  type DisplayedResult,
  type Entry,
  type EntryOfKind,
  kindOf,
  orRefusal,
  parseFormula,
  parseUnit,
  regionOfEntry,
  texFormula,
} from '@heuristor/core';
import { ExclamationTriangle } from 'react-bootstrap-icons';
import { useSession } from '../../investigation/context';
import { ResultText } from '../../ui/ResultText';
import { Typeset } from '../../ui/Typeset';
import { written } from '../../ui/numberText';
import { formulasOf } from '../formulas/formulas';
import { EntryValue } from './EntryValue';
import { WindowSlider } from './WindowSlider';
import { mainOf } from './shownUnit';
import { useOwnOutcome } from './useEntryOutcomes';

interface NameProps {
  entry: Entry;
  sentence: string;
  isOpen: boolean;
}

/** What the line of a card is about: its name, or what it does; all of both where the card is unfolded. */
export function CardName({ entry, sentence, isOpen }: NameProps) {
  const main = useOwnOutcome(entry, (own) => mainOf(own)?.name);
  const isFormula = formulasOf(entry).length > 0;
  const isSeries = entry.name !== '' && main === undefined && entry.kind !== 'constant';
  const withSentence = isOpen || isFormula || isSeries || entry.name === '';
  // "the swing · period", "period · sine through x": an entry of several results says which one stands in its line.
  // A comparison says in its sentence what is compared, and below what comes of it.
  const isSaid = isFormula || kindOf(entry.kind).concludes === true;
  const mainName = main === undefined || isSaid ? '' : main;
  const isTold = mainName === '' || mainName === entry.name || sentence.startsWith(mainName);
  if (entry.name === '' && !isTold)
    return (
      <>
        {mainName}
        <span className="quiet"> · {sentence}</span>
        {isOpen && <Whole entry={entry} />}
      </>
    );
  return (
    <>
      {entry.name !== '' && (
        <span className="entry-name">
          {entry.name}
          {!withSentence || sentence === '' ? '' : isSeries || isFormula ? ' = ' : ' · '}
        </span>
      )}
      {withSentence && <Sentence entry={entry} sentence={sentence} />}
      {isOpen && <Whole entry={entry} />}
      {!isTold && <span className="quiet"> · {mainName}</span>}
    </>
  );
}

/** What an entry is on that has no region. */
function Whole({ entry }: { entry: Entry }) {
  const session = useSession();
  return regionOfEntry(entry) === null && <span className="quiet"> on {session.whole}</span>;
}

/** What an entry does, as a sentence; a formula of its own is typeset. */
function Sentence({ entry, sentence }: { entry: Entry; sentence: string }) {
  const [formula] = formulasOf(entry);
  const read =
    formula === undefined || formula[1].text !== sentence ? null : orRefusal(() => parseFormula(sentence));
  if (read === null || read instanceof Error)
    return <span className={entry.name === '' ? '' : 'quiet'}>{sentence}</span>;
  // Fractions as large as the letters beside them: they are read from the last row.
  return <Typeset tex={`\\displaystyle ${texFormula(read)}`} />;
}

interface ValueProps {
  entry: Entry;
  isOpen: boolean;
  asked: string | null;
  onAsk: (key: string | null) => void;
  onOpen: () => void;
}

/** What came of an entry, at the end of its line: its value, or the slider of its window; and a mark where more has to be said. */
export function CardValue({ entry, isOpen, asked, onAsk, onOpen }: ValueProps) {
  const own = useOwnOutcome(entry, (outcome) => outcome);
  const main = mainOf(own);
  // What is said under the line needs no mark in it.
  const isSaid = kindOf(entry.kind).concludes === true;
  const notes = !isSaid && (own?.kind === 'results' || own?.kind === 'series') ? own.notes : [];
  return (
    <span className="card-value">
      {!isOpen && notes.length > 0 && <Remark notes={notes} onOpen={onOpen} />}
      {!isOpen && entry.kind !== 'constant' && <WindowSlider entry={entry} isInLine />}
      {entry.kind === 'constant' ? (
        <ConstantValue entry={entry} />
      ) : (
        main !== undefined && (
          <EntryValue
            entry={entry}
            result={main}
            isNamed={false}
            isAsked={asked === main.key}
            onAsk={() => onAsk(asked === main.key ? null : main.key)}
          />
        )
      )}
    </span>
  );
}

/** There is something to be said about a number; it is read by unfolding the card. */
function Remark({ notes, onOpen }: { notes: readonly string[]; onOpen: () => void }) {
  const text = notes.map(written).join(' ');
  return (
    <button
      type="button"
      className="remark"
      title={text}
      aria-label={text}
      onClick={({ currentTarget }) => {
        // The mark goes as the card unfolds: who works by keys stays on the card.
        currentTarget.closest('.card-head')?.querySelector<HTMLElement>('.card-unfold')?.focus();
        onOpen();
      }}
    >
      <ExclamationTriangle aria-hidden />
    </button>
  );
}

/** A constant as it counts now: with what its slider has added. */
function ConstantValue({ entry }: { entry: EntryOfKind<'constant'> }) {
  const { value, uncertainty, unit, shift } = entry;
  const result: DisplayedResult = {
    value: value + shift,
    halfWidth: uncertainty > 0 ? uncertainty : null,
    roundTo: null,
    unit: parseUnit(unit),
  };
  return (
    <span className="value main" data-result="value">
      <ResultText result={result} unit={result.unit} />
    </span>
  );
}
