import { runDate } from './runDate';
import { type Channel, type LeftOutCount, type Run, leftOutCountSchema } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { Modal } from 'react-bootstrap';
import { z } from 'zod';
import { useServer } from '../api/queries';
import { beginningWords, endingWords } from '../recording/plan/planWords';
import { type SeenRun } from './seenRun';
import { appliedWords, samplingWords } from './channelWords';
import { shortText } from '../ui/numberText';

const countsSchema = z.array(leftOutCountSchema);

const shown = (value: number) => shortText(value, 4);

/** How a run was recorded: its plan, its sensors and what was applied to them, its gaps, what in it is no measurement. */
export function RunDetails({ run, onClose }: { run: SeenRun; onClose: () => void }) {
  const { id, plan, gaps, notes } = run;
  // Without an answer the column stays open; the rest of what is told here stands all the same.
  const { answer: counts } = useServer(`/runs/${id}/left-out`, countsSchema);
  return (
    <Modal show onHide={onClose} size="lg" animation={false} aria-labelledby="run-details">
      <Modal.Header closeButton closeLabel="Close">
        <Modal.Title id="run-details">
          {run.number} · {run.name}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="run-details">
        <p>
          {beginningOf(run)}
          {run.practice && ', for practice'}
          {run.group !== '' && `, by ${run.group}`}.
        </p>
        {plan !== null && (
          <p>
            Planned to begin {beginningWords(plan.begin, [])} and to end {endingWords(plan.end, [])}.
          </p>
        )}
        <table className="details-table">
          <thead>
            <tr>
              <th>Quantity</th>
              <th>Sensor</th>
              <th>Rate</th>
              <th>Limits</th>
              <th>Applied</th>
              <th>{run.keepPinned ? 'Counted, though not measured' : 'Left out'}</th>
            </tr>
          </thead>
          <tbody>
            {run.channels.map((channel) => (
              <ChannelRow
                key={channel.id}
                channel={channel}
                count={counts?.find((count) => count.channel === channel.id)}
              />
            ))}
          </tbody>
        </table>
        {gaps.length > 0 && (
          <>
            <h3>Gaps</h3>
            <ul>
              {gaps.map((gap) => (
                <li key={`${gap.channel}${gap.from}`}>
                  {gap.channel}: nothing from {shown(gap.from)} s to {shown(gap.to)} s
                </li>
              ))}
            </ul>
          </>
        )}
        {notes.length > 0 && (
          <>
            <h3>While it was recorded</h3>
            <ul>
              {notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          </>
        )}
      </Modal.Body>
    </Modal>
  );
}

/** How many readings are no measurement, in words. */
function leftOutWords({ pinned, strays }: LeftOutCount): string {
  const words = [
    pinned === 0 ? null : `${pinned} at a limit`,
    strays === 0 ? null : `${strays} wrong ${strays === 1 ? 'echo' : 'echoes'}`,
  ].filter((part) => part !== null);
  return words.length === 0 ? 'none' : words.join(', ');
}

function ChannelRow({ channel, count }: { channel: Channel; count: LeftOutCount | undefined }) {
  const { symbol, quantity, unit, deviceCode, sampling, low, high, applied } = channel;
  const printed = printedUnit(parseUnit(unit));
  const words = appliedWords(applied);
  return (
    <tr>
      <td>
        {symbol} <span className="quiet">{quantity}</span>
      </td>
      <td className="mono">{deviceCode ?? '—'}</td>
      <td>{samplingWords(sampling)}</td>
      <td>{low === null || high === null ? '—' : `${shown(low)} to ${shown(high)} ${printed}`}</td>
      <td>{words.length === 0 ? 'as the sensor has it' : words.join(', ')}</td>
      <td>{count === undefined ? '…' : leftOutWords(count)}</td>
    </tr>
  );
}

/** How a run came here and when it began, by the clock that hung there. */
function beginningOf({ origin, startedAt, timeZone }: Run): string {
  const at = runDate({ startedAt, timeZone }, 'medium');
  const zoned = timeZone === null ? at : `${at} (${timeZone.replaceAll('_', ' ')})`;
  if (origin !== 'imported') return `Recorded on ${zoned}`;
  return timeZone === null
    ? `Brought in from a file on ${at}`
    : `Brought in from a file; its first reading was taken on ${zoned}`;
}
