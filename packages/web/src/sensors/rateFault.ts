import { type DeviceStream } from '@heuristor/contracts';
import { rateText } from '../ui/rateText';

type Rates = DeviceStream['rates'];

/** The rates that a stream can be set to, in words. */
export const ratesWords = ({ lowest, highest, only }: Rates): string =>
  only === undefined ? `${rateText(lowest)} to ${rateText(highest)}` : only.map(rateText).join(', ');

/** What is wrong with a rate for a device, or null. */
export function rateFault(code: string, rates: Rates, wanted: number): string | null {
  const { lowest, highest, only } = rates;
  const can = only === undefined ? wanted >= lowest && wanted <= highest : only.includes(wanted);
  return can ? null : `${code} takes ${ratesWords(rates)}.`;
}

/** The slowest rate that a stream can be set to and that is at least so fast; its fastest where none is. */
export function rateFrom({ highest, only }: Rates, wanted: number): number {
  if (only === undefined) return Math.min(wanted, highest);
  const faster = only.filter((rate) => rate >= wanted);
  return faster.length > 0 ? Math.min(...faster) : Math.max(...only);
}
