import { type GivenColumn } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { useDevices } from '../../sensors/devices';
import { QuantityField } from '../../ui/QuantityField';
import { Unfolding } from '../../ui/Unfolding';

type Typed = Extract<GivenColumn, { kind: 'typed' }>;

/** A sweep: an output stepped from one end to the other, more finely about the peak. */
export function SweepEditor({ columns, disabled }: { columns: GivenColumn[]; disabled: boolean }) {
  const column = columns.find((one): one is Typed => one.kind === 'typed' && one.output !== null);
  if (column === undefined) return null;
  return (
    <Unfolding
      title="Sweep"
      face={`Sweep ${column.name} …`}
      className="btn btn-plain btn-sm"
      disabled={disabled}
    >
      {(close) => <SweepForm column={column} onDone={close} />}
    </Unfolding>
  );
}

function SweepForm({ column, onDone }: { column: Typed; onDone: () => void }) {
  const session = useInvestigation();
  const settle = useDocuments(({ plan }) => plan.spot.settleSeconds);
  const seconds = useDocuments(({ plan }) => plan.spot.seconds);
  const output = useDevices(({ devices }) =>
    devices
      .find(({ code }) => code === column.output?.code)
      ?.outputs.find(({ key }) => key === column.output?.key),
  );
  const [low, high] = [output?.low ?? 0, output?.high ?? 1];
  const [wanted, setWanted] = useState({
    from: low,
    to: high,
    step: (high - low) / 20,
    finest: (high - low) / 320,
  });
  const within = (value: number) =>
    value >= low && value <= high ? null : `${column.output?.code ?? ''} can be set from ${low} to ${high}.`;
  const positive = (value: number) => (value > 0 ? null : 'A step is more than 0.');
  const field = (key: keyof typeof wanted, label: string, check: (value: number) => string | null) => (
    <div className="editor-row">
      <span>{label}</span>
      <QuantityField
        label={`${label}, sweep`}
        value={wanted[key]}
        unit={column.unit}
        check={check}
        onCommit={(value) => setWanted({ ...wanted, [key]: value })}
      />
    </div>
  );
  const count = Math.max(Math.round(Math.abs(wanted.to - wanted.from) / wanted.step), 1) + 1;
  // Each is read twice at least, until both agree.
  const minutes = Math.ceil((2 * count * (settle + seconds)) / 60);
  return (
    <div className="editor-rows">
      {field('from', 'from', within)}
      {field('to', 'to', within)}
      {field('step', 'in steps of', positive)}
      {field('finest', 'about the peak down to', positive)}
      <p className="quiet small">
        {count} readings, each after waits of {settle} s until two in a row agree, then more about the largest
        one: at least {minutes} {minutes === 1 ? 'minute' : 'minutes'}. {column.name} is set in{' '}
        {printedUnit(parseUnit(column.unit))}.
      </p>
      <Button
        variant="act"
        size="sm"
        onClick={() => {
          void session.spots.sweep({ column: column.key, ...wanted });
          onDone();
        }}
      >
        Begin the sweep
      </Button>
    </div>
  );
}
