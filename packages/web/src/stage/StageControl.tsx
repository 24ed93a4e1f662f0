import { type Settable } from '@heuristor/contracts';
import { parseUnit } from '@heuristor/core';
import { useId, useState } from 'react';
import { Form } from 'react-bootstrap';
import { UnitText } from '../ui/UnitText';
import { shortText } from '../ui/numberText';

const echoMilliseconds = 600;
/** More places than this no hand can tell apart on a slider. */
const mostPlaces = 5000;

/** Values as the apparatus says them; what a hand has just set stands until the apparatus, a moment later, says the same. */
export function useSetValues(
  values: Readonly<Record<string, number>>,
  send: (key: string, value: number) => void,
): { valueOf: (settable: Settable) => number; set: (key: string, value: number) => void } {
  const [justSet, setJustSet] = useState<Record<string, { value: number; at: number }>>({});
  return {
    valueOf: ({ key, low }) => {
      const mine = justSet[key];
      const isNew = mine !== undefined && Date.now() - mine.at < echoMilliseconds;
      return isNew ? mine.value : (values[key] ?? low);
    },
    set: (key, value) => {
      setJustSet((before) => ({ ...before, [key]: { value, at: Date.now() } }));
      send(key, value);
    },
  };
}

interface Props {
  control: Settable;
  value: number;
  onSet: (key: string, value: number) => void;
}

/** One number of an apparatus or of a sensor in front of it: a slider, a choice between kinds, or a field where it has many places. */
export function StageControl({
  control: { key, label, unit, low, high, step, choices },
  value,
  onSet,
}: Props) {
  const id = useId();
  if (choices !== undefined)
    return (
      <div>
        <label htmlFor={id}>{label}</label>
        <Form.Select
          id={id}
          size="sm"
          value={Math.round(value)}
          onChange={(event) => onSet(key, Number(event.target.value))}
        >
          {choices.map((words, i) => (
            <option key={words} value={low + i}>
              {words}
            </option>
          ))}
        </Form.Select>
      </div>
    );
  if ((high - low) / step > mostPlaces)
    return (
      <div className="label-row">
        <label htmlFor={id}>{label}</label>
        <Form.Control
          id={id}
          size="sm"
          type="number"
          min={low}
          max={high}
          step={step}
          value={value}
          onChange={(event) => {
            if (event.target.value !== '') onSet(key, Number(event.target.value));
          }}
        />
      </div>
    );
  return (
    <div>
      <div className="label-row">
        <label htmlFor={id}>{label}</label>
        <span className="mono">
          {shortText(value, 4)} <UnitText unit={parseUnit(unit)} />
        </span>
      </div>
      <Form.Range
        id={id}
        min={low}
        max={high}
        step={step}
        value={value}
        onChange={(event) => onSet(key, Number(event.target.value))}
      />
    </div>
  );
}
