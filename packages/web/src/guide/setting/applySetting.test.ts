import { emptyPage, emptyTrials, emptyWorkings, noSetting } from '@heuristor/contracts';
import { useNotices } from '../../ui/noticeStore';
import { applySetting } from './applySetting';

/** A session in which a sheet takes a while to be put. */
function session() {
  const opened: string[] = [];
  const planned: unknown[] = [];
  const made = {
    workings: emptyWorkings,
    looking: { open: (page: string) => opened.push(page) },
    plan: { change: (plan: unknown) => Promise.resolve(planned.push(plan)) },
    templates: {
      bring: async () => {
        await new Promise((resolve) => setTimeout(resolve, 5));
        made.workings = {
          ...emptyWorkings,
          pages: [...emptyWorkings.pages, { ...emptyPage, id: 'p2', name: 'v' }],
        };
      },
    },
  };
  return { opened, planned, made: made as unknown as Parameters<typeof applySetting>[0] };
}
const sheet = { name: 'Slope', channels: [], conditions: [], workings: emptyWorkings, trials: emptyTrials };

test('a page that comes with the sheet of the same step is opened once it is there', async () => {
  const { opened, made } = session();
  await applySetting(made, { ...noSetting, sheet, page: { id: 'gone', name: 'v' } }, true);
  expect(opened).toEqual(['p2']);
});

test('a page that is nowhere is said', async () => {
  const { opened, made } = session();
  await applySetting(made, { ...noSetting, page: { id: 'gone', name: 'ln U' } }, true);
  expect(opened).toEqual([]);
  expect(JSON.stringify(useNotices.getState())).toContain('The page “ln U” is not on the sheet any more.');
});

test('who may not change what is recorded keeps the plan as it is', async () => {
  const { planned, made } = session();
  const plan = { way: 'time', begin: { kind: 'at-once' } } as never;
  await applySetting(made, { ...noSetting, plan }, false);
  expect(planned).toEqual([]);
  await applySetting(made, { ...noSetting, plan }, true);
  expect(planned).toHaveLength(1);
});
