import { type FieldEditor } from './field';
import { FieldSelect } from './FieldSelect';

export const choice: FieldEditor<'choice', string> = {
  Control: ({ id, field, value, set }) => (
    <FieldSelect id={id} value={value} options={field.options} onChange={set} />
  ),
};
