import { type Entry, type Field, completeEntry, fieldsOf } from '@heuristor/core';
import { Form } from 'react-bootstrap';
import { useFrontRun, usePicture, useSession } from '../../investigation/context';
import { shortText } from '../../ui/numberText';

interface Slide {
  key: string;
  low: number;
  high: number;
  step: number;
  label: string;
  /** What stands beside it. */
  words: string;
}

const rounded = (value: number) => Number(value.toPrecision(3));

/** What of an entry is slid while it is looked at: its window, in readings, or in the unit of the abscissa. */
function slideOf(
  [key, field]: [key: string, field: Field],
  value: number,
  { name, interval }: { name: string; interval: number | null },
): Slide | null {
  if (field.type === 'integer' && field.slider !== null)
    return {
      key,
      low: field.low,
      high: Math.max(field.slider, value),
      step: field.odd ? 2 : 1,
      label: `${field.label} of ${name} in readings`,
      words: interval === null ? `${value}` : `${value} (${shortText((value - 1) * interval, 3)} s)`,
    };
  // A window holds an odd number of readings: it changes by two intervals.
  if (field.type === 'number' && field.slidesOver !== undefined && interval !== null)
    return {
      key,
      low: rounded(2 * interval),
      high: Math.max(rounded(field.slidesOver * interval), value),
      step: rounded(2 * interval),
      label: `Window of ${name} in seconds`,
      words: `${shortText(value, 3)} s`,
    };
  return null;
}

interface Props {
  entry: Entry;
  /** In the line of its card, whose sentence says how wide it is. */
  isInLine?: boolean;
}

export function WindowSlider({ entry, isInLine = false }: Props) {
  const session = useSession();
  const front = useFrontRun();
  const interval = usePicture(({ outcomes }) => {
    const outcome = outcomes[front?.id ?? '']?.[entry.id];
    return outcome?.kind === 'series' ? outcome.interval : null;
  });
  const values = completeEntry(entry) as unknown as Readonly<Record<string, unknown>>;
  const [slide] = fieldsOf(entry).flatMap(
    (field) => slideOf(field, Number(values[field[0]]), { name: entry.name, interval }) ?? [],
  );
  if (slide === undefined) return null;
  const settle = () => session.settle();
  return (
    <div className={isInLine ? 'window-row in-line' : 'window-row'}>
      <Form.Range
        min={slide.low}
        max={slide.high}
        step={slide.step}
        value={Number(values[slide.key])}
        aria-label={slide.label}
        onChange={(event) => {
          session.move();
          session.changeEntry(entry.id, { [slide.key]: rounded(Number(event.target.value)) });
        }}
        onPointerUp={settle}
        onPointerCancel={settle}
        onKeyUp={settle}
        onBlur={settle}
      />
      {!isInLine && <span className="quiet small mono text-nowrap">{slide.words}</span>}
    </div>
  );
}
