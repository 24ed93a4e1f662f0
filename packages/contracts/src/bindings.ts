import { type Binding, mostQuantities } from './plan';

/** A channel that could take part in a run. */
export interface Offered {
  code: string;
  channel: string;
  symbol: string;
}

/**
 * The quantities of the next run: a channel that is bound keeps its key, whatever order devices came in; a new one gets its
 * symbol, or the next number that is free. A binding whose device is away is kept for its return and given to no other; one
 * whose device the teacher has disconnected is free again. Where there are too many, those that were not offered for longest go.
 */
export function boundKeys(
  bindings: readonly Binding[],
  offered: readonly Offered[],
  isConnected: (code: string) => boolean,
): { keys: string[]; bindings: Binding[] } {
  const all = bindings.filter(({ code }) => isConnected(code));
  const keys = offered.map(({ code, channel, symbol }) => {
    const known = all.find((binding) => binding.code === code && binding.channel === channel);
    if (known !== undefined) return known.key;
    const taken = new Set(all.map(({ key }) => key));
    let key = symbol;
    for (let n = 2; taken.has(key); n++) key = `${symbol}${n}`;
    all.push({ key, code, channel });
    return key;
  });
  const isOffered = ({ code, channel }: Binding) =>
    offered.some((other) => other.code === code && other.channel === channel);
  const surplus = all.length - mostQuantities;
  if (surplus <= 0) return { keys, bindings: all };
  const idle = all.filter((binding) => !isOffered(binding)).slice(0, surplus);
  return { keys, bindings: all.filter((binding) => !idle.includes(binding)) };
}
