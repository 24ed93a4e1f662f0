import { type Device } from '@heuristor/contracts';
import { create } from 'zustand';

const key = 'not-zeroed';

/** Channels that Zero leaves alone at this machine, as "K3-L/F". */
const useLeftAlone = create<{ left: ReadonlySet<string> }>(() => ({
  left: new Set((localStorage.getItem(key) ?? '').split('\n').filter((one) => one !== '')),
}));
useLeftAlone.subscribe(({ left }) => localStorage.setItem(key, [...left].join('\n')));

const nameOf = (code: string, channel: string) => `${code}/${channel}`;

/** Whether Zero takes a channel of this device. */
export function useZeroChoice(code: string): (channel: string) => boolean {
  const left = useLeftAlone((state) => state.left);
  return (channel) => !left.has(nameOf(code, channel));
}

/** The channels of a device that Zero takes: those that are on, can be zeroed, and are not left alone. */
export function useChosenForZero(): (device: Device) => string[] {
  const left = useLeftAlone((state) => state.left);
  return ({ code, streams }) =>
    streams
      .filter(({ sampling }) => sampling === 'regular')
      .flatMap(({ channels }) => channels.filter(({ on, key }) => on && !left.has(nameOf(code, key))))
      .map(({ key }) => key);
}

/** Zero takes a channel from now on, or leaves it alone. */
export function chooseForZero(code: string, channel: string, isChosen: boolean): void {
  const left = new Set(useLeftAlone.getState().left);
  if (isChosen) left.delete(nameOf(code, channel));
  else left.add(nameOf(code, channel));
  useLeftAlone.setState({ left });
}
