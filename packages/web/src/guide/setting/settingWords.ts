import { type GuideSetting } from '@heuristor/contracts';
import { beginningWords, endingWords, timesWords } from '../../recording/plan/planWords';
import { type Quantity } from '../../sensors/sensors';
import { rateWords } from '../../ui/rateText';

/** What a setting says, a line each. */
export function settingWords(
  { plan, sensors, page, sheet }: GuideSetting,
  quantities: readonly Quantity[],
): string[] {
  return [
    ...(plan === null
      ? []
      : [
          `Begin ${beginningWords(plan.begin, quantities)}; end ${endingWords(plan.end, quantities)}; ${timesWords(plan)}`,
        ]),
    ...sensors.map(({ channel, rate, zeroAtStart }) =>
      [
        channel,
        ...(rate === null ? [] : [rateWords(rate)]),
        ...(zeroAtStart === true ? ['zeroed at the start of every run'] : []),
      ].join(': '),
    ),
    ...(sheet === null ? [] : [`Sheet: ${sheet.name}`]),
    ...(page === null ? [] : [`Page: ${page.name === '' ? 'the first' : page.name}`]),
  ];
}
