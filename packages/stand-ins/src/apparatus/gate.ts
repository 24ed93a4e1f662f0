import { type ControlAction } from '@heuristor/contracts';
import { normalRandom } from '@heuristor/core';
import { type Rig, switchChannel } from '../devices/device';
import { type Apparatus, Controls, choice, control } from './apparatus';
import { Ball } from './passers/ball';
import { Bob } from './passers/bob';
import { Card } from './passers/card';
import { FlagCart } from './passers/flagCart';
import { type Passer } from './passers/passer';
import { SpokedWheel } from './passers/spokedWheel';

/** From the first beam to the second, in metres. */
export const beamSpacing = 0.25;
/** The step of the gate's timer, in seconds. */
const timerStep = 1e-5;
/** A finger in the first beam: its edges, in seconds after it was put there. It is not held still. */
const finger = [0, 0.05, 0.0501, 0.12];

/** A light gate with two beams, and the things of the harbour that go through it. */
class Gate implements Apparatus {
  private readonly controls = new Controls([
    choice('passer', 'What passes', [
      'barred card, dropped',
      'signal ball, thrown',
      'trolley with flags',
      'sounding lead on its line',
      'capstan wheel',
    ]),
    control('tilt', 'Tilt of the card', 'deg', [0, 10, 0.5], 0),
    control('unsteady', 'Unsteadiness of the hand', '%', [0, 10, 0.5], 3),
    control('speed', 'Speed of the throw', 'm/s', [1, 8, 0.1], 3),
    control('diameter', 'Diameter of the ball', 'mm', [10, 60, 0.1], 40),
    control('slope', 'Slope of the track', 'deg', [0.5, 10, 0.5], 3),
    control('flag', 'Length of each flag', 'mm', [10, 60, 0.1], 40),
    control('flags', 'Flags on the trolley', '1', [1, 2, 1], 2),
    control('length', 'Length of the pendulum', 'm', [0.2, 1.5, 0.01], 1),
    control('aside', 'Pull aside', 'deg', [2, 30, 1], 8),
    control('spokes', 'Spokes of the wheel', '1', [1, 36, 1], 10),
    control('turns', 'Turns a second', 's-1', [0.2, 10, 0.1], 2),
  ]);
  readonly stage = {
    apparatus: 'gate',
    title: 'What goes through the light gate',
    controls: this.controls.list,
  };
  private seconds = 0;
  private fingerAt = -Infinity;
  private isObstructed = false;
  private readonly unsteady = normalRandom(41);
  /** In the order of the choice. */
  readonly passers = {
    card: new Card(
      () => ({ set: this.controls.value('tilt'), spread: this.controls.value('unsteady') / 2 }),
      this.unsteady,
    ),
    ball: new Ball(() => {
      const speed = this.controls.value('speed');
      return {
        speed,
        spread: (speed * this.controls.value('unsteady')) / 100,
        diameter: this.controls.value('diameter') * 1e-3,
      };
    }, this.unsteady),
    cart: new FlagCart(() => ({
      slope: this.controls.value('slope'),
      flag: this.controls.value('flag') * 1e-3,
      flags: this.controls.value('flags'),
    })),
    bob: new Bob(() => ({ length: this.controls.value('length'), aside: this.controls.value('aside') })),
    wheel: new SpokedWheel(() => ({
      turns: this.controls.value('turns'),
      spokes: this.controls.value('spokes'),
    })),
  };

  get passer(): Passer {
    return Object.values(this.passers)[this.controls.value('passer')];
  }

  step(seconds: number): void {
    this.seconds += seconds;
    this.passer.step(seconds);
  }

  margin(beam: number): number {
    const own = this.passer.margin(beam * beamSpacing);
    return beam > 0 ? own : Math.min(own, this.isObstructed ? -1 : 1, this.fingerMargin);
  }

  private get fingerMargin(): number {
    const since = this.seconds - this.fingerAt;
    const [on, off, again, gone] = finger;
    return Math.min(Math.max(on - since, since - off), Math.max(again - since, since - gone));
  }

  scene(): Record<string, number> {
    const { place, held } = this.passer;
    return {
      place,
      held: Number(held),
      a: Number(this.margin(0) < 0),
      b: Number(this.margin(1) < 0),
      obstructed: Number(this.isObstructed),
    };
  }

  control(action: ControlAction): void {
    if (action.action === 'set') this.controls.set(action.key, action.value);
    else if (action.action === 'do' && action.key === 'finger') this.fingerAt = this.seconds;
    else if (action.action === 'do' && action.key === 'obstruct') this.isObstructed = !this.isObstructed;
    else this.passer.act(action);
  }
}

export function gate(): Rig & { apparatus: Gate } {
  const apparatus = new Gate();
  return {
    apparatus,
    devices: [
      {
        code: 'G2-T',
        keeps: 20_000,
        model: 'Light gate with two beams',
        battery: 0.8,
        streams: [
          {
            key: 'beams',
            sampling: 'events',
            edges: { of: 'beam', step: timerStep },
            channels: [
              { channel: switchChannel('beamA', 'A', 'beam'), margin: () => apparatus.margin(0) },
              { channel: switchChannel('beamB', 'B', 'beam'), margin: () => apparatus.margin(1) },
            ],
          },
        ],
      },
    ],
  };
}
