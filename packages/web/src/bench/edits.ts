import { type WorkingsDocument } from '@heuristor/contracts';
import { type Line, type RelationKey, type SeriesRef, lineRef } from '@heuristor/core';
import { useBench } from '../stores/bench';
import { changeWorkings, useWorkings } from '../stores/workings';
import { seriesChoices } from './names';

const newId = (): string => crypto.randomUUID().slice(0, 12);

const usualWindow = 9;

/** The first letter that no region has. */
function freeLetter(lines: readonly Line[]): string {
  const used = new Set(lines.map((line) => (line.kind === 'region' ? line.letter : '')));
  for (let i = 0; ; i++) {
    const letter = i < 26 ? String.fromCharCode(65 + i) : `A${String.fromCharCode(65 + ((i - 26) % 26))}`;
    if (!used.has(letter)) return letter;
  }
}

/** Symbols of derived series by custom: v of x, a of v. */
const customary: Record<string, string> = { x: 'v', v: 'a', θ: 'ω', ω: 'α' };

function freeSymbol(wish: string, { lines }: WorkingsDocument): string {
  const taken = new Set(lines.map(({ name }) => name));
  let symbol = wish;
  for (let n = 2; taken.has(symbol); n++) symbol = `${wish}${n}`;
  return symbol;
}

const withLine = (workings: WorkingsDocument, line: Line): WorkingsDocument => ({
  ...workings,
  lines: [...workings.lines, line],
});

/** Traces as they are shown now, made explicit so that one can be added. */
function explicitTraces(workings: WorkingsDocument): SeriesRef[] {
  if (workings.traces.length > 0) return workings.traces;
  return seriesChoices(useBench.getState().runs, { ...workings, lines: [] }).filter(
    (ref) => ref !== workings.horizontal,
  );
}

export function addRegion(start: number, end: number): string {
  const id = newId();
  changeWorkings((workings) =>
    withLine(workings, {
      kind: 'region',
      id,
      name: '',
      letter: freeLetter(workings.lines),
      along: workings.horizontal,
      start,
      end,
    }),
  );
  return id;
}

export function addDerived(kind: 'derivative' | 'integral', of: SeriesRef, nameOfSource: string): void {
  const id = newId();
  changeWorkings((workings) => {
    const wish = kind === 'derivative' ? (customary[nameOfSource] ?? `d${nameOfSource}`) : `∫${nameOfSource}`;
    const name = freeSymbol(wish, workings);
    const line: Line =
      kind === 'derivative' ? { kind, id, name, of, windowPoints: usualWindow } : { kind, id, name, of };
    return { ...withLine(workings, line), traces: [...explicitTraces(workings), lineRef(id)].slice(0, 12) };
  });
}

export type Offer = 'statistics' | 'slope' | 'area' | RelationKey;

/** What can be worked out on a region, in the order in which it is offered. */
export const offers: { key: Offer; title: string }[] = [
  { key: 'statistics', title: 'mean' },
  { key: 'slope', title: 'slope' },
  { key: 'area', title: 'area' },
  { key: 'line', title: 'line' },
  { key: 'parabola', title: 'parabola' },
  { key: 'sine', title: 'sine' },
];

export function addOnRegion(offer: Offer, region: string | null, of: SeriesRef): void {
  changeWorkings((workings) => {
    const base = { id: newId(), name: '', region, of };
    const against = workings.horizontal;
    switch (offer) {
      case 'statistics':
        return withLine(workings, { ...base, kind: 'statistics' });
      case 'slope':
      case 'area':
        return withLine(workings, { ...base, kind: offer, against });
      default:
        return withLine(workings, { ...base, kind: 'fit', relation: offer, against, showResiduals: false });
    }
  });
}

export function removeLine(id: string): void {
  const { selectedRegion } = useBench.getState();
  if (selectedRegion === id) useBench.setState({ selectedRegion: null });
  changeWorkings((workings) => ({
    ...workings,
    lines: workings.lines.filter((line) => line.id !== id),
    traces: workings.traces.filter((trace) => trace !== lineRef(id)),
    horizontal: workings.horizontal === lineRef(id) ? 't' : workings.horizontal,
  }));
}

export function moveLine(id: string, to: number): void {
  changeWorkings((workings) => {
    const from = workings.lines.findIndex((line) => line.id === id);
    if (from < 0 || to < 0 || to >= workings.lines.length || from === to) return workings;
    const lines = [...workings.lines];
    lines.splice(to, 0, ...lines.splice(from, 1));
    return { ...workings, lines };
  });
}

export function toggleTrace(reference: SeriesRef): void {
  changeWorkings((workings) => {
    const shown = explicitTraces(workings);
    const traces = shown.includes(reference)
      ? shown.filter((trace) => trace !== reference)
      : [...shown, reference];
    return traces.length === 0 ? workings : { ...workings, traces };
  });
}

export function setHorizontal(horizontal: SeriesRef): void {
  changeWorkings((workings) => ({
    ...workings,
    horizontal,
    traces: workings.traces.filter((trace) => trace !== horizontal),
  }));
  useBench.setState({ viewport: null, selectedRegion: null });
}

export const tracesShown = (): SeriesRef[] => explicitTraces(useWorkings.getState().workings);
