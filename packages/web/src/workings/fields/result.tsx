import { type ResultRef, resultRef } from '@heuristor/core';
import { useResultNames } from '../../investigation/context';
import { type FieldEditor } from './field';
import { FieldSelect } from './FieldSelect';

/** The results of the other entries, by what they are called. */
export const result: FieldEditor<'result', ResultRef> = {
  Control({ id, entry, value, set }) {
    const own = resultRef(entry.id, '');
    const choices = Object.entries(useResultNames())
      .filter(([reference]) => !reference.startsWith(own))
      .map(([key, title]) => ({ key, title }));
    const isThere = choices.some(({ key }) => key === value);
    const options = isThere ? choices : [{ key: value, title: 'a removed result' }, ...choices];
    return <FieldSelect id={id} value={value} options={options} onChange={(key) => set(key as ResultRef)} />;
  },
};
