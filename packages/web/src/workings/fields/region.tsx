import { useDocuments, useSession } from '../../investigation/context';
import { type FieldEditor } from './field';
import { FieldSelect } from './FieldSelect';

export const region: FieldEditor<'region', string | null> = {
  Control({ id, field, value, set }) {
    const { whole } = useSession();
    const entries = useDocuments(({ workings }) => workings.entries);
    const options = [
      { key: '', title: field.later === true ? 'none yet' : whole },
      ...entries
        .filter((other) => other.kind === 'region')
        .map(({ id: key, letter, name }) => ({ key, title: `${letter} ${name}` })),
    ];
    return (
      <FieldSelect
        id={id}
        value={value ?? ''}
        options={options}
        onChange={(key) => set(key === '' ? null : key)}
      />
    );
  },
};
