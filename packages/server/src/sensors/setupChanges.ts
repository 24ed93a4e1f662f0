import { type ChannelSetup, type Setup, type SetupPatch } from '@heuristor/contracts';
import { canConvert, conversionOf, parseUnit, printedUnit, ucumCode } from '@heuristor/core';
import { Failure } from '../failure';
import { type LinkedDevice, canRun } from '../link/device';

/** The set-up of a device with changes in it. @throws Failure for what the device cannot do */
export function changedSetup(device: LinkedDevice, { rates = {}, channels = {} }: SetupPatch): Setup {
  const { setup, code } = device;
  for (const [key, rate] of Object.entries(rates)) {
    const stream = device.streams.find(({ description }) => description.key === key);
    if (stream === undefined) throw new Failure('not-found', `${code} has no stream ${key}.`);
    if (canRun(stream.description, rate)) continue;
    const { lowest, highest, only } = stream.description.rates;
    throw new Failure(
      'impossible-rate',
      `${code} cannot take ${rate} readings a second. Choose ${
        only === undefined ? `a rate from ${lowest} to ${highest} Hz` : `one of ${only.join(', ')} Hz`
      }.`,
    );
  }
  const merged = { ...setup.channels };
  for (const [key, patch] of Object.entries(channels))
    merged[key] = { ...merged[key], ...checkedChannel(device, key, patch) };
  return { rates: { ...setup.rates, ...rates }, channels: merged };
}

function checkedChannel(device: LinkedDevice, key: string, patch: ChannelSetup): ChannelSetup {
  const channel = device.streams
    .flatMap(({ description }) => description.channels)
    .find((candidate) => candidate.key === key);
  if (channel === undefined) throw new Failure('not-found', `${device.code} has no channel ${key}.`);
  if (patch.range !== undefined && !channel.ranges.some((range) => range.key === patch.range))
    throw new Failure('not-found', `${channel.symbol} of ${device.code} has no range ${patch.range}.`);
  if (patch.unit === undefined) return patch;
  const [own, wanted] = [parseUnit(channel.unit), parseUnit(patch.unit)];
  try {
    if (own.length > 0) conversionOf(own, wanted);
  } catch {
    throw new Failure(
      'invalid-request',
      `${channel.symbol} comes in ${printedUnit(own)} and cannot be shown in “${patch.unit}”. Choose a unit of the same quantity${
        canConvert(own, parseUnit('m')) ? ', such as cm' : ''
      }.`,
    );
  }
  return { ...patch, unit: ucumCode(wanted) };
}
