import { BatteryHalf, Battery as BatteryEmpty } from 'react-bootstrap-icons';

const low = 0.3;
const empty = 0.15;

/** The charge of a battery, where it matters. */
export function BatteryLow({ battery }: { battery: number | null }) {
  if (battery === null || battery >= low) return null;
  const Icon = battery < empty ? BatteryEmpty : BatteryHalf;
  const words = `battery at ${Math.round(battery * 100)} %`;
  return <Icon role="img" aria-label={words} title={words} />;
}
