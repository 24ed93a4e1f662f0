import { type Template, mostInTrials, templateSchema } from '@heuristor/contracts';
import { sameName } from '@heuristor/core';
import { z } from 'zod';
import { type StoreApi, createStore } from 'zustand/vanilla';
import { request } from '../../api/client';
import { askAnew, useServer } from '../../api/queries';
import { tell } from '../../ui/noticeStore';
import { attempt } from '../../api/attempt';
import { type Host, type KeptGuide, type KeptTrials } from '../../investigation/host';
import { type Alike, alikesOf, withAlikes } from './templateConditions';
import {
  askedWords,
  guideWords,
  lackingWords,
  tableWords,
  templateOf,
  unzeroedWords,
  withConditions,
  withTemplate,
} from './templates';

const templatesPath = '/templates';
const listSchema = z.array(templateSchema);

/** Those that are kept, for all investigations. @param isWanted false while nobody looks at them */
export const useTemplates = (isWanted = true) => useServer(templatesPath, listSchema, isWanted);

/** Templates of sheets: put to use, kept and removed. */
export class TemplateActions {
  /** What is to be known before a template is put onto the sheet. */
  readonly question: StoreApi<{ asked: { template: Template; alikes: Alike[] } | null }> = createStore(
    () => ({
      asked: null as { template: Template; alikes: Alike[] } | null,
    }),
  );

  constructor(
    private readonly session: Pick<
      Host,
      | 'documents'
      | 'workings'
      | 'runs'
      | 'changeWorkings'
      | 'looking'
      | 'plan'
      | 'history'
      | 'trials'
      | 'guide'
    >,
  ) {}

  /** Puts a template onto the sheet, after it was asked what of it is a condition that is asked of the runs already. */
  async use(template: Template): Promise<void> {
    const { conditions } = this.session.documents.getState().plan;
    const alikes = alikesOf(template, conditions).filter(
      ({ constantId, symbol }) =>
        constantId === null ||
        !this.session.workings.entries.some(
          ({ kind, name }) => kind === 'constant' && sameName(name) === sameName(symbol),
        ),
    );
    if (alikes.length === 0) await this.put(template);
    else this.question.setState({ asked: { template, alikes } });
  }

  /** Puts a template onto the sheet unless all of it is there already; then its page is opened. */
  async bring(template: Template): Promise<void> {
    const { workings, runs, looking } = this.session;
    const made = withTemplate(workings, runs, template);
    const isThere = made !== null && made.workings.entries.length === workings.entries.length;
    if (!isThere || workings.entries.length === 0) await this.use(template);
    else {
      const [first] = template.workings.pages;
      const named = workings.pages.find(({ name }) => name === template.name || name === first?.name);
      if (named !== undefined) looking.open(named.id);
    }
  }

  /** Puts a template onto the sheet, with these conditions in place of what it asks for; null lets it be. */
  answer(alikes: readonly Alike[] | null): void {
    const { asked } = this.question.getState();
    this.question.setState({ asked: null });
    if (asked !== null && alikes !== null) void this.put(withAlikes(asked.template, alikes));
  }

  /** One step, which can be taken back. */
  private async put(template: Template): Promise<void> {
    const { session } = this;
    const hasTables = template.trials.tables.length > 0;
    let trials: KeptTrials | null = null;
    // Trials that cannot be opened are in the way of no sheet.
    if (hasTables) trials = await session.trials().catch(() => null);
    // What leads through it comes along where nothing leads through this investigation yet.
    const here = template.guide.items.length > 0 ? await this.ownGuide() : null;
    const asked = session.documents.getState().plan.conditions;
    const conditions = withConditions(asked, template);
    const made = withTemplate(session.workings, session.runs, template, conditions ?? asked);
    if (made === null) {
      tell({
        kind: 'news',
        text: `“${template.name}” does not fit on this sheet any more: it holds 200 entries and 20 pages. Remove some, or begin a new investigation.`,
      });
      return;
    }
    session.history.hold();
    session.changeWorkings(() => made.workings);
    const room = mostInTrials.tables - (trials?.state.getState().trials.tables.length ?? 0);
    const tables = trials === null ? [] : made.tables.slice(0, room);
    if (tables.length > 0)
      trials?.change((document) => ({ ...document, tables: [...document.tables, ...tables] }));
    const hasGuide = here !== null && here.guide.items.length > 0;
    if (here !== null && !hasGuide) here.change(() => ({ ...template.guide, isReleased: false }));
    session.history.release();
    if (conditions !== null) void session.plan.change({ conditions });
    if (made.page !== null) session.looking.open(made.page);
    tell({
      kind: 'news',
      text: `“${template.name}” is on the sheet, for every run that is shown.${lackingWords(made.lacking)}${unzeroedWords(made.unzeroed)}${tableWords(tables)}${guideWords(here === null ? null : !hasGuide)}${askedWords((conditions ?? []).slice(asked.length))}`,
    });
  }

  /** The guide of the investigation, where whoever is here may change it. */
  private async ownGuide(): Promise<KeptGuide | null> {
    const guide = await this.session.guide().catch(() => null);
    return guide?.mayWrite === true ? guide : null;
  }

  /** Keeps the sheet as a template. */
  async keep(name: string, about: string): Promise<boolean> {
    const documents = this.session.documents.getState();
    const isKept = await attempt(async () => {
      const { trials } = (await this.session.trials()).state.getState();
      const { guide } = await this.session.guide();
      return request('POST', templatesPath, { ...templateOf(documents, trials, name, about), guide });
    });
    if (isKept) {
      await askAnew(templatesPath);
      tell({ kind: 'news', text: `“${name}” is kept as a template, for all investigations.` });
    }
    return isKept;
  }

  async remove({ id, name }: Template): Promise<void> {
    if (!(await attempt(() => request('DELETE', `${templatesPath}/${id}`)))) return;
    await askAnew(templatesPath);
    tell({
      kind: 'news',
      text: `The template “${name}” was removed.`,
      action: {
        label: 'Put it back',
        run: () =>
          void attempt(() => request('POST', `${templatesPath}/${id}/restore`)).then(() =>
            askAnew(templatesPath),
          ),
      },
    });
  }
}
