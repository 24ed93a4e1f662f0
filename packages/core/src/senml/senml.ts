import { Refusal } from '../refusal';

/** A record of a sensor measurement list with its base values put in (RFC 8428, section 4.6). */
export interface SenmlRecord {
  name: string;
  /** As the pack has it, by the registry of RFC 8428, section 12.1; empty where it has none. */
  unit: string;
  /** Seconds since 1970, or relative to the moment at which it came where it is small. */
  time: number;
  value: number | boolean | string | null;
  sum: number | null;
}

/** Times below this are relative to now (RFC 8428, section 4.5.3). */
export const relativeBelow = 2 ** 28;
/** The version that this reads (RFC 8428, section 4.4). */
const version = 10;
const namePattern = /^[A-Za-z0-9][A-Za-z0-9\-:./_]*$/;
const mostRecords = 10_000;

/** Labels of a record in JSON by those in CBOR (RFC 8428, section 6, table 4). */
const cborLabels: Readonly<Record<string, string>> = {
  '-1': 'bver',
  '-2': 'bn',
  '-3': 'bt',
  '-4': 'bu',
  '-5': 'bv',
  '-6': 'bs',
  '0': 'n',
  '1': 'u',
  '2': 'v',
  '3': 'vs',
  '4': 'vb',
  '5': 's',
  '6': 't',
  '7': 'ut',
  '8': 'vd',
};

const known = new Set(Object.values(cborLabels));

/**
 * The records of a pack, resolved and in the order of their times (RFC 8428). `pack` is what the JSON or the CBOR holds.
 * @throws Refusal that names the record, from 1, and what is wrong with it
 */
export function readSenml(pack: unknown): SenmlRecord[] {
  if (!Array.isArray(pack)) throw new Refusal('A pack is an array of records.');
  if (pack.length === 0) throw new Refusal('A pack has at least one record.');
  if (pack.length > mostRecords) throw new Refusal(`A pack has at most ${mostRecords} records here.`);
  const base = { n: '', t: 0, u: '', v: null as number | null, s: null as number | null };
  let packVersion: number | null = null;
  const records: SenmlRecord[] = [];
  pack.forEach((given: unknown, i) => {
    const wrong = (what: string) => new Refusal(`Record ${i + 1}: ${what}`);
    const record = labelled(given, wrong);
    const number = (label: string): number | undefined => {
      const value = record[label];
      if (value === undefined) return undefined;
      if (typeof value !== 'number' || !Number.isFinite(value))
        throw wrong(`“${label}” is ${shown(value)}; it is a finite number.`);
      return value;
    };
    const text = (label: string): string | undefined => {
      const value = record[label];
      if (value !== undefined && typeof value !== 'string')
        throw wrong(`“${label}” is ${shown(value)}; it is a text.`);
      return value;
    };
    const bver = number('bver') ?? packVersion;
    if (bver !== null && bver > version)
      throw wrong(`it is of version ${bver}; this understands versions up to ${version}.`);
    if (packVersion !== null && bver !== packVersion) throw wrong('all records have the same version.');
    packVersion = bver;
    base.n = text('bn') ?? base.n;
    base.t = number('bt') ?? base.t;
    base.u = text('bu') ?? base.u;
    base.v = number('bv') ?? base.v;
    base.s = number('bs') ?? base.s;
    const values = ['v', 'vs', 'vb', 'vd'].filter((label) => record[label] !== undefined);
    if (values.length > 1) throw wrong(`it has ${values.join(' and ')}; a record has one value.`);
    const [v, s] = [number('v'), number('s')];
    const [vs, vd] = [text('vs'), text('vd')];
    const { vb } = record;
    if (vb !== undefined && typeof vb !== 'boolean')
      throw wrong(`“vb” is ${shown(vb)}; it is true or false.`);
    const n = text('n');
    const hasOwn = n !== undefined || values.length > 0 || s !== undefined || record.t !== undefined;
    // A record of base values alone measures nothing.
    const isBaseOnly = !hasOwn && Object.keys(record).some((label) => label.startsWith('b'));
    if (isBaseOnly && base.v === null && base.s === null) return;
    const name = base.n + (n ?? '');
    if (!namePattern.test(name))
      throw wrong(
        name === ''
          ? 'it has no name.'
          : `the name “${name.slice(0, 60)}” has to begin with a letter or digit and hold nothing but letters, digits, - : . / and _.`,
      );
    const isNumber = values.length === 0 || values[0] === 'v';
    const sum = s === undefined && base.s === null ? null : (base.s ?? 0) + (s ?? 0);
    const value = isNumber
      ? v === undefined && base.v === null
        ? null
        : (base.v ?? 0) + (v ?? 0)
      : (vs ?? vd ?? (vb as boolean));
    if (value === null && sum === null) throw wrong('it has neither a value nor a sum.');
    const time = base.t + (number('t') ?? 0);
    if (![time, sum ?? 0, typeof value === 'number' ? value : 0].every(Number.isFinite))
      throw wrong('with its base it is larger than any number.');
    records.push({ name, unit: text('u') ?? base.u, time, value, sum });
  });
  return records
    .map((record, place) => ({ record, place }))
    .sort((a, b) => a.record.time - b.record.time || a.place - b.place)
    .map(({ record }) => record);
}

const shown = (value: unknown) => JSON.stringify(value)?.slice(0, 40) ?? String(value);

/** A record by the labels of JSON. @throws Refusal where a label must be understood and is not */
function labelled(given: unknown, wrong: (what: string) => Refusal): Record<string, unknown> {
  const entries =
    given instanceof Map
      ? [...given]
      : typeof given === 'object' && given !== null && !Array.isArray(given)
        ? Object.entries(given)
        : null;
  if (entries === null) throw wrong('it is no record.');
  // Without a prototype: a field may be called like what every object has.
  const record = Object.create(null) as Record<string, unknown>;
  for (const [key, value] of entries) {
    const own = typeof key === 'object' ? '' : String(key);
    const label = Object.hasOwn(cborLabels, own) ? cborLabels[own] : own;
    // RFC 8428, section 4.4: a label that ends with an underscore must be understood.
    if (!known.has(label) && label.endsWith('_'))
      throw wrong(`the field “${label}” has to be understood, and is not known here.`);
    record[label] = value;
  }
  return record;
}

/** Units of the SenML registry (RFC 8428, section 12.1) that are written otherwise in UCUM. */
const ucumOf: Readonly<Record<string, string>> = {
  '/': '1',
  count: '1',
  '%RH': '%',
  '%EL': '%',
  EL: 's',
  beats: '1',
  'beat/min': '/min',
  '1/min': '/min',
  '1/s': 's-1',
  lat: 'deg',
  lon: 'deg',
  'bit/s': 'bit/s',
  VAs: 'V.A.s',
  VA: 'V.A',
  vars: 'V.A.s',
  var: 'V.A',
  pH: '[pH]',
};

/** The UCUM code of a unit of a pack. */
export const ucumOfSenml = (unit: string): string => (Object.hasOwn(ucumOf, unit) ? ucumOf[unit] : unit);
