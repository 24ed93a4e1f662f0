import { type SeriesRef } from '@heuristor/core';
import { type Outline, type PointQuestion, type Sight } from '../../workers/protocol';
import { type Place } from './place';
import { type PlacedTrace } from './scene';

/** Where and how a pointer went down, and what was there then. */
export interface Press {
  at: Place;
  /** The series whose trace was pressed. */
  series: SeriesRef | null;
  sight: Sight;
  /** By how much the run in front was moved in time; null where there is none. */
  shift: number | null;
}

/** A finger on the traces. */
export interface Finger {
  id: number;
  at: Place;
}

/** What a hand is doing. */
export type Doing =
  | { is: 'resting' }
  | { is: 'pressing'; press: Press }
  | { is: 'marking'; press: Press }
  | { is: 'panning'; press: Press }
  | { is: 'boxing'; press: Press; to: Place | null }
  | { is: 'shifting'; press: Press; hasMoved: boolean }
  | { is: 'circling'; path: readonly Place[] }
  | { is: 'pinching'; began: readonly [Finger, Finger]; sight: Sight; found: PlacedTrace | null };

/** A hand over the traces, with the fingers that touch them. */
export interface Hand {
  doing: Doing;
  fingers: readonly Finger[];
}

/** What happens to a hand; places as in a scene. */
export type HandEvent =
  | {
      kind: 'down';
      at: Place;
      /** Of a finger; null of a mouse or a pen. */
      finger: number | null;
      isMiddleButton: boolean;
      isShift: boolean;
      isControl: boolean;
    }
  | { kind: 'move'; at: Place; finger: number | null }
  | { kind: 'up'; at: Place; finger: number | null }
  /** The system has taken the pointer away. */
  | { kind: 'cancel' }
  /** Another part of the page has taken the pointer. */
  | { kind: 'lost' }
  | { kind: 'leave' }
  | { kind: 'wheel'; at: Place; turned: number; isShift: boolean }
  | { kind: 'arrow'; direction: -1 | 1; isShift: boolean };

/** What comes of it, to be done in this order. */
export type HandEffect =
  /** From here to `settle` all is one step of undo. */
  | { do: 'hold' }
  | { do: 'settle' }
  /** Settles when nothing more comes for a moment. */
  | { do: 'settle soon' }
  /** Shows what is read at a value of time; null shows nothing. */
  | { do: 'hover'; at: number | null }
  | { do: 'hover near'; question: PointQuestion }
  | { do: 'put cursor'; at: number; isSecond: boolean }
  | { do: 'put cursor near'; question: PointQuestion; isSecond: boolean }
  | { do: 'step cursor'; readings: number }
  | { do: 'select no region' }
  /** Marks a region; the later ones change that one. */
  | { do: 'mark'; start: number; end: number; series: SeriesRef | null; isNew: boolean }
  | { do: 'look'; sight: Sight }
  | { do: 'scale'; axis: string; range: Sight }
  | { do: 'look at box'; sight: Sight; axis: string; range: Sight }
  | { do: 'shift run'; by: number }
  | { do: 'set aside'; outline: Outline }
  | { do: 'leave mode' };

/** The next state of a hand, and what comes of it. */
export type HandStep = [Hand, HandEffect[]];

export const restingHand: Hand = { doing: { is: 'resting' }, fingers: [] };

/** A pointer that moved by less than this, in pixels, has pressed and not dragged. */
export const shortestDrag = 5;
