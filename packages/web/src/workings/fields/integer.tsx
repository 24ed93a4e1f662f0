import { NumberField } from '../../ui/NumberField';
import { type FieldEditor } from './field';

export const integer: FieldEditor<'integer', number> = {
  Control({ id, field: { label, low, high, odd }, value, set }) {
    const isRight = (number: number) =>
      Number.isInteger(number) && number >= low && number <= high && !(odd && number % 2 === 0);
    return (
      <NumberField
        id={id}
        label={label}
        value={value}
        check={(number) =>
          isRight(number) ? null : `Type ${odd ? 'an odd' : 'a'} whole number from ${low} to ${high}.`
        }
        onCommit={set}
      />
    );
  },
};
