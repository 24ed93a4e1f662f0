import { BenchHand } from './bench';
import { StageHand } from './stage';
import { type System, startSystem } from './system';

/** A teacher, signed in, with the bench on one page and the Stage on another. */
export interface Lab {
  system: System;
  hand: BenchHand;
  stage: StageHand;
}

/** @param request the site that it takes, as for `startSystem` */
export async function openLab(scene: string, request: Parameters<typeof startSystem>[0] = {}): Promise<Lab> {
  const system = await startSystem(request);
  const hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  const stage = await StageHand.open(system, scene);
  await system.page.bringToFront();
  return { system, hand, stage };
}

/** By how much of the truth a value is off. */
export const share = (value: number, truth: number): number => Math.abs(value / truth - 1);
