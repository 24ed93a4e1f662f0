import {
  type ConditionColumn,
  type Investigation,
  type NewTemplate,
  type Page,
  type Run,
  type Template,
  type TrialTable,
  type TrialsDocument,
  type WorkingsDocument,
  columnBeside,
  isZeroed,
  knownChannels,
  trialsWithoutRuns,
  withoutRuns,
} from '@heuristor/contracts';
import {
  type KnownChannel,
  type SeriesRef,
  type Transfer,
  channelRef,
  channelsFor,
  doesTheSame,
  entryRef,
  nameIn,
  transferred,
} from '@heuristor/core';
import { tablesFor } from './templateTables';
import { newId } from '../../investigation/ids';
import { presentRuns } from '../../runs/runs';

const mostEntries = 200;
const mostPages = 20;

/** Every channel that the runs have, each once. */
export const channelsOfRuns = (runs: readonly Run[]): KnownChannel[] =>
  knownChannels(presentRuns(runs).flatMap(({ channels }) => channels));

/** Channels that a template needs and these runs do not have; none is known to lack where there is no run yet. */
export function lackingFor(template: Template, runs: readonly Run[]): KnownChannel[] {
  const there = channelsOfRuns(runs);
  return there.length === 0 ? [] : channelsFor(template.channels, there).lacking;
}

/**
 * The sheet with a template on it, over the runs that there are.
 * @param conditions what is asked of each run then
 * @returns null where it does not fit on the sheet any more
 */
export function withTemplate(
  workings: WorkingsDocument,
  runs: readonly Run[],
  template: Template,
  conditions: readonly ConditionColumn[] = template.conditions,
): {
  workings: WorkingsDocument;
  page: string | null;
  lacking: KnownChannel[];
  /** Channels here that stand for zeroed ones, and were not zeroed. */
  unzeroed: string[];
  /** Its tables, over what stands here for what they speak of. */
  tables: TrialTable[];
} | null {
  const there = channelsOfRuns(runs);
  const transfer = transferred(
    { entries: template.workings.entries, channels: template.channels },
    null,
    { entries: workings.entries, channels: there },
    newId,
    doesTheSame,
  );
  const isNew = workings.entries.length === 0 && workings.pages.length === 1;
  const pages = template.workings.pages.map((page) => mappedPage(page, transfer, there.length > 0));
  const named = pages.map((page) => (page.name === '' && !isNew ? { ...page, name: template.name } : page));
  const all = isNew ? named : [...workings.pages, ...named];
  if (transfer.entries.length > mostEntries || all.length > mostPages) return null;
  return {
    workings: { ...workings, entries: transfer.entries, pages: all },
    page: named[0]?.id ?? null,
    lacking: there.length === 0 ? [] : transfer.lacking,
    unzeroed: unzeroedIn(runs, template, transfer),
    tables: tablesFor(template, transfer, conditions),
  };
}

/** Channels of the newest run that stand for zeroed ones of the template, and whose zero was not taken. */
function unzeroedIn(runs: readonly Run[], template: Template, { channels }: Transfer): string[] {
  const newest = presentRuns(runs).at(-1);
  const keys = template.channels.filter(({ zeroed }) => zeroed === true).map(({ key }) => channels.get(key));
  return (newest?.channels ?? [])
    .filter((channel) => keys.includes(channel.key) && channel.deviceCode !== null && !isZeroed(channel))
    .map(({ key }) => key);
}

/** What was not zeroed, in a sentence; nothing where all is. */
export const unzeroedWords = (keys: readonly string[]): string =>
  keys.length === 0
    ? ''
    : ` It was made of runs that begin at zero: ${keys.join(' and ')} of the newest run ${keys.length === 1 ? 'was' : 'were'} not zeroed. Switch on “Zero anew before each run” in the set-up of the sensor, and record once more.`;

/** A page that shows what stands for what it showed; a series that nothing stands for is left out. */
function mappedPage(page: Page, { ids, channels }: Transfer, isKnown: boolean): Page {
  const mapped = (reference: SeriesRef): SeriesRef | null => {
    if (reference === 't') return reference;
    const name = nameIn(reference);
    if (reference.startsWith('entry:')) return entryRef(ids.get(name) ?? name);
    const key = channels.get(name) ?? (isKnown ? undefined : name);
    return key === undefined ? null : channelRef(key);
  };
  return {
    ...page,
    id: newId(),
    horizontal: mapped(page.horizontal) ?? 't',
    panels: page.panels.flatMap((panel) => {
      const series = panel.series.flatMap((reference) => mapped(reference) ?? []);
      return series.length === 0 ? [] : [{ ...panel, id: newId(), series, without: [] }];
    }),
    labels: [],
  };
}

/** The sheet as a template, without what leads through it. */
export const templateOf = (
  { workings, runs, plan }: Pick<Investigation, 'workings' | 'runs' | 'plan'>,
  trials: TrialsDocument,
  name: string,
  about: string,
): Omit<NewTemplate, 'guide'> => ({
  name,
  about,
  channels: channelsOfRuns(runs),
  conditions: plan.conditions,
  workings: withoutRuns(workings),
  trials: trialsWithoutRuns(trials),
});

/** What is said of each run, with what a template asks for that is not among it. */
export function withConditions(
  before: readonly ConditionColumn[],
  { conditions }: Template,
): ConditionColumn[] | null {
  const isKnown = ({ name, kind }: ConditionColumn) =>
    before.some((one) => one.name === name && one.kind === kind);
  const missing = conditions.filter((column) => !isKnown(column));
  if (missing.length === 0) return null;
  const all = [...before];
  for (const column of missing) all.push(columnBeside(all, column));
  return all;
}

/** What lacks, in a sentence; nothing where all is there. */
export function lackingWords(lacking: readonly KnownChannel[]): string {
  if (lacking.length === 0) return '';
  const named = lacking.map(({ key, quantity }) => `${quantity} (${key})`).join(' and ');
  return ` Nothing here measures ${named}; what uses it waits for a run that does.`;
}

/** What is asked of each run, in a sentence. */
export const askedWords = (conditions: readonly ConditionColumn[]): string =>
  conditions.length === 0
    ? ''
    : ` Type ${conditions.map(({ name }) => name).join(' and ')} of each run where it stands in its chip.`;

/** Where its tables are, in a sentence. */
export const tableWords = (tables: readonly Pick<TrialTable, 'name'>[]): string =>
  tables.length === 0
    ? ''
    : ` ${tables.map(({ name }) => `“${name || 'table'}”`).join(' and ')} ${tables.length === 1 ? 'is a table' : 'are tables'} on the page Trials.`;

/** Whether its guide came along, in a sentence; nothing where it has none. @param isPut null where it has none, or none can be put here */
export const guideWords = (isPut: boolean | null): string => {
  if (isPut === null) return '';
  return isPut
    ? ' Its guide stands beside the traces and the notebook.'
    : ' This investigation has a guide already; that of the template was left out.';
};
