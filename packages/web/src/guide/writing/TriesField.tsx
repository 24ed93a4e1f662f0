import { mostInGuide } from '@heuristor/contracts';
import { useId } from 'react';
import { Form } from 'react-bootstrap';

const counts = Array.from({ length: mostInGuide.tries + 1 }, (_, i) => i);

/** How often an answer is checked before the teacher releases what is right. */
export function TriesField({
  tries,
  isKnown,
  onChange,
}: {
  tries: number;
  /** Whether it was said what is right. */
  isKnown: boolean;
  onChange: (tries: number) => void;
}) {
  const id = useId();
  if (!isKnown) return <p className="quiet small">Say what is right, and answers can be checked.</p>;
  return (
    <div className="field-row">
      <label htmlFor={id} className="quiet small">
        Before answers are released
      </label>
      <Form.Select id={id} size="sm" value={tries} onChange={({ target }) => onChange(Number(target.value))}>
        {counts.map((count) => (
          <option key={count} value={count}>
            {count === 0 ? 'no checks' : count === 1 ? 'one check' : `${count} checks`}
          </option>
        ))}
      </Form.Select>
    </div>
  );
}
