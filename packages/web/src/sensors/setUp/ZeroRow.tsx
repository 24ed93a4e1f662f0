import { type Device, type DeviceChannel } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useInvestigation } from '../../investigation/context';
import { shortText } from '../../ui/numberText';

const shown = (value: number) => shortText(value, 3);

/** When a channel was zeroed and where, and doing it again or taking it away. */
export function ZeroRow({ device, channel }: { device: Device; channel: DeviceChannel }) {
  const session = useInvestigation();
  const [zeroing, setZeroing] = useState(false);
  const { code, calibration, present } = device;
  const zero = calibration.zeros[channel.key];
  const unit = printedUnit(parseUnit(channel.own.unit));
  const take = async () => {
    setZeroing(true);
    await session.sensors.zero(device, [channel.key]);
    setZeroing(false);
  };
  const forget = () => {
    const zeros = Object.fromEntries(
      Object.entries(calibration.zeros).filter(([key]) => key !== channel.key),
    );
    void session.sensors.calibrate(code, { ...calibration, zeros }, calibration);
  };
  return (
    <span className="with-unit" data-testid={`zeroed-${code}-${channel.key}`}>
      <span className="quiet">
        {zero === undefined
          ? 'never'
          : `${formatDistanceToNow(new Date(zero.at), { addSuffix: true })} at ${shown(zero.offset)} ${unit}, spread ${shown(zero.spread)} ${unit}`}
      </span>
      <Button variant="plain" size="sm" disabled={!present || zeroing} onClick={() => void take()}>
        {zeroing ? 'Hold still …' : 'Zero now'}
      </Button>
      {zero !== undefined && (
        <Button variant="plain" size="sm" onClick={forget}>
          Take away
        </Button>
      )}
    </span>
  );
}
