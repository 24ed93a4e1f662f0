import { type GuideSetting, emptyGuide } from '@heuristor/contracts';
import { least } from 'd3-array';
import { type InvestigationSession } from '../../investigation/investigationSession';
import { quantitiesOf } from '../../sensors/sensors';
import { useDevices } from '../../sensors/devices';
import { tell } from '../../ui/noticeStore';

type Session = Pick<
  InvestigationSession,
  'id' | 'documents' | 'plan' | 'sensors' | 'templates' | 'looking' | 'workings' | 'history'
>;

/** Whether a step sets anything up. */
export const setsUp = ({ plan, sensors, page, sheet }: GuideSetting): boolean =>
  plan !== null || sensors.length > 0 || page !== null || sheet !== null;

/**
 * Sets the bench up as a step says: its plan and sensors where one may change them, then the sheet that it brings, then the page
 * that it opens. Each of these can be taken back.
 * @param mayPlan whether whoever presses may change what is recorded; others work over the runs that there are
 */
export async function applySetting(session: Session, setting: GuideSetting, mayPlan: boolean): Promise<void> {
  const { plan, sensors, page, sheet } = setting;
  if (mayPlan && plan !== null) await session.plan.change(plan);
  if (mayPlan && sensors.length > 0) await setUpSensors(session, sensors);
  if (sheet !== null) await session.templates.bring({ id: '', about: '', guide: emptyGuide, ...sheet });
  if (page === null) return;
  const { pages } = session.workings;
  const found = pages.find(({ id }) => id === page.id) ?? pages.find(({ name }) => name === page.name);
  if (found !== undefined) session.looking.open(found.id);
  else tell({ kind: 'news', text: `The page “${page.name}” is not on the sheet any more.` });
}

async function setUpSensors(session: Session, wanted: GuideSetting['sensors']): Promise<void> {
  const { plan } = session.documents.getState();
  const quantities = quantitiesOf(useDevices.getState().devices, plan, session.id);
  for (const { channel: key, rate, zeroAtStart } of wanted) {
    const found = quantities.find((quantity) => quantity.key === key);
    if (found === undefined) continue;
    const { device, stream, channel } = found;
    const { lowest, highest, only } = stream.rates;
    const within = rate === null ? null : Math.min(highest, Math.max(lowest, rate));
    const taken =
      within === null || only === undefined
        ? within
        : (least(only, (one) => Math.abs(one - within)) ?? within);
    const patch = (toRate: number | null, toZero: boolean | null) => ({
      ...(toRate === null ? {} : { rates: { [stream.key]: toRate } }),
      ...(toZero === null ? {} : { channels: { [channel.key]: { zeroAtStart: toZero } } }),
    });
    const isAsWanted =
      (taken === null || taken === stream.rate) &&
      (zeroAtStart === null || zeroAtStart === channel.zeroAtStart);
    if (isAsWanted) continue;
    await session.sensors.setUp(
      device.code,
      patch(taken, zeroAtStart),
      patch(taken === null ? null : stream.rate, zeroAtStart === null ? null : channel.zeroAtStart),
    );
  }
}
