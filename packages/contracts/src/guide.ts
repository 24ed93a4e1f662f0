import { z } from 'zod';
import { finite, plainText } from './basics';
import { conditionColumnSchema } from './conditions';
import { type DocumentFormat } from './documents';
import { knownChannelSchema } from './knownChannels';
import { planSchema } from './plan';
import { trialsSchema } from './trials';
import { workingsSchema } from './workings';

// What a teacher wrote for an investigation. Everybody who takes part reads the same guide; what is right is taken out of it
// for others until the teacher releases it (`withoutRight`).

/** How much a guide can hold. */
export const mostInGuide = { items: 60, checks: 12, options: 12, tries: 9 } as const;

const key = z.string().min(1).max(40);
const line = plainText.pipe(z.string().max(300, 'a line has 300 letters at most'));
/** Markdown, with formulas between dollar signs. */
const words = plainText.pipe(z.string().max(8000, 'a text has 8000 letters at most'));
const unit = plainText.pipe(z.string().max(40));
const channel = z.string().max(160);

export const checkKinds = [
  'connected',
  'rate',
  'zeroed',
  'still',
  'sign',
  'level',
  'recorded',
  'conditions',
] as const;
export type CheckKind = (typeof checkKinds)[number];

/** Something that readings and settings tick by themselves. */
export const guideCheckSchema = z.object({
  id: key,
  kind: z.enum(checkKinds),
  /** The channel of the runs that it looks at; '' where it looks at none. */
  channel,
  /** The number that it asks for: a rate in hertz, a level, a number of runs; null where it asks for none. */
  number: finite.nullable(),
  unit,
});
export type GuideCheck = z.infer<typeof guideCheckSchema>;

/** How a channel is to be set up. */
const sensorSettingSchema = z.object({
  channel,
  /** In hertz; null where it stays. */
  rate: finite.positive().nullable(),
  zeroAtStart: z.boolean().nullable(),
});

/** A sheet that a step brings, over whatever measures the same. */
export const broughtSheetSchema = z.object({
  name: plainText.pipe(z.string().min(1).max(120)),
  channels: z.array(knownChannelSchema).max(64),
  conditions: z.array(conditionColumnSchema).max(12),
  workings: workingsSchema,
  trials: trialsSchema,
});
export type BroughtSheet = z.infer<typeof broughtSheetSchema>;

/** What a step sets up; null where it leaves things as they are. */
export const guideSettingSchema = z.object({
  plan: planSchema
    .pick({ way: true, spot: true, pace: true, begin: true, end: true, times: true })
    .nullable(),
  sensors: z.array(sensorSettingSchema).max(24),
  /** A page of traces, by its id, or else its name. */
  page: z.object({ id: z.string().max(80), name: line }).nullable(),
  sheet: broughtSheetSchema.nullable(),
});
export type GuideSetting = z.infer<typeof guideSettingSchema>;
export const noSetting: GuideSetting = { plan: null, sensors: [], page: null, sheet: null };

const asked = {
  id: key,
  title: line,
  text: words,
  /** Asked before anything is recorded. */
  isBefore: z.boolean(),
};
/** So often an answer is checked before what is right is released; 0 never. */
const tries = z.number().int().min(0).max(mostInGuide.tries);
const toleratedSchema = z.object({
  value: finite,
  tolerance: finite.nonnegative('a tolerance is not negative'),
});
const quantityRange = z
  .object({ title: line, unit, from: finite, to: finite })
  .refine(({ from, to }) => from < to, 'an axis goes from a smaller number to a larger one');

/** Kinds of items. Adding one: its schema here, a file for pages and, where it can be checked, one for the server. */
export const guideItemSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('step'),
    id: key,
    title: line,
    text: words,
    /** A drawing, by its key; '' for none. */
    picture: z.string().max(40),
    checks: z.array(guideCheckSchema).max(mostInGuide.checks),
    setting: guideSettingSchema,
  }),
  z.object({ kind: z.literal('words'), ...asked, right: words.nullable() }),
  z.object({
    kind: z.literal('choice'),
    ...asked,
    options: z.array(z.object({ key, text: line })).max(mostInGuide.options),
    isMany: z.boolean(),
    tries,
    right: z.array(key).max(mostInGuide.options).nullable(),
  }),
  z.object({
    kind: z.literal('number'),
    ...asked,
    /** UCUM code of the unit in which what is right is given; '' for a plain number. */
    unit,
    /** So many significant digits are asked for; null where it does not matter. */
    digits: z
      .object({ least: z.number().int().min(1).max(12), most: z.number().int().min(1).max(12) })
      .refine(({ least, most }) => least <= most, 'the least number of digits is not above the most')
      .nullable(),
    tries,
    right: toleratedSchema.nullable(),
  }),
  z.object({ kind: z.literal('result'), ...asked, unit, tries, right: toleratedSchema.nullable() }),
  z.object({
    kind: z.literal('sketch'),
    ...asked,
    across: quantityRange,
    upright: quantityRange,
    /** The channel of the runs that the sketch can be laid over; '' for none. */
    over: channel,
  }),
]);
export type GuideItem = z.infer<typeof guideItemSchema>;
export type GuideItemKind = GuideItem['kind'];
export type GuideItemOf<K extends GuideItemKind> = Extract<GuideItem, { kind: K }>;

/** The guide of an investigation: steps and questions in their order. */
export const guideSchema = z
  .object({
    format: z.literal(1),
    /** Whether everybody may see what is right. */
    isReleased: z.boolean(),
    items: z.array(guideItemSchema).max(mostInGuide.items),
  })
  .refine(
    ({ items }) => new Set(items.map(({ id }) => id)).size === items.length,
    'every item needs an id of its own',
  );
export type GuideDocument = z.infer<typeof guideSchema>;

export const emptyGuide: GuideDocument = { format: 1, isReleased: false, items: [] };

export const guideFormat: DocumentFormat<GuideDocument> = {
  title: 'guide',
  isMany: false,
  format: 1,
  schema: guideSchema,
  steps: [],
};

/** A guide as others than its owner see it: what is right is in it only once it is released. */
export const withoutRight = (guide: GuideDocument): GuideDocument =>
  guide.isReleased
    ? guide
    : { ...guide, items: guide.items.map((item) => ('right' in item ? { ...item, right: null } : item)) };
