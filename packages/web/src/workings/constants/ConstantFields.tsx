import {
  type EntryOfKind,
  Refusal,
  meanOfRepeats,
  orRefusal,
  parseUnit,
  printedUnit,
  sliderEnds,
  ucumCode,
} from '@heuristor/core';
import { Button, Form } from 'react-bootstrap';
import { useSession } from '../../investigation/context';
import { NumberField } from '../../ui/NumberField';
import { TextField } from '../../ui/TextField';
import { roundedText, writeResult } from '../../ui/numberText';

/** A constant on one line, a slider under it that everything follows, and where its value is from. */
export function ConstantFields({ entry }: { entry: EntryOfKind<'constant'> }) {
  const session = useSession();
  const { id, name, value, uncertainty, unit, source, ends, shift } = entry;
  const called = name === '' ? 'this constant' : name;
  const change = (patch: Partial<EntryOfKind<'constant'>>) => session.changeEntry(id, patch);
  return (
    <div className="constant-fields">
      <div className="constant-line">
        <NumberField
          label={`Value of ${called}`}
          value={value}
          digits={15}
          onCommit={(number) => change({ value: number, shift: 0, repeats: '' })}
        />
        <span aria-hidden>±</span>
        <NumberField
          label={`Uncertainty of ${called}`}
          value={uncertainty}
          digits={15}
          check={(number) => (number < 0 ? 'An uncertainty is not negative.' : null)}
          onCommit={(number) => change({ uncertainty: number, shift: 0, repeats: '' })}
        />
        <TextField
          label={`Unit of ${called}`}
          value={printedUnit(parseUnit(unit))}
          placeholder="unit"
          maxLength={40}
          className="unit-input"
          check={(text) => (isUnit(text) ? null : 'Type a unit like kg, m/s² or N/m.')}
          onCommit={(text) => change({ unit: text.trim() === '' ? '' : ucumCode(parseUnit(text)) })}
        />
      </div>
      <Slider entry={entry} />
      <div className="constant-line small">
        <TextField
          label={`Source of ${called}`}
          value={source}
          maxLength={200}
          className="source-input"
          placeholder="where it is from"
          onCommit={(text) => change({ source: text.trim() })}
        />
        <TextField
          label={`Ends of the slider of ${called}`}
          value={ends}
          maxLength={60}
          className="ends-input"
          placeholder="slides ± 2 u"
          check={(text) => {
            const found = orRefusal(() => sliderEnds({ value, uncertainty, ends: text }));
            return found instanceof Refusal ? found.message : null;
          }}
          onCommit={(text) => change({ ends: text.trim(), ...(shift === 0 ? {} : { shift: 0 }) })}
        />
      </div>
      <div className="constant-line small">
        <TextField
          label={`Repeats of ${called}`}
          value={entry.repeats ?? ''}
          maxLength={1000}
          className="source-input"
          placeholder="or repeats: 1.21 1.19 1.22"
          check={(text) => {
            const found = text.trim() === '' ? null : orRefusal(() => meanOfRepeats(text));
            return found instanceof Refusal ? found.message : null;
          }}
          onCommit={(text) => {
            const repeats = text.trim();
            if (repeats === '') change({ repeats });
            else {
              const mean = meanOfRepeats(repeats);
              change({ repeats, value: mean.value, uncertainty: mean.standardError, shift: 0 });
            }
          }}
        />
      </div>
    </div>
  );
}

/** Words in braces count pieces; anything else must be known. */
const isUnit = (text: string) => text.trim() === '' || !/^\{.*\}$/.test(ucumCode(parseUnit(text)));

const steps = 200;

function Slider({ entry }: { entry: EntryOfKind<'constant'> }) {
  const session = useSession();
  const { id, name, value, uncertainty, shift } = entry;
  const ends = orRefusal(() => sliderEnds(entry));
  if (ends === null || ends instanceof Refusal) return null;
  const { low, high } = ends;
  const settle = () => session.settle();
  const toNearest = (number: number) => Number(number.toPrecision(12));
  return (
    <div className="window-row constant-slider">
      <Form.Range
        min={0}
        max={steps}
        step={1}
        value={Math.round(((value + shift - low) / (high - low)) * steps)}
        aria-label={`Slide ${name}`}
        aria-valuetext={roundedText(value + shift, (high - low) / steps)}
        onChange={(event) => {
          session.move();
          session.changeEntry(id, {
            shift: toNearest(low + ((high - low) * Number(event.target.value)) / steps - value),
          });
        }}
        onPointerUp={settle}
        onPointerCancel={settle}
        onKeyUp={settle}
        onBlur={settle}
      />
      <span className="small mono text-nowrap">
        {shift === 0 ? (
          <span className="quiet">
            {uncertainty > 0 ? `${writeResult(low, null).value} … ${writeResult(high, null).value}` : ''}
          </span>
        ) : (
          <>
            {roundedText(value + shift, (high - low) / steps)}
            <Button variant="bare" size="sm" onClick={() => session.changeEntry(id, { shift: 0 })}>
              back
            </Button>
          </>
        )}
      </span>
    </div>
  );
}
