import { boxLookedAt } from './boxing';
import { circleClosed } from './circling';
import { marked, panned, shifted } from './dragging';
import { type Doing, type Finger, type Hand, type HandEffect, type HandEvent, type HandStep } from './hand';
import { hover, hoverNothing } from './hovering';
import { pinchBegun, pinched } from './pinching';
import { pressed, putCursor } from './pressing';
import { type Scene } from './scene';
import { turned } from './turning';

const resting: Doing = { is: 'resting' };
const settle: HandEffect = { do: 'settle' };

/** The fingers on the traces after an event. */
function touching(fingers: readonly Finger[], event: HandEvent): readonly Finger[] {
  if (event.kind === 'cancel' || event.kind === 'lost') return [];
  if (!('finger' in event) || event.finger === null) return fingers;
  const id = event.finger;
  switch (event.kind) {
    case 'down':
      return [...fingers.filter((finger) => finger.id !== id), { id, at: event.at }];
    case 'move':
      return fingers.map((finger) => (finger.id === id ? { id, at: event.at } : finger));
    case 'up':
      return fingers.filter((finger) => finger.id !== id);
  }
}

function goneDown(
  { doing, fingers }: Hand,
  event: Extract<HandEvent, { kind: 'down' }>,
  scene: Scene,
): HandStep {
  const [first, second] = fingers;
  if (event.finger !== null && fingers.length > 1)
    return fingers.length === 2
      ? [{ doing: pinchBegun([first, second], scene), fingers }, []]
      : [{ doing, fingers }, []];
  const keys = { isSecond: event.isShift || event.isMiddleButton, isBox: event.isControl };
  return [{ doing: pressed(event.at, keys, scene), fingers }, []];
}

function moved(
  { doing, fingers }: Hand,
  { at, finger }: Extract<HandEvent, { kind: 'move' }>,
  scene: Scene,
): HandStep {
  /** Nothing is read under a hand that drags. */
  const dragged = ([next, effects]: [Doing, HandEffect[]]): HandStep => [
    { doing: next, fingers },
    [hoverNothing, ...effects],
  ];
  switch (doing.is) {
    case 'resting':
      return [{ doing, fingers }, [finger === null ? hover(at, scene) : hoverNothing]];
    case 'pinching':
      return [{ doing, fingers }, pinched(doing, fingers, scene)];
    case 'circling':
      return [{ doing: { ...doing, path: [...doing.path, at] }, fingers }, []];
    case 'boxing':
      return dragged([{ ...doing, to: at }, []]);
    case 'panning':
      return dragged(panned(doing.press, at, scene));
    case 'shifting':
      return dragged(shifted(doing.press, at, doing.hasMoved, scene));
    case 'pressing':
      return dragged(marked(doing.press, at, true, scene));
    case 'marking':
      return dragged(marked(doing.press, at, false, scene));
  }
}

/** @param at where the pointer left the traces; null where it was taken away, and nothing more is done than to let go */
function letGo({ doing, fingers }: Hand, at: (HandEvent & { kind: 'up' }) | null, scene: Scene): HandStep {
  const rested = (...effects: HandEffect[]): HandStep => [{ doing: resting, fingers }, effects];
  switch (doing.is) {
    case 'pinching':
      return fingers.length < 2 ? rested(settle) : [{ doing, fingers }, []];
    case 'circling':
      // Who has left the mode while drawing has changed their mind.
      if (scene.mode !== 'circle') return rested();
      return rested(...(at === null ? [{ do: 'leave mode' } as const] : circleClosed(doing.path, scene)));
    case 'boxing':
      return rested(settle, ...(at === null ? [] : boxLookedAt(doing.press, at.at, scene)));
    case 'pressing':
    case 'panning': {
      const isSecond = doing.is === 'panning';
      return rested(settle, ...(at === null ? [] : putCursor(doing.press, at.at, isSecond, scene)));
    }
    case 'resting':
    case 'marking':
    case 'shifting':
      return rested(settle);
  }
}

/**
 * What a hand does over the traces: the next state, and what comes of it. It knows no page and no session.
 * @param scene what lies under the hand at this moment
 */
export function step(before: Hand, event: HandEvent, scene: Scene): HandStep {
  const hand: Hand = { doing: before.doing, fingers: touching(before.fingers, event) };
  switch (event.kind) {
    case 'down':
      return goneDown(hand, event, scene);
    case 'move':
      return moved(hand, event, scene);
    case 'up':
      return letGo(hand, event, scene);
    case 'cancel':
      return letGo(hand, null, scene);
    case 'lost': {
      const { is } = hand.doing;
      return is === 'resting' || is === 'circling' || is === 'pinching'
        ? [before, []]
        : letGo(hand, null, scene);
    }
    case 'leave':
      return [hand, [hoverNothing]];
    case 'wheel':
      return [hand, turned(event, scene)];
    case 'arrow':
      return [hand, [{ do: 'step cursor', readings: event.direction * (event.isShift ? 10 : 1) }]];
  }
}
