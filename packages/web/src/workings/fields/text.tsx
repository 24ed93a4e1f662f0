import { TextField } from '../../ui/TextField';
import { type FieldEditor } from './field';

export const text: FieldEditor<'text', string> = {
  Control: ({ id, field: { label, most }, value, set }) => (
    <TextField id={id} label={label} value={value} maxLength={most} onCommit={(typed) => set(typed.trim())} />
  ),
};
