import { Form } from 'react-bootstrap';

interface Props {
  id: string;
  value: string;
  options: readonly { key: string; title: string }[];
  onChange(key: string): void;
}

/** One of some, from a list that opens. */
export const FieldSelect = ({ id, value, options, onChange }: Props) => (
  <Form.Select id={id} value={value} onChange={(event) => onChange(event.target.value)}>
    {options.map(({ key, title }) => (
      <option key={key} value={key}>
        {title}
      </option>
    ))}
  </Form.Select>
);
