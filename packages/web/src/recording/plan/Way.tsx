import { Form } from 'react-bootstrap';

interface Props {
  /** What it is a way of: the beginning or the end. */
  of: 'begin' | 'end';
  way: string;
  label: string;
  chosen: boolean;
  disabled?: boolean;
  onChoose: () => void;
}

/** One of the ways in which a run can begin, or end. */
export function Way({ of, way, label, chosen, disabled = false, onChoose }: Props) {
  return (
    <Form.Check
      type="radio"
      id={`${of}-${way}`}
      name={of}
      label={label}
      checked={chosen}
      disabled={disabled}
      onChange={onChoose}
    />
  );
}
