import { z } from 'zod';
import { awaySchema } from './away';
import { finite, idSchema, nameSchema, plainText } from './basics';
import { channelSchema } from './channels';
import { conditionChangesSchema, conditionValuesSchema, groupSchema, plannedKey } from './conditions';
import { edgesSchema, keySchema, settableSchema, stageSchema, samplingKindSchema } from './link';
import { planSchema } from './plan';
import { recorderStatusSchema } from './recorder';
import { calibrationSchema, channelSetupSchema } from './setup';
import { spotSchema, spotStatusSchema } from './spots';
import { workingsSchema } from './workings';

export const gapSchema = z.object({ channel: z.string(), from: finite, to: finite });
export type Gap = z.infer<typeof gapSchema>;

/** A few points of the first channel of a run, for small pictures. */
/** The small picture of a run: places from 0 to 1, and what was read there, in a unit that older ones do not tell. */
export const previewSchema = z.object({
  x: z.array(finite),
  y: z.array(finite.nullable()),
  unit: z.string().optional(),
});
export type Preview = z.infer<typeof previewSchema>;

export const runSchema = z.object({
  id: z.string(),
  investigationId: z.string(),
  number: z.number().int(),
  name: z.string(),
  origin: z.enum(['recorded', 'imported', 'away']),
  /** One that is fetched from a device is not shown before all of it is here. */
  state: z.enum(['recording', 'ended', 'interrupted', 'fetching']),
  /** The instant at which it began, and the zone of the clock there (IANA); null where nobody knows. */
  startedAt: z.string(),
  timeZone: z.string().nullable(),
  removed: z.boolean(),
  gaps: z.array(gapSchema),
  /** Sentences about what went wrong while it was recorded. */
  notes: z.array(z.string()),
  /** The plan as it was when the run began; null of a file's runs. */
  plan: planSchema.nullable(),
  practice: z.boolean(),
  conditions: conditionValuesSchema,
  /** Who recorded it, and what there is to say about it. */
  group: z.string(),
  remark: z.string(),
  /** The planned row of the trials that it was recorded for; null of none. */
  planned: z.string().nullable(),
  channels: z.array(channelSchema),
  /** The readings of a run that was taken one by one; null of one against time. */
  spot: spotSchema.nullable(),
});
export type Run = z.infer<typeof runSchema>;

export const runPatchSchema = z
  .object({
    name: nameSchema,
    removed: z.boolean(),
    practice: z.boolean(),
    conditions: conditionChangesSchema,
    group: groupSchema,
    remark: plainText.pipe(z.string().max(2000, 'a note has 2000 letters at most')),
    planned: plannedKey.nullable(),
  })
  .partial()
  .strict();
export type RunPatch = z.infer<typeof runPatchSchema>;

/** Runs of other investigations that are to be taken in. */
export const takeRunsSchema = z
  .object({ runs: z.array(idSchema).min(1, 'choose a run').max(100, '100 runs at once') })
  .strict();

export const investigationSummarySchema = z.object({
  id: z.string(),
  name: z.string(),
  runCount: z.number().int(),
  entryCount: z.number().int(),
  usedAt: z.string(),
  /** The class or the theme that it belongs to; empty where nobody said. */
  theme: z.string(),
  /** When it was removed; null of one that is there. */
  removedAt: z.string().nullable(),
});
export type InvestigationSummary = z.infer<typeof investigationSummarySchema>;

/** Which investigations a list holds: all that are there, those of one's own, those that came as examples, or removed ones. */
export const investigationLists = ['all', 'own', 'examples', 'removed'] as const;
export type InvestigationList = (typeof investigationLists)[number];
/** Their order: by last use, or by theme and then by last use. */
export const investigationOrders = ['use', 'theme'] as const;
export type InvestigationOrder = (typeof investigationOrders)[number];
/** A removed investigation can be put back for so many days. */
export const daysToPutBack = 30;

/** How many investigations come at once. */
export const investigationsPerPage = 24;
/** What a copy of an investigation is, and the runs that are not in it, since they were being recorded. */
export const copiedSchema = z.object({ id: idSchema, left: z.array(z.string()) });
export type Copied = z.infer<typeof copiedSchema>;

/** Some of the investigations in which what was searched for is found. */
export const investigationPageSchema = z.object({
  investigations: z.array(investigationSummarySchema),
  /** How many there are of them in all. */
  total: z.number().int(),
});
export type InvestigationPage = z.infer<typeof investigationPageSchema>;
/** Small pictures of up to three runs of an investigation. */
export const previewsSchema = z.array(previewSchema.extend({ style: z.number().int() }));
export type Previews = z.infer<typeof previewsSchema>;

export const investigationSchema = z.object({
  id: z.string(),
  name: z.string(),
  plan: planSchema,
  workings: workingsSchema,
  workingsVersion: z.number().int(),
  /** Whose workings these are: of several people over one investigation each has a sheet of their own. */
  workingsOwner: z.string(),
  runs: z.array(runSchema),
  recorder: recorderStatusSchema,
  spots: spotStatusSchema,
  /** Codes of devices that it uses or has used. */
  sensors: z.array(z.string()),
  /** What a restart of the server has ended here and nobody was told yet, in words. */
  ended: z.string().nullable().default(null),
});
export type Investigation = z.infer<typeof investigationSchema>;

export const newInvestigationSchema = z.object({ name: nameSchema }).strict();
/** Of a plan only what a person sets; bindings are the recorder's. */
export const planPatchSchema = planSchema
  .pick({
    way: true,
    spot: true,
    pace: true,
    begin: true,
    end: true,
    times: true,
    practice: true,
    conditions: true,
  })
  .partial()
  .strict();
export const investigationPatchSchema = z
  .object({
    name: nameSchema,
    theme: plainText.transform((text) => text.trim()).pipe(z.string().max(60)),
    plan: planPatchSchema,
    /** What is said of the first run before it is recorded, and which planned row the next one fills. */
    forNext: z
      .object({ conditions: conditionChangesSchema, group: groupSchema, planned: plannedKey.nullable() })
      .partial()
      .strict(),
  })
  .partial()
  .strict();
export type InvestigationPatch = z.infer<typeof investigationPatchSchema>;
export type PlanPatch = NonNullable<InvestigationPatch['plan']>;

export const signInSchema = z.object({ token: plainText.pipe(z.string().min(1).max(200)) }).strict();
/** Who is signed in. */
export const meSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.enum(['teacher', 'participant', 'screen']),
});
export type Me = z.infer<typeof meSchema>;

/** Somebody who takes part in one investigation, or a screen that only shows it. */
const participantKinds = z.enum(['participant', 'screen']);
export const newParticipantSchema = z.object({ name: nameSchema, kind: participantKinds }).strict();
export type NewParticipant = z.infer<typeof newParticipantSchema>;
export const participantSchema = z.object({ id: z.string(), name: z.string(), kind: participantKinds });
export type Participant = z.infer<typeof participantSchema>;
/** The token with which they sign in; it is shown once. */
export const madeParticipantSchema = participantSchema.extend({ token: z.string() });
export type MadeParticipant = z.infer<typeof madeParticipantSchema>;

/** A channel of a device as the investigation that uses it has set it up. Shown = scale × sent + offset. */
export const deviceChannelSchema = z.object({
  key: z.string(),
  quantity: z.string(),
  symbol: z.string(),
  /** UCUM code of the unit in which it is shown and recorded. */
  unit: z.string(),
  /** What the device itself says. */
  own: z.object({ quantity: z.string(), symbol: z.string(), unit: z.string() }),
  /** In the device's unit. */
  ranges: z.array(
    z.object({ key: z.string(), label: z.string().optional(), low: finite, high: finite, noise: finite }),
  ),
  range: z.string(),
  on: z.boolean(),
  reversed: z.boolean(),
  zeroAtStart: z.boolean(),
  scale: finite,
  offset: finite,
  /** Limits, scatter and smallest step in the unit shown. */
  low: finite,
  high: finite,
  noise: finite,
  resolution: finite,
});
export type DeviceChannel = z.infer<typeof deviceChannelSchema>;

export const deviceStreamSchema = z.object({
  key: z.string(),
  /** Number of this stream in live frames. */
  handle: z.number().int(),
  sampling: samplingKindSchema,
  edges: edgesSchema.nullable(),
  /** Of events: how each channel stands, 1 for on or blocked; null while it is not known. */
  states: z.array(z.union([z.literal(0), z.literal(1)]).nullable()),
  rate: finite,
  /** Readings a second that come to the screens: fast streams are thinned on their way. */
  liveRate: finite,
  rates: z.object({
    lowest: finite,
    highest: finite,
    usual: finite,
    only: z.array(finite).optional(),
  }),
  channels: z.array(deviceChannelSchema),
});
export type DeviceStream = z.infer<typeof deviceStreamSchema>;

export const deviceSchema = z.object({
  code: z.string(),
  model: z.string(),
  /** The investigation that uses it. */
  use: z.object({ investigation: z.string(), name: z.string() }).nullable(),
  /** On the link right now. */
  present: z.boolean(),
  /** What it reads while its link is broken it sends when it is soon back. */
  sendsAgain: z.boolean(),
  /** From another machine, and not let in yet. */
  waiting: z.boolean(),
  battery: z.number().nullable(),
  signal: z.number().nullable(),
  /** What it says about itself; empty where that is nothing. */
  remark: z.string(),
  /** How much faster than the server's its clock runs, as a share; null while that is not known. */
  drift: finite.nullable(),
  streams: z.array(deviceStreamSchema),
  numbers: z.array(settableSchema),
  outputs: z.array(settableSchema),
  calibration: calibrationSchema,
  stage: stageSchema.nullable(),
  /** What it records and keeps by itself; null of one that does not. */
  away: awaySchema.nullable(),
});
export type Device = z.infer<typeof deviceSchema>;

/** What a person changes of how an investigation uses a device. */
export const setupPatchSchema = z
  .object({
    rates: z.record(keySchema, finite.positive('a sample rate is a positive number of hertz')),
    channels: z.record(keySchema, channelSetupSchema),
  })
  .partial()
  .strict();
export type SetupPatch = z.infer<typeof setupPatchSchema>;

/** Which channels to zero; all that run where nothing is said. */
export const zeroRequestSchema = z.object({ channels: z.array(keySchema).max(64).optional() }).strict();
/** A second of readings of one channel, in the device's own unit and before any calibration. */
export const stillReadingSchema = z.object({
  mean: finite,
  spread: finite,
  /** Standard uncertainty of the mean. */
  uncertainty: finite,
  count: z.number().int(),
});
export type StillReading = z.infer<typeof stillReadingSchema>;
/** How many readings of a channel are no measurement: at a limit of its sensor, or echoes of something else. */
export const leftOutCountSchema = z.object({
  channel: z.number().int(),
  pinned: z.number().int(),
  strays: z.number().int(),
});
export type LeftOutCount = z.infer<typeof leftOutCountSchema>;
export const settingSchema = z.object({ key: keySchema, value: finite }).strict();

/** The largest file of columns, in bytes; it is said wherever a file is chosen. */
export const largestImportBytes = 256 * 1024 * 1024;

const decimalSchema = z.enum(['.', ',']);

/** What the readings of a file are taken against; columns are counted from 0. */
export const importLayoutSchema = z
  .object({
    axis: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('as-read') }),
      z.object({ kind: z.literal('column'), column: z.number().int().min(0).max(63) }),
      z.object({ kind: z.literal('rate'), hertz: finite.positive('a rate is more than 0') }),
      /** Each row is a spot reading. */
      z.object({ kind: z.literal('spots') }),
    ]),
    without: z.array(z.number().int().min(0).max(63)).max(64),
  })
  .strict();
export type ImportLayout = z.infer<typeof importLayoutSchema>;

/** Signs that may stand between cells, by their names. */
export const separatorNames = ['tab', 'semicolon', 'bar', 'comma', 'space'] as const;

/** A file of columns on its way to become runs. */
export const importSchema = z.object({
  id: idSchema,
  name: z.string(),
  state: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('reading'), share: z.number() }),
    z.object({ kind: z.literal('question'), example: z.string(), encoding: z.string() }),
    z.object({ kind: z.literal('refused'), sentence: z.string() }),
    z.object({
      kind: z.literal('ready'),
      encoding: z.string(),
      separator: z.string(),
      decimal: decimalSchema,
      rows: z.number().int(),
      /** Comments and preamble that were passed over. */
      skipped: z.number().int(),
      layout: importLayoutSchema,
      /** Columns of the first table, as they stand in the file. */
      columns: z.array(z.object({ name: z.string(), unit: z.string() })),
      runs: z.array(
        z.object({
          name: z.string(),
          /** When its first reading was taken, where the file says it. */
          begins: z.string().nullable(),
          /** What a clock showed then, where the file tells no date. */
          since: z.string().nullable(),
          channels: z.array(
            z.object({
              name: z.string(),
              unit: z.string(),
              count: z.number().int(),
              against: z.string(),
              first: z.array(finite.nullable()),
            }),
          ),
        }),
      ),
    }),
    z.object({ kind: z.literal('storing'), share: z.number() }),
    z.object({ kind: z.literal('stored') }),
  ]),
});
export type Import = z.infer<typeof importSchema>;
/** Names and units of a file's runs and columns, in its order, as they were mended in the preview. */
const importNamesSchema = z.array(
  z.object({
    name: nameSchema,
    channels: z.array(
      z.object({
        name: plainText
          .transform((text) => text.trim())
          .pipe(z.string().min(1, 'a column needs a name').max(60, 'a column’s name has 60 letters at most')),
        unit: plainText.max(60, 'a unit has 60 letters at most'),
      }),
    ),
  }),
);
export type ImportNames = z.infer<typeof importNamesSchema>;
export const importKeepSchema = z.object({ runs: importNamesSchema.optional() }).strict();
export const importAnswerSchema = z
  .object({ decimal: decimalSchema, separator: z.enum(separatorNames), layout: importLayoutSchema })
  .partial()
  .strict();
export type ImportAnswer = z.infer<typeof importAnswerSchema>;
