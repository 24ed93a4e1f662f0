import { type EntryKindKey } from '@heuristor/core';

/** A length that is typed for what passes, and kept as a constant of the sheet. */
export interface PassageLength {
  /** "length of the flag" */
  called: string;
  symbol: string;
}

/** An entry that a passage puts on the sheet. */
interface PassageEntry {
  kind: EntryKindKey;
  name: string;
  preset?: Readonly<Record<string, unknown>>;
  /** Whether its mean over what passed says anything: not of what changes as it passes. */
  isAveraged: boolean;
}

/** Something that can pass a gate, and what is worked out of it. */
export interface Passage {
  key: string;
  /** "a flag or a ball" */
  title: string;
  /** What the length or number is asked for. */
  length: PassageLength | null;
  beams: 1 | 2;
  /** The first one is shown largest. */
  entries: readonly PassageEntry[];
}

const pairEntries = (kind: EntryKindKey): PassageEntry[] => [
  { kind, name: 'a', preset: { gives: 'acceleration' }, isAveraged: true },
  { kind, name: 'v₁', preset: { gives: 'first' }, isAveraged: true },
  { kind, name: 'v₂', preset: { gives: 'second' }, isAveraged: true },
  { kind, name: 'Δt', preset: { gives: 'between' }, isAveraged: true },
];

/** All that can pass, in the order in which they are offered. */
export const passages: readonly Passage[] = [
  {
    key: 'flag',
    title: 'a flag or a ball',
    length: { called: 'length of the flag', symbol: 'd' },
    beams: 1,
    entries: [{ kind: 'flagSpeed', name: 'v', isAveraged: true }],
  },
  {
    key: 'fence',
    title: 'a barred card (fence)',
    length: { called: 'spacing of the bars, front to front', symbol: 's' },
    beams: 1,
    entries: [
      { kind: 'fence', name: 'v', preset: { gives: 'velocity' }, isAveraged: false },
      { kind: 'fence', name: 'x', preset: { gives: 'position' }, isAveraged: false },
      { kind: 'fence', name: 'a', preset: { gives: 'acceleration' }, isAveraged: true },
    ],
  },
  {
    key: 'flagPair',
    title: 'a cart with two flags',
    length: { called: 'length of each flag', symbol: 'd' },
    beams: 1,
    entries: pairEntries('flagPair'),
  },
  {
    key: 'beamPair',
    title: 'a flag through two beams',
    length: { called: 'length of the flag', symbol: 'd' },
    beams: 2,
    entries: pairEntries('beamPair'),
  },
  {
    key: 'bob',
    title: 'a pendulum’s bob',
    length: null,
    beams: 1,
    entries: [{ kind: 'period', name: 'T', isAveraged: true }],
  },
  {
    key: 'wheel',
    title: 'a wheel with spokes',
    length: null,
    beams: 1,
    entries: [
      { kind: 'spokes', name: 'ω', preset: { gives: 'angularSpeed' }, isAveraged: false },
      { kind: 'spokes', name: 'θ', preset: { gives: 'angle' }, isAveraged: false },
    ],
  },
  {
    key: 'counting',
    title: 'anything: count and time',
    length: null,
    beams: 1,
    entries: [
      { kind: 'counting', name: 'Δt', preset: { gives: 'interval' }, isAveraged: true },
      { kind: 'counting', name: 'n', preset: { gives: 'count' }, isAveraged: false },
      { kind: 'counting', name: 'τ', preset: { gives: 'duration' }, isAveraged: true },
    ],
  },
];

const passageKinds = new Set(passages.flatMap(({ entries }) => entries.map(({ kind }) => kind)));

/** Whether an entry is of those that a passage puts on the sheet. */
export const isPassageKind = (kind: EntryKindKey): boolean => passageKinds.has(kind);
