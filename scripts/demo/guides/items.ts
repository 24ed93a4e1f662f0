import {
  type GuideCheck,
  type GuideItemKind,
  type GuideItemOf,
  type GuideSetting,
  noSetting,
} from '@heuristor/contracts';

// Items of a guide in which only what is not usual is said.

type Said<K extends GuideItemKind> = Partial<Omit<GuideItemOf<K>, 'kind' | 'id' | 'title'>>;

interface StepParts {
  picture?: string;
  checks?: GuideCheck[];
  setting?: Partial<GuideSetting>;
}

export const step = (
  id: string,
  title: string,
  text: string,
  { picture = '', checks = [], setting = {} }: StepParts = {},
): GuideItemOf<'step'> => ({
  kind: 'step',
  id,
  title,
  text,
  picture,
  checks,
  setting: { ...noSetting, ...setting },
});

export const check = (
  kind: GuideCheck['kind'],
  channel = '',
  number: number | null = null,
  unit = '',
): GuideCheck => ({ id: `${kind}-${channel || 'all'}`, kind, channel, number, unit });

export const words = (
  id: string,
  title: string,
  right: string,
  said: Said<'words'> = {},
): GuideItemOf<'words'> => ({ kind: 'words', id, title, text: '', isBefore: false, right, ...said });

/** @param right which of the options, from 0 on */
export const choice = (
  id: string,
  title: string,
  options: readonly string[],
  right: number,
  said: Said<'choice'> = {},
): GuideItemOf<'choice'> => ({
  kind: 'choice',
  id,
  title,
  text: '',
  isBefore: false,
  options: options.map((text, i) => ({ key: `o${i + 1}`, text })),
  isMany: false,
  tries: 1,
  right: [`o${right + 1}`],
  ...said,
});

/** What is right, within which tolerance, in which unit. */
type Right = readonly [value: number, tolerance: number, unit: string];

export const number = (
  id: string,
  title: string,
  [value, tolerance, unit]: Right,
  said: Said<'number'> = {},
): GuideItemOf<'number'> => ({
  kind: 'number',
  id,
  title,
  text: '',
  isBefore: false,
  unit,
  digits: null,
  tries: 3,
  right: { value, tolerance },
  ...said,
});

/** @param right null where it depends on the apparatus, so that nobody can say before what it is */
export const result = (
  id: string,
  title: string,
  right: Right | null,
  said: Said<'result'> = {},
): GuideItemOf<'result'> => ({
  kind: 'result',
  id,
  title,
  text: '',
  isBefore: false,
  unit: right?.[2] ?? '',
  tries: right === null ? 0 : 3,
  right: right === null ? null : { value: right[0], tolerance: right[1] },
  ...said,
});

type Axis = readonly [title: string, unit: string, from: number, to: number];
const axis = ([title, unit, from, to]: Axis) => ({ title, unit, from, to });

export const sketch = (
  id: string,
  title: string,
  across: Axis,
  upright: Axis,
  said: Said<'sketch'> = {},
): GuideItemOf<'sketch'> => ({
  kind: 'sketch',
  id,
  title,
  text: '',
  isBefore: true,
  across: axis(across),
  upright: axis(upright),
  over: '',
  ...said,
});
