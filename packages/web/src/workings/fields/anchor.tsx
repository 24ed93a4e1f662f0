import { type Anchor } from '@heuristor/core';
import { AnchorField } from '../regions/AnchorField';
import { type FieldEditor } from './field';

export const anchor: FieldEditor<'anchor', Anchor | null> = {
  Control: ({ id, field: { label, later }, entry, value, set }) => (
    <AnchorField
      id={id}
      label={label}
      none={later === true && entry.kind === 'region' ? 'where it is marked' : 'nothing chosen'}
      value={value}
      entry={entry}
      onChange={set}
    />
  ),
};
