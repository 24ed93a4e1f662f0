import { type SeriesRef } from '@heuristor/core';
import { useShallow } from 'zustand/react/shallow';
import { useDocuments, useNames } from '../../investigation/context';
import { seriesChoices } from '../edits';
import { type FieldEditor } from './field';
import { FieldSelect } from './FieldSelect';

export const series: FieldEditor<'series', SeriesRef> = {
  Control({ id, field, entry, value, set }) {
    const nameOf = useNames();
    const { workings, runs } = useDocuments(
      useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
    );
    const choices = seriesChoices(runs, workings).filter((choice) => choice !== `entry:${entry.id}`);
    const all: SeriesRef[] = field.axis ? ['t', ...choices] : choices;
    const options = all.map((key) => ({
      key,
      title: key === 't' && field.none !== undefined ? field.none : nameOf(key),
    }));
    return <FieldSelect id={id} value={value} options={options} onChange={(key) => set(key as SeriesRef)} />;
  },
};
