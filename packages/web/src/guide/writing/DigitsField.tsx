import { type GuideItemOf } from '@heuristor/contracts';
import { useId } from 'react';
import { Form } from 'react-bootstrap';

type Digits = GuideItemOf<'number'>['digits'];

const choices: readonly { title: string; digits: Digits }[] = [
  { title: 'any number of digits', digits: null },
  { title: '1 to 2 significant digits', digits: { least: 1, most: 2 } },
  { title: '2 significant digits', digits: { least: 2, most: 2 } },
  { title: '2 to 3 significant digits', digits: { least: 2, most: 3 } },
  { title: '3 significant digits', digits: { least: 3, most: 3 } },
  { title: '3 to 4 significant digits', digits: { least: 3, most: 4 } },
  { title: '4 significant digits', digits: { least: 4, most: 4 } },
];
const keyOf = (digits: Digits) => (digits === null ? '' : `${digits.least}-${digits.most}`);

/** How many digits an answer is to have. */
export function DigitsField({ digits, onChange }: { digits: Digits; onChange: (digits: Digits) => void }) {
  const id = useId();
  return (
    <div className="field-row">
      <label htmlFor={id} className="quiet small">
        Written with
      </label>
      <Form.Select
        id={id}
        size="sm"
        value={keyOf(digits)}
        onChange={({ target }) =>
          onChange(choices.find((one) => keyOf(one.digits) === target.value)?.digits ?? null)
        }
      >
        {choices.map((one) => (
          <option key={keyOf(one.digits)} value={keyOf(one.digits)}>
            {one.title}
          </option>
        ))}
      </Form.Select>
    </div>
  );
}
