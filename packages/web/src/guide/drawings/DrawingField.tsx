import { Form } from 'react-bootstrap';
import { Drawing } from './Drawing';
import { drawings } from '.';

/** The drawing of a step, to be chosen. */
export function DrawingField({ picture, onChoose }: { picture: string; onChoose: (key: string) => void }) {
  return (
    <>
      <Form.Select
        size="sm"
        aria-label="Drawing"
        value={picture}
        onChange={({ target }) => onChoose(target.value)}
      >
        <option value="">No drawing</option>
        {Object.entries(drawings).map(([key, { title }]) => (
          <option key={key} value={key}>
            {title}
          </option>
        ))}
      </Form.Select>
      <Drawing of={picture} />
    </>
  );
}
