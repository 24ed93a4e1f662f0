import { Refusal } from '../refusal';

/** A moment at which a beam was blocked or became clear. */
export interface Edge {
  /** In the unit of the run's time. */
  time: number;
  /** Which of the beams: 0 for the first one, 1 for the second. */
  beam: number;
  blocked: boolean;
}

/** One time that something was in a beam. */
export interface Blocking {
  beam: number;
  /** Places of its two edges in the list of edges. */
  from: number;
  to: number;
  began: number;
  ended: number;
}

/** A pass that is no measurement, and why. */
export interface LeftOutPass {
  time: number;
  reason: string;
  /** The beam, where something did pass it: one of a pair or a bar of a fence, which is missing then. */
  beam?: number;
}

/**
 * A beam that is blocked or clear for less than this, in seconds, has flickered: a flag of 1 cm at 10 m/s takes five times as
 * long. Common practice, no source.
 */
export const shortestState = 2e-4;
/** A beam that opens for less than this share of the blocking beside it has flickered: the rim of a flag was not clean. */
const flickerShare = 0.05;

/** The edges of one or two beams in the order of time. @throws Refusal where one of them holds other states than blocked and clear */
export function mergedEdges(beams: readonly { times: Float64Array; states: ArrayLike<number> }[]): Edge[] {
  const edges = beams.flatMap(({ times, states }, beam) =>
    Array.from(times, (time, i): Edge => {
      if (states[i] !== 0 && states[i] !== 1)
        throw new Refusal(`Edge ${i + 1} of a beam says ${states[i]}; it is 1 (blocked) or 0 (clear).`);
      return { time, beam, blocked: states[i] === 1 };
    }),
  );
  return edges.sort((a, b) => a.time - b.time);
}

/**
 * What was in the beams, one blocking after the other by the moments at which they ended, and what cannot be one: a beam that
 * was blocked when the run began, one that flickered. A blocking that has not ended yet is none yet.
 * @param second one second in the unit of the edges' times
 */
export function blockingsOf(
  edges: readonly Edge[],
  second: number,
): { blockings: Blocking[]; leftOut: LeftOutPass[] } {
  const found: Blocking[] = [];
  const leftOut: LeftOutPass[] = [];
  const open = new Map<number, number>();
  const seen = new Set<number>();
  edges.forEach(({ beam, blocked, time }, place) => {
    const began = open.get(beam);
    if (blocked) {
      // An edge that did not come, or came twice: what was begun before is not known to have ended.
      if (began !== undefined)
        leftOut.push({ time: edges[began].time, reason: 'its end was not seen', beam });
      open.set(beam, place);
    } else if (began !== undefined) {
      found.push({ beam, from: began, to: place, began: edges[began].time, ended: time });
      open.delete(beam);
    } else
      leftOut.push(
        seen.has(beam)
          ? { time, reason: 'its beginning was not seen', beam }
          : { time, reason: 'the beam was blocked when the run began' },
      );
    seen.add(beam);
  });
  const { blockings, flickers } = withoutFlicker(found, second);
  leftOut.push(...flickers);
  return { blockings, leftOut: leftOut.sort((a, b) => a.time - b.time) };
}

/** Blockings that touch each other but for a flicker belong together; none of them is a measurement. */
function withoutFlicker(
  found: readonly Blocking[],
  second: number,
): { blockings: Blocking[]; flickers: LeftOutPass[] } {
  const blockings: Blocking[] = [];
  const flickers: LeftOutPass[] = [];
  const beams = [...new Set(found.map(({ beam }) => beam))];
  for (const beam of beams) {
    const own = found.filter((blocking) => blocking.beam === beam);
    for (let i = 0; i < own.length;) {
      let last = i;
      while (last + 1 < own.length && hasFlickered(own[last], own[last + 1], second)) last++;
      const isShort = last === i && own[i].ended - own[i].began < shortestState * second;
      if (last > i || isShort)
        flickers.push({
          time: (own[i].began + own[last].ended) / 2,
          reason: 'the beam flickered',
          // A glint is nothing that passed.
          ...(isShort ? {} : { beam }),
        });
      else blockings.push(own[i]);
      i = last + 1;
    }
  }
  return { blockings: blockings.sort((a, b) => a.ended - b.ended), flickers };
}

function hasFlickered(a: Blocking, b: Blocking, second: number): boolean {
  const clear = b.began - a.ended;
  const blocked = Math.max(a.ended - a.began, b.ended - b.began);
  return clear < shortestState * second || clear < flickerShare * blocked;
}

/** The moments at which something passed that is no measurement, but has its place among those that are. */
export const missingPasses = (leftOut: readonly LeftOutPass[]): number[] =>
  leftOut.flatMap(({ time, beam }) => (beam === undefined ? [] : [time]));

/** The moment in the middle of a blocking. */
export const middleOf = ({ began, ended }: Blocking): number => (began + ended) / 2;
