import {
  type Anchor,
  type Entry,
  type EventKind,
  type SeriesRef,
  eventTitles,
  isCounted,
  printedUnit,
} from '@heuristor/core';
import { useId } from 'react';
import { Form } from 'react-bootstrap';
import { useShallow } from 'zustand/react/shallow';
import { useAbscissa, useDocuments, useNames } from '../../investigation/context';
import { seriesChoices } from '../edits';
import { useUnitOf } from '../entries/useUnitOf';
import { NumberField } from '../../ui/NumberField';

interface Props {
  id: string;
  label: string;
  /** What nothing chosen means. */
  none: string;
  value: Anchor | null;
  /** The entry whose moment it is; it cannot be attached to itself. */
  entry: Entry;
  onChange: (value: Anchor | null) => void;
}

const events = Object.keys(eventTitles) as EventKind[];
const needsSeries = (event: EventKind) => event !== 'begins' && event !== 'ends';

/** Something that happens in each run, chosen by what it is, in which series, at which level, which one, and how long after. */
export function AnchorField({ id, label, none, value, entry, onChange }: Props) {
  const own = useId();
  const nameOf = useNames();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: all }) => ({ workings: sheet, runs: all })),
  );
  const choices = seriesChoices(runs, workings).filter((choice) => choice !== `entry:${entry.id}`);
  const unit = useUnitOf(value?.of ?? null, entry);
  const abscissa = useAbscissa();
  const change = (patch: Partial<Anchor>) => {
    if (value !== null) onChange({ ...value, ...patch });
  };
  const choose = (event: string) =>
    onChange(
      event === ''
        ? null
        : {
            level: 0,
            count: 1,
            offset: 0,
            of: choices[0] ?? 'channel:x',
            ...value,
            event: event as EventKind,
          },
    );
  return (
    <div className="anchor-field" role="group" aria-label={label}>
      <Form.Select id={id} value={value?.event ?? ''} onChange={({ target }) => choose(target.value)}>
        <option value="">{none}</option>
        {events.map((event) => (
          <option key={event} value={event}>
            {eventTitles[event]}
          </option>
        ))}
      </Form.Select>
      {value !== null && needsSeries(value.event) && (
        <Form.Select
          aria-label={`${label}: in which series`}
          value={value.of}
          onChange={({ target }) => change({ of: target.value as SeriesRef })}
        >
          {!choices.includes(value.of) && <option value={value.of}>{nameOf(value.of)}</option>}
          {choices.map((choice) => (
            <option key={choice} value={choice}>
              {nameOf(choice)}
            </option>
          ))}
        </Form.Select>
      )}
      {value !== null && (value.event === 'rises' || value.event === 'falls') && (
        <label>
          <span>level</span>
          <NumberField
            id={`${own}level`}
            label={`${label}: level`}
            value={value.level}
            onCommit={(level) => change({ level })}
          />
          <span className="quiet">{unit}</span>
        </label>
      )}
      {value !== null && isCounted(value.event) && (
        <label>
          <span>no.</span>
          <NumberField
            label={`${label}: which one`}
            value={value.count}
            check={(count) =>
              Number.isInteger(count) && count >= 1 && count <= 1000
                ? null
                : 'Type a whole number from 1 upwards.'
            }
            onCommit={(count) => change({ count })}
          />
        </label>
      )}
      {value !== null && (
        <label>
          <span>later by</span>
          <NumberField
            label={`${label}: later by`}
            value={value.offset}
            onCommit={(offset) => change({ offset })}
          />
          <span className="quiet">{printedUnit(abscissa.unit)}</span>
        </label>
      )}
    </div>
  );
}
