import { type Device, type DeviceChannel } from '@heuristor/contracts';
import { parseUnit, printedUnit } from '@heuristor/core';
import { useState } from 'react';
import { Button, ButtonGroup, Dropdown } from 'react-bootstrap';
import { CheckSquare, Square } from 'react-bootstrap-icons';
import { useInvestigation } from '../../investigation/context';
import { FixedMenu } from '../../ui/FixedMenu';
import { chooseForZero, useZeroChoice } from './zeroChoice';
import { zeroWords } from './zeroWords';

interface Props {
  device: Device;
  /** Its channels that can be zeroed. */
  channels: readonly DeviceChannel[];
  isRecording: boolean;
}

/** Zeroing the chosen channels of a device in one press; which they are, and one alone, where it has several. */
export function ZeroButton({ device, channels, isRecording }: Props) {
  const session = useInvestigation();
  const isChosen = useZeroChoice(device.code);
  const [isWaiting, setWaiting] = useState(false);
  const zero = async (keys: string[]) => {
    setWaiting(true);
    await session.sensors.zero(device, keys);
    setWaiting(false);
  };
  const chosen = channels.filter(({ key }) => isChosen(key));
  const isBarred = !device.present || isRecording || isWaiting;
  const isAll = chosen.length === channels.length;
  const button = (
    <Button
      variant="plain"
      disabled={isBarred || chosen.length === 0}
      title={chosen.length === 0 ? 'Choose what is zeroed beside it' : undefined}
      onClick={() => void zero(chosen.map(({ key }) => key))}
    >
      {isWaiting ? 'Hold still …' : isAll ? 'Zero' : `Zero ${chosen.map(({ symbol }) => symbol).join(', ')}`}
    </Button>
  );
  if (channels.length < 2) return button;
  return (
    <Dropdown as={ButtonGroup} autoClose="outside">
      {button}
      <Dropdown.Toggle split variant="plain" aria-label={`What is zeroed of ${device.code}`} />
      <FixedMenu>
        <Dropdown.Header>Zero takes</Dropdown.Header>
        {channels.map(({ key, symbol, quantity }) => (
          <Dropdown.Item
            key={key}
            as="button"
            role="menuitemcheckbox"
            aria-checked={isChosen(key)}
            onClick={() => chooseForZero(device.code, key, !isChosen(key))}
          >
            {isChosen(key) ? <CheckSquare aria-hidden /> : <Square aria-hidden />} {symbol} {quantity}
          </Dropdown.Item>
        ))}
        <Dropdown.Divider />
        {channels.map(({ key, symbol }) => (
          <Dropdown.Item key={key} as="button" disabled={isBarred} onClick={() => void zero([key])}>
            Zero {symbol} alone, now
          </Dropdown.Item>
        ))}
      </FixedMenu>
    </Dropdown>
  );
}

/** Which channels were zeroed, when, and how still it was. */
export function ZeroNotes({ device, channels }: Pick<Props, 'device' | 'channels'>) {
  return channels.map((channel) => {
    const zero = device.calibration.zeros[channel.key];
    if (zero === undefined) return null;
    const unit = printedUnit(parseUnit(channel.own.unit));
    return (
      <div key={channel.key} className="quiet small">
        {zeroWords({ symbol: channel.symbol, unit, zero }, channels.length > 1)}
      </div>
    );
  });
}
