import { z } from 'zod';

/** A place on a photograph: shares of its width and of its height from its upper left corner. */
const place = z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]);
export type Place = z.infer<typeof place>;

const line = { from: place, to: place };
const markSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('arrow'), ...line }),
  z.object({ kind: z.literal('words'), at: place, words: z.string().max(80) }),
  /** A line whose length is known, in metres; nothing typed yet is null. */
  z.object({ kind: z.literal('scale'), ...line, metres: z.number().positive().max(1e6).nullable() }),
  /** A line whose length follows from the scale. */
  z.object({ kind: z.literal('length'), ...line }),
]);
export type Mark = z.infer<typeof markSchema>;
export type MarkKind = Mark['kind'];
/** A mark with its name in the block. */
export type NamedMark = Mark & { id: string };

/** What a mark is called in the block that it belongs to. */
export const markPrefix = 'mark ';
/** So many marks on a photograph at most. */
export const mostMarks = 40;

/** The marks among the fields of a block, as anybody may have written them; what is none is left out. */
export function marksIn(fields: Iterable<[name: string, value: unknown]>): NamedMark[] {
  const found: NamedMark[] = [];
  for (const [name, value] of fields) {
    if (!name.startsWith(markPrefix)) continue;
    const read = markSchema.safeParse(value);
    if (read.success) found.push({ ...read.data, id: name.slice(markPrefix.length) });
  }
  return found.sort((one, other) => (one.id < other.id ? -1 : 1)).slice(0, mostMarks);
}

/** The size of a photograph in its own pixels. */
export interface Size {
  width: number;
  height: number;
}

/** The ends of a line are placed by hand as well as this, as a share of the longer side. Common practice, no source. */
const placed = 0.002;

const pixelsOf = ({ from, to }: { from: Place; to: Place }, { width, height }: Size): number =>
  Math.hypot((to[0] - from[0]) * width, (to[1] - from[1]) * height);

/**
 * The length of a line by the scale that was laid on the photograph, in metres. It holds in the plane of the scale, seen straight on.
 * @returns its standard uncertainty too: both ends of both lines are placed by hand; null where there is no scale yet
 */
export function lengthBy(
  scale: Extract<Mark, { kind: 'scale' }> | undefined,
  line: { from: Place; to: Place },
  size: Size,
): { value: number; u: number } | null {
  if (scale === undefined || scale.metres === null) return null;
  const [known, wanted] = [pixelsOf(scale, size), pixelsOf(line, size)];
  if (!(known > 0)) return null;
  const value = (scale.metres * wanted) / known;
  const ofLine = placed * Math.max(size.width, size.height) * Math.SQRT2;
  return { value, u: (scale.metres / known) * Math.hypot(ofLine, (ofLine * wanted) / known) };
}

export const scaleOf = (marks: readonly NamedMark[]) => marks.find((mark) => mark.kind === 'scale');
