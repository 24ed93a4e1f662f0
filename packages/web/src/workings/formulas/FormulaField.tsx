import {
  type Entry,
  FormulaFault,
  type FormulaText,
  checkUnits,
  freeName,
  orRefusal,
  parseFormula,
  printedUnit,
  texFormula,
  usualSetting,
  writtenName,
} from '@heuristor/core';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { Button, Form } from 'react-bootstrap';
import { useFrontRun, useNameables, usePicture, useSession } from '../../investigation/context';
import { withConstant } from '../edits';
import { type Nameable, boundFormula, meant, namedFormula, namesTaken, parametersFor } from './formulas';
import { Typeset } from '../../ui/Typeset';
import { written } from '../../ui/numberText';

interface Props {
  id: string;
  entry: Entry;
  label: string;
  value: FormulaText;
  /** Names that the formula may leave open, since they are found by a fit. */
  allowsOpen?: boolean;
  /** Takes the formula, and what else follows from it, in one step. */
  onCommit: (value: FormulaText, more: Partial<Entry>) => void;
  /** The formula stands, and nothing is wrong with it. */
  onDone?: () => void;
}

/** A formula that is typed: typeset while it is, with what is wrong shown where it is wrong. */
export function FormulaField({ id, entry, label, value, allowsOpen = false, onCommit, onDone }: Props) {
  const session = useSession();
  const known = useNameables(entry.id);
  const [text, setText] = useState(value.text);
  const field = useRef<HTMLInputElement>(null);
  const adviceId = useId();
  useEffect(() => setText(value.text), [value.text]);
  const typed = namedFormula(text);
  const reading = useMemo(
    () => readingOf(typed.text, value, known, allowsOpen),
    [typed.text, value, known, allowsOpen],
  );
  const refused = useRefusal(entry.id);
  const isTyping = typed.text !== value.text;
  const fault = reading.fault ?? (isTyping || refused === null ? null : { ...refused, open: null });
  const commit = () => {
    if (text === value.text) return;
    const formula = boundFormula(typed.text, value, known);
    const others = session.workings.entries.filter((other) => other.id !== entry.id);
    // What stands before the equals sign of a fit is the series, and no name of its own.
    const isNamed = typed.name !== null && typed.name !== entry.name && entry.kind !== 'formulaFit';
    onCommit(formula, {
      ...(isNamed && typed.name !== null ? { name: freeName(typed.name, others) } : {}),
      ...(entry.kind === 'formulaFit' ? { parameters: parametersFor(formula, entry.parameters, known) } : {}),
    });
    setText(typed.text);
  };
  const insert = (name: string) => {
    const place = field.current?.selectionStart ?? text.length;
    const written = writtenName(name);
    const before = text.slice(0, place);
    const gap = before === '' || /[\s(+\-−*/^·]$/.test(before) ? '' : ' ';
    setText(before + gap + written + text.slice(place));
    const end = place + gap.length + written.length;
    setTimeout(() => {
      field.current?.focus();
      field.current?.setSelectionRange(end, end);
    }, 0);
  };
  return (
    <div className="formula-field">
      <Form.Control
        id={id}
        ref={field}
        className="mono"
        aria-label={label}
        aria-invalid={fault !== null && text !== ''}
        aria-describedby={adviceId}
        placeholder={entry.kind === 'calculation' ? 'g = 4 pi^2 l / T^2' : 'E = 1/2 m v^2'}
        value={text}
        maxLength={500}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            commit();
            if (reading.fault === null && typed.text !== '') onDone?.();
          }
          if (event.key === 'Escape') setText(value.text);
        }}
      />
      <div id={adviceId} className="formula-advice" aria-live="polite">
        {reading.tex !== null && (
          <span className="formula-read">
            <Typeset tex={reading.tex} />
            {reading.unit !== null && <span className="quiet small"> in {reading.unit}</span>}
          </span>
        )}
        {fault !== null && typed.text !== '' && (
          <p className="formula-fault" role="status">
            {fault.at !== undefined && <Marked text={typed.text} {...fault.at} />}
            {written(fault.sentence)}
            {fault.open !== null && (
              <Button
                variant="bare"
                size="sm"
                // The field would take the press as leaving it.
                onPointerDown={(event) => event.preventDefault()}
                onClick={() => {
                  const name = fault.open ?? '';
                  session.changeWorkings((sheet) => {
                    const made = withConstant(sheet, name);
                    session.viewing.openEntry(made.entries[0].id);
                    return made;
                  });
                }}
              >
                Make {fault.open} a constant
              </Button>
            )}
          </p>
        )}
      </div>
      {entry.kind === 'formulaFit' &&
        namesTaken(typed.text, entry, known).map(({ name, what }) => (
          <p key={name} className="formula-taken quiet small">
            {name} is the {what} of that name.{' '}
            <Button
              variant="bare"
              size="sm"
              onPointerDown={(event) => event.preventDefault()}
              onClick={() => {
                const parameters = { ...entry.parameters, [name]: usualSetting };
                const formula = boundFormula(typed.text, value, known);
                onCommit(formula, { parameters: parametersFor(formula, parameters, known) });
              }}
            >
              Take {name} as a parameter
            </Button>
          </p>
        ))}
      <Names known={known} onInsert={insert} />
    </div>
  );
}

/** What a formula can speak of, to be put in with a press. */
function Names({ known, onInsert }: { known: readonly Nameable[]; onInsert: (name: string) => void }) {
  const [showsAll, setShowsAll] = useState(false);
  const names = known.filter(({ name }, i) => known.findIndex((other) => other.name === name) === i);
  // What people have named, and what was recorded, stands first; every result of every entry is one press away.
  const short = names.filter(({ name }) => !name.includes(' of ') && name.length <= 20).slice(0, 12);
  if (names.length === 0) return null;
  return (
    <div className="formula-names" role="group" aria-label="Names that can be used">
      {(showsAll ? names : short).map(({ name, unit, what }) => (
        <Button
          key={name}
          variant="token"
          title={`${what}${unit.length > 0 ? ` in ${printedUnit(unit)}` : ''}`}
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => onInsert(name)}
        >
          {name}
        </Button>
      ))}
      {!showsAll && names.length > short.length && (
        <Button
          variant="bare"
          size="sm"
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => setShowsAll(true)}
        >
          {names.length - short.length} more
        </Button>
      )}
    </div>
  );
}

/** The text with the faulty part of it marked. */
function Marked({ text, from, to }: { text: string; from: number; to: number }) {
  const end = Math.max(to, from + 1);
  return (
    <span className="formula-marked mono">
      {text.slice(0, from)}
      <mark>{text.slice(from, end) === '' ? '\u00a0' : text.slice(from, end)}</mark>
      {text.slice(end)}
    </span>
  );
}

interface Reading {
  tex: string | null;
  /** In print; null where it is not told. */
  unit: string | null;
  fault: Fault | null;
}

interface Fault {
  sentence: string;
  at?: { from: number; to: number };
  /** A name that means nothing yet. */
  open: string | null;
}

/** What stands wrong, where the workings themselves refuse the formula that is stored. */
function useRefusal(id: string): Pick<Fault, 'sentence' | 'at'> | null {
  const front = useFrontRun();
  const outcome = usePicture(({ outcomes }) => outcomes[front?.id ?? '']?.[id]);
  return outcome?.kind === 'refused' ? outcome : null;
}

function readingOf(
  text: string,
  bound: FormulaText,
  known: readonly Nameable[],
  allowsOpen: boolean,
): Reading {
  if (text === '') return { tex: null, unit: null, fault: null };
  const formula = orRefusal(() => parseFormula(text));
  if (formula instanceof Error) return { tex: null, unit: null, fault: faultOf(formula) };
  const tex = texFormula(formula);
  let open: string | null = null;
  let lacking: Nameable | null = null;
  const checked = orRefusal(() =>
    checkUnits(formula, text, (name) => {
      const found = meant(name, bound, known);
      if (found === undefined) open ??= name;
      if (found?.refused !== undefined) lacking ??= found;
      return found?.unit;
    }),
  );
  if (open !== null && !allowsOpen)
    return {
      tex,
      unit: null,
      fault: { sentence: `Nothing here is called ${String(open)} yet. `, open },
    };
  if (lacking !== null) return { tex, unit: null, fault: lackingFault(lacking) };
  if (checked instanceof Error) return { tex, unit: null, fault: faultOf(checked) };
  return { tex, unit: open !== null ? null : printedUnit(checked.unit) || 'plain numbers', fault: null };
}

const lackingFault = ({ name, refused }: Nameable): Fault => ({
  sentence: `${name} has no value: ${refused ?? ''}`,
  open: null,
});

const faultOf = (error: Error): Fault => ({
  sentence: error.message,
  open: null,
  ...(error instanceof FormulaFault ? { at: { from: error.from, to: error.to } } : {}),
});
