import { type Run } from '@heuristor/contracts';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { useSession } from '../../investigation/context';
import { type SheetSession } from '../../investigation/sheetSession';
import { type Doing, type HandEffect, type HandEvent, restingHand } from './hand';
import { type Scene } from './scene';
import { step } from './step';

/** A wheel that has stood still so long has been let go. */
const wheelRestMilliseconds = 180;

/** Does to a session what comes of a hand. */
class Performer {
  /** The region that is being marked. */
  private region: string | null = null;
  /** Whether the pointer is over a plot: what is still on its way when it has left is not shown. */
  private isOver = false;
  private wheelRest: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly session: SheetSession) {}

  dispose(): void {
    clearTimeout(this.wheelRest);
  }

  do(effect: HandEffect, front: Run | undefined): void {
    const { session } = this;
    switch (effect.do) {
      case 'hold':
        session.move();
        return;
      case 'settle':
        session.settle();
        return;
      case 'settle soon':
        clearTimeout(this.wheelRest);
        this.wheelRest = setTimeout(() => session.settle(), wheelRestMilliseconds);
        return;
      case 'hover':
        this.isOver = false;
        session.cursor.hover(effect.at);
        return;
      case 'hover near':
        this.isOver = true;
        void session.cursor.near(effect.question, false).then((found) => {
          if (this.isOver) session.cursor.hover(found?.at ?? null);
        });
        return;
      case 'put cursor':
        this.putCursor(effect.at, effect.isSecond);
        return;
      case 'put cursor near':
        void session.cursor.near(effect.question, true).then((found) => {
          if (found === null) return;
          if (found.run !== session.front?.id) session.viewing.bringToFront(found.run);
          this.putCursor(found.at, effect.isSecond);
        });
        return;
      case 'step cursor':
        void session.cursor.step(effect.readings);
        return;
      case 'select no region':
        session.viewing.selectRegion(null);
        return;
      case 'mark': {
        const { start, end, series, isNew } = effect;
        if (isNew || this.region === null) this.region = session.regions.mark(start, end, series);
        else session.changeEntry(this.region, { start, end });
        return;
      }
      case 'look':
        session.look(effect.sight);
        return;
      case 'scale':
        session.scale(effect.axis, effect.range);
        return;
      case 'look at box': {
        const { sight, axis, range } = effect;
        session.looking.change({ sight, scales: { ...session.view.getState().scales, [axis]: range } });
        return;
      }
      case 'shift run':
        if (front !== undefined) session.shiftRuns(new Map([[front.id, effect.by]]));
        return;
      case 'set aside':
        if (front !== undefined) void session.asides.within(front, effect.outline);
        return;
      case 'leave mode':
        session.viewing.setHandMode('usual');
        return;
    }
  }

  private putCursor(at: number, isSecond: boolean): void {
    if (isSecond) this.session.cursor.putSecond(at);
    else this.session.cursor.put(at);
  }
}

/**
 * A hand over the traces: takes what happens to it and does to the session what comes of it.
 * @param layer which must not scroll the page when a wheel is turned over it
 * @returns what takes an event with what lies under the hand, and what the hand is doing
 */
export function useHand(
  front: Run | undefined,
  layer: RefObject<HTMLElement | null>,
): [happen: (event: HandEvent, scene: Scene) => void, doing: Doing] {
  const session = useSession();
  const hand = useRef(restingHand);
  const performer = useRef<Performer | null>(null);
  const [doing, setDoing] = useState<Doing>(restingHand.doing);
  useEffect(() => {
    const performing = new Performer(session);
    performer.current = performing;
    return () => performing.dispose();
  }, [session]);
  useEffect(() => {
    // React listens to wheels passively.
    const { current } = layer;
    const hold = (event: Event) => event.preventDefault();
    current?.addEventListener('wheel', hold, { passive: false });
    return () => current?.removeEventListener('wheel', hold);
  }, [layer]);
  const happen = (event: HandEvent, scene: Scene) => {
    const before = hand.current.doing;
    const [next, effects] = step(hand.current, event, scene);
    hand.current = next;
    for (const effect of effects) performer.current?.do(effect, front);
    // Only what is drawn of a hand is drawn anew.
    if (isDrawn(next.doing) || isDrawn(before)) setDoing(next.doing);
  };
  return [happen, doing];
}

const isDrawn = ({ is }: Doing): boolean => is === 'boxing' || is === 'circling';
