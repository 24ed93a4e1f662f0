import { BenchHand } from './bench';
import { type System, startSystem } from './system';

/** A teacher, signed in, with the page Home open. */
export async function signedIn(): Promise<{ system: System; hand: BenchHand }> {
  const system = await startSystem();
  const hand = new BenchHand(system.page);
  await system.open(`/sign-in/${await system.signInToken()}`);
  await hand.waitForText('Investigations');
  return { system, hand };
}
