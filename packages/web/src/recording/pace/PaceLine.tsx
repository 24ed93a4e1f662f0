import { type PaceTarget, type Run } from '@heuristor/contracts';
import { type ReactNode, useState } from 'react';
import { Button, Dropdown, Form } from 'react-bootstrap';
import { getNumbers } from '../../api/client';
import { attempt } from '../../api/attempt';
import { useDocuments, useInvestigation } from '../../investigation/context';
import { lineOfReadings } from './drawnLine';
import { generatedTarget, lengthOf, mostSeeds, roomOf, withTarget } from './pace';
import { keepBeforeLine, lineCountdown } from '../plan/planBeforeLine';
import { presentRuns } from '../../runs/runs';
import { type Quantity } from '../../sensors/sensors';
import { NumberField } from '../../ui/NumberField';
import { useQuantities } from '../../sensors/useQuantities';
import { DrawLine } from './DrawLine';
import { FixedMenu } from '../../ui/FixedMenu';

const levelWords = ['three parts', 'five parts', 'seven steep parts', 'curved'];

/** The line that is followed next, as a sentence whose parts are changed where they stand. */
export function PaceLine({ locked, menu }: { locked: boolean; menu: ReactNode }) {
  const session = useInvestigation();
  const quantities = useQuantities().filter(({ stream }) => stream.sampling === 'regular');
  const plan = useDocuments((documents) => documents.plan);
  const [isDrawing, setIsDrawing] = useState(false);
  const target = plan.pace;
  const quantity = quantities.find(({ key }) => key === target?.quantity) ?? quantities.at(0);
  const follow = async (pace: PaceTarget) => {
    const { plan: present } = session.documents.getState();
    keepBeforeLine(session, present);
    await session.plan.change({
      pace,
      end: { kind: 'after', seconds: lengthOf(pace) },
      ...(present.begin.kind === 'at-once' ? { begin: lineCountdown } : {}),
    });
    session.changeWorkings((sheet) => withTarget(sheet, session.onPage, pace));
  };
  if (quantity === undefined)
    return (
      <section className="plan-line" aria-label="Line to be followed">
        <p>{menu} connect a sensor whose reading you can move.</p>
      </section>
    );
  const made = target?.made;
  const [seed, level] = made?.kind === 'generated' ? [made.seed, made.level] : [null, null];
  const of = target?.of ?? 'reading';
  const generate = (change: Partial<{ of: PaceTarget['of']; seed: number; level: number }>, by = quantity) =>
    void follow(generatedTarget(by, { of, seed: seed ?? newSeed(), level: level ?? 1, ...change }));
  return (
    <section className="plan-line pace-line" aria-label="Line to be followed">
      <div className="pace-sentence">
        {menu}
        <span>follow</span>
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="What follows the line"
          disabled={locked}
          value={`${quantity.key} ${of}`}
          onChange={(event) => {
            const [key, what] = event.target.value.split(' ');
            const wanted = quantities.find((candidate) => candidate.key === key);
            generate({ of: what === 'speed' ? 'speed' : 'reading' }, wanted ?? quantity);
          }}
        >
          {quantities.flatMap(({ key, channel }) => [
            <option key={key} value={`${key} reading`}>
              {channel.symbol}, {channel.quantity}
            </option>,
            <option key={`${key} speed`} value={`${key} speed`}>
              the speed of {channel.symbol}
            </option>,
          ])}
        </Form.Select>
        <span>of</span>
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="Level of the line"
          disabled={locked}
          value={level ?? ''}
          onChange={(event) => generate({ level: Number(event.target.value) })}
        >
          {level === null && <option value="">{madeWords(made)}</option>}
          {levelWords.map((words, i) => (
            <option key={words} value={i + 1}>
              level {i + 1}, {words}
            </option>
          ))}
        </Form.Select>
        {seed !== null && (
          <>
            <span>number</span>
            <NumberField
              label="Number of the line"
              value={seed}
              check={(value) =>
                Number.isInteger(value) && value >= 0 && value < mostSeeds
                  ? null
                  : `Type a whole number from 0 to ${mostSeeds - 1}.`
              }
              onCommit={(value) => generate({ seed: value })}
            />
          </>
        )}
        {target !== null && <span className="quiet">{lengthOf(target).toFixed(0)} s</span>}
      </div>
      <div className="pace-buttons">
        <Button variant="plain" size="sm" disabled={locked} onClick={() => generate({ seed: newSeed() })}>
          {target === null ? 'Make a line' : 'Another line'}
        </Button>
        <Button variant="plain" size="sm" disabled={locked} onClick={() => setIsDrawing(true)}>
          Draw one
        </Button>
        <FromRun quantity={quantity} locked={locked} onLine={(line) => void follow(line)} />
      </div>
      {isDrawing && (
        <DrawLine
          quantity={quantity}
          room={roomOf(quantity)}
          before={target?.of === 'reading' ? target : null}
          onDone={(line) => {
            setIsDrawing(false);
            if (line !== null) void follow(line);
          }}
        />
      )}
    </section>
  );
}

const newSeed = () => Math.floor(Math.random() * mostSeeds);

function madeWords(made: PaceTarget['made'] | undefined): string {
  switch (made?.kind) {
    case undefined:
      return 'no line yet';
    case 'drawn':
      return 'drawn';
    case 'run':
      return `as in ${made.name}`;
    case 'generated':
      return '';
  }
}

/** A run that was recorded becomes the line of the next ones. */
function FromRun({
  quantity,
  locked,
  onLine,
}: {
  quantity: Quantity;
  locked: boolean;
  onLine: (target: PaceTarget) => void;
}) {
  const runs = useDocuments((documents) => documents.runs);
  const choices = presentRuns(runs).filter(
    ({ spot, state, channels }) =>
      spot === null &&
      state !== 'recording' &&
      channels.some(({ key, timeUnit }) => key === quantity.key && timeUnit === 's'),
  );
  const use = (run: Run) =>
    attempt(async () => {
      const channel = run.channels.find(({ key }) => key === quantity.key);
      if (channel === undefined) return;
      const values = await getNumbers(`/channels/${channel.id}/values`);
      const { sampling } = channel;
      const times = sampling.kind === 'regular' ? null : await getNumbers(`/channels/${channel.id}/times`);
      const timeOf = (i: number) =>
        sampling.kind === 'regular' ? sampling.start + i * sampling.interval : (times?.[i] ?? NaN);
      const line = lineOfReadings(values, timeOf, channel);
      if (line.length < 2) throw new Error(`${run.name} has too few readings of ${quantity.key}.`);
      onLine({
        quantity: quantity.key,
        of: 'reading',
        unit: channel.unit,
        points: line,
        made: { kind: 'run', name: run.name },
      });
    });
  return (
    <Dropdown align="end">
      <Dropdown.Toggle
        variant="plain"
        size="sm"
        className="no-caret"
        disabled={locked || choices.length === 0}
      >
        From a run
      </Dropdown.Toggle>
      <FixedMenu className="tall-menu">
        {choices.map((run) => (
          <Dropdown.Item key={run.id} onClick={() => void use(run)}>
            {run.number} · {run.name}
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}
