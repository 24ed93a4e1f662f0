import {
  type SeriesRef,
  densities,
  entryKindKeys,
  fundamentalConstants,
  kindOf,
  printedUnit,
  parseUnit,
} from '@heuristor/core';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import {
  useDocuments,
  useFrontRun,
  useNames,
  useResultNames,
  useSession,
  useView,
} from '../../investigation/context';
import { valueAtShare } from '../../traces/axes/axisScale';
import { pageIn } from '../../traces/pages/pages';
import { type Choice } from '../../ui/ChoicePalette';
import { type NewEntry, seriesChoices, withConstant, withEntry, withRegion } from '../edits';
import { regionOffers } from '../offers/regionOffers';
import { hasField, isFilledIn } from '../filledIn';
import { pairedResults } from '../results/pairing';
import { useTemplateChoices } from './useTemplateChoices';

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** Of so few, what can be derived of each stands there before anything is typed. */
const fewSeries = 3;

/** Of the fits, those that stand there before anything is typed. */
const usualRelations: readonly unknown[] = ['line', 'parabola', 'sine'];

/** All that can be worked out on the sheet as it stands: on the region that is selected, on each series, on results. */
export function useWorkOutChoices(ofRuns: boolean): Choice[] {
  const session = useSession();
  const { workings, runs } = useDocuments(
    useShallow(({ workings: sheet, runs: own }) => ({ workings: sheet, runs: own })),
  );
  const nameOf = useNames();
  const front = useFrontRun();
  const selected = useView(({ selectedRegion }) => selectedRegion);
  const wanted = useView(({ selectedSeries }) => selectedSeries);
  const hasResults = Object.keys(useResultNames()).length > 0;
  const templates = useTemplateChoices(ofRuns);
  return useMemo(() => {
    const all = seriesChoices(runs, workings);
    const regions = workings.entries.filter((entry) => entry.kind === 'region');
    const region = regions.find(({ id }) => id === selected) ?? regions.at(0);
    const { horizontal } = pageIn(workings, session.onPage.page);
    const usual = all.find((one) => one === wanted) ?? all.find((one) => one !== horizontal) ?? all.at(0);
    const add = (about: Omit<NewEntry, 'region'> & { region?: string | null }) =>
      session.changeWorkings((sheet) => {
        const made = withEntry(sheet, session.onPage, { region: null, ...about });
        if (isFilledIn(about.kind)) session.viewing.openEntry(made.id);
        return made.workings;
      });
    const sheetResults = () =>
      pairedResults(workings, session.picture.getState().outcomes[front?.id ?? ''] ?? {});
    const addMiddleRegion = () => {
      const sight = session.picture.getState().frame?.sight;
      if (sight === undefined) return;
      const [start, end] = [0.25, 0.75].map((share) => valueAtShare(share, sight));
      session.changeWorkings((sheet) => {
        const made = withRegion(sheet, session.onPage.page, start, end);
        session.viewing.selectRegion(made.id);
        return made.workings;
      });
    };
    const where = region === undefined ? `on ${session.whole}` : `on region ${region.letter}`;
    const noReadings = all.length === 0 ? { lacks: 'a run' } : {};
    const onRegion = (of: SeriesRef): Choice[] =>
      regionOffers.map(({ kind, title, preset, group }) => ({
        key: `region ${title} ${of}`,
        group: `${group === 'fit' ? 'Fit' : group === 'look' ? 'Look' : 'Measure'} ${where}`,
        title: capital(`${title} ${group === 'fit' ? 'through' : 'of'} ${nameOf(of)}`),
        words: kindOf(kind).title,
        habit: `region ${title}`,
        isUsual: of === usual && (group !== 'fit' || usualRelations.includes(preset.relation)),
        take: () => add({ kind, preset, of, region: region?.id ?? null }),
      }));
    const ofSeries = (of: SeriesRef): Choice[] =>
      entryKindKeys
        .filter((kind) => kindOf(kind).offered === 'series')
        .flatMap((kind) =>
          kindOf(kind).offers.map(({ title, preset }): Choice => ({
            key: `series ${title} ${of}`,
            group: 'Series',
            title: `${title} ${nameOf(of)}`,
            words: kindOf(kind).title,
            habit: `series ${title}`,
            isUsual: of === usual || all.length <= fewSeries,
            take: () => add({ kind, preset, of, nameOfSource: nameOf(of) }),
          })),
        );
    const onSheet = entryKindKeys
      .filter((kind) => kindOf(kind).offered === 'sheet')
      .flatMap((kind) =>
        kindOf(kind).offers.map(({ title, preset }): Choice => ({
          key: `sheet ${title}`,
          group: 'Calculate and write',
          title,
          words: kindOf(kind).title,
          habit: `sheet ${title}`,
          isUsual: true,
          ...(!hasResults && hasField(kind, 'result') ? { lacks: 'a result' } : {}),
          take: () => add({ kind, preset, of: 't', results: sheetResults() }),
        })),
      );
    const constants = [...fundamentalConstants, ...densities].map(
      ({ name, symbol, value, uncertainty, unit, source }): Choice => ({
        key: `constant ${name}`,
        group: 'Constants',
        title: `${symbol} = ${value} ${printedUnit(parseUnit(unit))}`,
        words: `${symbol} ${name}`,
        about: name,
        habit: `constant ${name}`,
        isUsual: false,
        take: () =>
          session.changeWorkings((sheet) =>
            withConstant(sheet, symbol, { value, uncertainty, unit, source }),
          ),
      }),
    );
    const tables: Choice = {
      key: 'tables',
      group: 'Calculate and write',
      title: 'Constant from a table …',
      words: 'g gravity local acceleration of free fall resistor density',
      about: 'g of a place, resistors by their bands, densities, natural constants',
      isUsual: true,
      take: () => session.dialogs.ask('constants', true),
    };
    const bySight = (of: SeriesRef): Choice => ({
      key: `relation ${of}`,
      group: `Fit ${where}`,
      title: `Relation through ${nameOf(of)} …`,
      words: 'fit curve by sight formula',
      about: 'all of them, drawn through the readings',
      isUsual: of === usual,
      take: () =>
        session.dialogs.ask('relations', {
          of,
          against: horizontal,
          region: region?.id ?? null,
          entry: null,
        }),
    });
    const others = all.filter((of) => of !== usual);
    const perSeries = [...(usual === undefined ? [] : [usual]), ...others];
    return [
      {
        key: 'region',
        group: 'Mark',
        title: 'Region',
        words: 'mark part stretch',
        about: 'or drag over a trace',
        isUsual: true,
        ...noReadings,
        take: addMiddleRegion,
      },
      ...perSeries.flatMap(ofSeries),
      ...perSeries.flatMap((of) => [...onRegion(of), bySight(of)]),
      ...onSheet,
      tables,
      ...templates,
      ...constants,
    ];
  }, [session, workings, runs, nameOf, front, selected, wanted, hasResults, templates]);
}
