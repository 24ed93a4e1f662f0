import { type GivenColumn, type SpotTake, spotTakes } from '@heuristor/contracts';
import { parseUnit, spotMean } from '@heuristor/core';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { PlusLg } from 'react-bootstrap-icons';
import { useStore } from 'zustand';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { type Quantity } from '../../sensors/sensors';
import { threadOf } from '../../sensors/devices';
import { onTick } from '../../ui/ticker';
import { NumberField } from '../../ui/NumberField';
import { UnitText } from '../../ui/UnitText';
import { useQuantities } from '../../sensors/useQuantities';
import { ColumnEditor } from './ColumnEditor';
import { Unsteady } from './SpotBar';
import { SweepEditor } from './SweepEditor';
import { useSeries } from './useSeries';
import { resultText } from '../../ui/numberText';
import { FixedMenu } from '../../ui/FixedMenu';

/** What is typed for the next reading, and what is read live beside it. */
export function SpotLine({ menu }: { menu: ReactNode }) {
  const { series, columns } = useSeries();
  const session = useInvestigation();
  const quantities = useQuantities().filter(({ stream }) => stream.sampling === 'regular');
  const measured = series?.spot?.columns.filter((column) => column.kind === 'measured');
  const isBusy = useDocuments(({ spots }) => spots.phase !== 'idle');
  const canSweep = columns.some((column) => column.kind === 'typed' && column.output !== null);
  const line = useRef<HTMLFormElement>(null);
  return (
    <section className="spot-line" aria-label="Next spot reading">
      <Form
        ref={line}
        className="spot-fields"
        onSubmit={(event) => {
          event.preventDefault();
          void session.spots.takeTyped().then((isTaken) => {
            // Ready for the next value: it is typed over the old one.
            const first = line.current?.querySelector('input');
            if (isTaken) first?.focus();
            if (isTaken) first?.select();
          });
        }}
      >
        {menu}
        {columns.map((column) => (
          <TypedColumn key={column.key} column={column} columns={columns} />
        ))}
        <ColumnEditor columns={columns} />
        {canSweep && <SweepEditor columns={columns} disabled={isBusy} />}
        {/* Enter in a field takes the reading, as the big button does. */}
        <button type="submit" hidden aria-hidden />
      </Form>
      {quantities.length > 0 && (
        <div className={`spot-live ${quantities.length > 2 ? 'many' : ''}`}>
          {quantities
            .filter(({ key }) => measured === undefined || measured.some(({ quantity }) => quantity === key))
            .map((quantity) => (
              <LiveQuantity
                key={quantity.key}
                quantity={quantity}
                take={measured?.find((column) => column.quantity === quantity.key)?.take}
              />
            ))}
          <span className="spot-settings">
            <Seconds field="seconds" label="Averaged over" />
            {canSweep && <Seconds field="settleSeconds" label="Settles for" />}
          </span>
        </div>
      )}
      <Unsteady />
    </section>
  );
}

function TypedColumn({ column, columns }: { column: GivenColumn; columns: GivenColumn[] }) {
  const session = useInvestigation();
  const text = useStore(session.spots.draft, ({ texts }) => texts[column.key] ?? '');
  const wrong = useStore(session.spots.draft, (draft) => draft.wrong[column.key]);
  return (
    <span className="spot-field number-field">
      <ColumnEditor columns={columns} column={column} />
      <Form.Control
        className={`number-input ${column.kind === 'word' ? 'wide' : ''}`}
        aria-label={`${column.name} of the next reading`}
        isInvalid={wrong !== undefined}
        value={text}
        maxLength={80}
        onChange={(event) => session.spots.type(column.key, event.target.value)}
      />
      {column.kind === 'typed' && <UnitText unit={parseUnit(column.unit)} />}
      {wrong !== undefined && (
        <Form.Control.Feedback type="invalid" tooltip>
          {wrong}
        </Form.Control.Feedback>
      )}
    </span>
  );
}

const takeWords: Record<SpotTake, string> = {
  mean: 'mean',
  amplitude: 'amplitude of the swing',
  frequency: 'frequency of the swing',
};

/** One quantity as it would be read now: its mean and its spread, and whether it rests. */
function LiveQuantity({ quantity, take: fixed }: { quantity: Quantity; take?: SpotTake }) {
  const session = useInvestigation();
  const spot = useDocuments(({ plan }) => plan.spot);
  const { key, channel } = quantity;
  const planned = Object.hasOwn(spot.takes, key) ? spot.takes[key] : 'mean';
  const take = fixed ?? planned;
  const now = useLiveMean(quantity, spot.seconds);
  const choose = (wanted: SpotTake | null) =>
    void session.plan.change({ spot: { ...spot, takes: { ...spot.takes, [key]: wanted } } });
  return (
    <div className="spot-quantity" data-testid={`spot-${key}`}>
      <span className="of">{channel.symbol}</span>
      <span className="mono spot-value">{now === null ? '—' : resultText(now.value, now.spread)}</span>
      <UnitText unit={parseUnit(channel.unit)} />
      <span className={`rest ${now?.isSteady === true ? 'steady' : ''}`}>
        {now === null ? '' : now.isPinned ? 'at its limit' : now.isSteady ? 'rests' : 'moves'}
      </span>
      {fixed === undefined ? (
        <Dropdown>
          <Dropdown.Toggle
            variant="bare"
            className="no-caret"
            aria-label={`What is read of ${channel.symbol}`}
          >
            {take === null ? 'not read' : takeWords[take]}
          </Dropdown.Toggle>
          <FixedMenu>
            {spotTakes.map((choice) => (
              <Dropdown.Item key={choice} active={choice === take} onClick={() => choose(choice)}>
                {takeWords[choice]}
              </Dropdown.Item>
            ))}
            <Dropdown.Item active={take === null} onClick={() => choose(null)}>
              not read
            </Dropdown.Item>
          </FixedMenu>
        </Dropdown>
      ) : (
        <span className="quiet">{takeWords[fixed]}</span>
      )}
    </div>
  );
}

interface LiveMean {
  value: number;
  spread: number;
  isSteady: boolean;
  isPinned: boolean;
}

/** Mean and spread of the last stretch of readings, a few times a second. */
function useLiveMean({ stream, index, channel }: Quantity, seconds: number): LiveMean | null {
  const [mean, setMean] = useState<LiveMean | null>(null);
  const { handle, liveRate } = stream;
  const { low, high, noise, resolution } = channel;
  useEffect(() => {
    let seen = -1;
    return onTick(() => {
      const { values, revision } = threadOf(handle, index);
      if (revision === seen) return;
      seen = revision;
      const last = values.slice(-Math.max(Math.round(seconds * liveRate), 2));
      if (last.length < 2) return;
      const good = Float64Array.from(last);
      const isPinned = last.some((value) => !(value > low && value < high));
      const { value, spread, unsteady } = spotMean({
        values: good,
        interval: 1 / liveRate,
        noise,
        resolution,
      });
      setMean({ value, spread, isSteady: unsteady === null, isPinned });
    });
  }, [handle, index, liveRate, seconds, low, high, noise, resolution]);
  return mean;
}

function Seconds({ field, label }: { field: 'seconds' | 'settleSeconds'; label: string }) {
  const session = useInvestigation();
  const spot = useDocuments(({ plan }) => plan.spot);
  const [least, most] = field === 'seconds' ? [0.1, 60] : [0, 600];
  return (
    <span className="with-unit">
      <span className="quiet">{label}</span>
      <NumberField
        label={`${label}, in seconds`}
        value={spot[field]}
        check={(value) => (value >= least && value <= most ? null : `From ${least} to ${most} s.`)}
        onCommit={(value) => void session.plan.change({ spot: { ...spot, [field]: value } })}
      />
      <span>s</span>
    </span>
  );
}

/** A new series beside the one that stands in front. */
export function NewSeries() {
  const session = useInvestigation();
  const { series } = useSeries();
  if (series === null) return null;
  return (
    <Button variant="plain" size="sm" onClick={() => session.viewing.beginSeries()}>
      <PlusLg aria-hidden /> New series
    </Button>
  );
}
